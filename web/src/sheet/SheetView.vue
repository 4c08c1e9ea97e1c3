<script setup lang="ts">
import type { DrawnPlace } from '@lathica/core/drawing'
import { writeDrawingSvg } from '@lathica/core/formats'
import { Button, Spin } from 'ant-design-vue'
import { computed, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import CommandSearch from '../commands/CommandSearch.vue'
import KeyList from '../commands/KeyList.vue'
import type { Page } from '../commands/registry'
import { sheetActions } from '../commands/sheetActions'
import { useShortcuts } from '../commands/useShortcuts'
import BottomLine from '../model/BottomLine.vue'
import { usePartStore } from '../store/part'
import { usePlanStore } from '../store/plan'
import { useSheetStore, type SheetPage } from '../store/sheet'
import SheetPaper from './SheetPaper.vue'
import PlanPanel from './PlanPanel.vue'
import PlanTable from './PlanTable.vue'
import ReleasedView from './ReleasedView.vue'
import RevisionsPanel from './RevisionsPanel.vue'
import SheetSettings from './SheetSettings.vue'
import SheetTabs from './SheetTabs.vue'
import { usePrinted } from './usePrinted'
import { useSheetFiles } from './useSheetFiles'

/** The drawing for the workshop. */
const parts = usePartStore()
const sheet = useSheetStore()
const plan = usePlanStore()
const paper = useTemplateRef<InstanceType<typeof SheetPaper>>('paper')
const { busy, saveAs, saveSvg, savePng } = useSheetFiles()
const savePdf = (): Promise<void> => saveAs('pdf')
const actions = sheetActions({
  savePdf: () => void savePdf(),
  savePng: () => void savePng(),
  print: () => print(),
  saveSvg: () => void saveSvg(),
  giveUp: () => paper.value?.giveUp(),
})
const { searching, listingKeys } = useShortcuts(actions, ref<Page>('draw'))

sheet.isOpen = true
onBeforeUnmount(() => (sheet.isOpen = false))

const PAGES: readonly { readonly id: SheetPage; readonly label: string }[] = [
  { id: 'sheet', label: 'Drawing' },
  { id: 'plan', label: 'Inspection plan' },
  { id: 'revisions', label: 'Revisions' },
]

// A label that is picked on the sheet picks its row of the plan.
watch(
  () => sheet.picked,
  (label) => {
    const row = plan.rows.find((r) => r.label === label)
    if (row && plan.row?.label !== label) plan.picked = row.id
  },
)

/** What ends a size, by what it began at. */
const TO_WHAT: Partial<Record<DrawnPlace['what'], string>> = {
  line: 'Click the other face, for the angle between them. Esc lets go.',
  corner:
    'Click the other edge, the same one for its diameter; with Shift the distance square to the axis. Esc lets go.',
  point:
    'Click the other point, for how far they are apart; with Shift level or upright. Esc lets go.',
}

const hint = computed(() => {
  if (sheet.tool === 'larger')
    return 'Click the edge that is drawn larger with what lies round it. Esc ends.'
  if (sheet.tool === 'origin') return 'Click the edge that lengths run from. Esc ends.'
  if (!sheet.tool)
    return 'Click a size or a note to pick it, drag it where it reads better; drag the paper, turn the wheel to come nearer.'
  return sheet.begun
    ? (TO_WHAT[sheet.begun.what] ?? '')
    : 'Click the edge that the size begins at, or a face for an angle or a radius; on the view from an end a point, or a circle for its diameter. Esc ends.'
})

/** The page has the size of the sheet. */
const { print } = usePrinted(() => {
  const { drawing } = sheet
  if (!drawing) return ''
  const { width, height } = drawing.paper
  const style = `<style>@page{size:${width}mm ${height}mm;margin:0}</style>`
  return `${style}${writeDrawingSvg(drawing, parts.name)}`
})
</script>

<template>
  <main class="sheet-view" :class="{ planning: sheet.page === 'plan' && sheet.drawing }">
    <div class="desk">
      <SheetTabs v-if="sheet.drawing || sheet.all.sheets.length > 1" />
      <SheetPaper v-if="sheet.drawing" ref="paper" :drawing="sheet.drawing" :name="parts.name" />
      <div v-else-if="sheet.setup.body !== ''" class="empty">
        <p class="figure">⌀ ?</p>
        <p>The body of this sheet is gone: choose others beside it, or take the sheet off.</p>
      </div>
      <div v-else class="empty">
        <p class="figure">⌀ ?</p>
        <p>There is nothing to draw yet: revolve a closed profile first.</p>
        <Button type="primary" @click="$router.push({ name: 'model' })">To the model</Button>
      </div>
      <p v-if="sheet.looking > 0" class="looking" role="status">
        <Spin size="small" /> Looking at the solid …
      </p>
    </div>
    <aside class="side">
      <div class="files">
        <Button type="primary" :disabled="!sheet.drawing" :loading="busy" @click="savePdf">
          PDF
        </Button>
        <Button :disabled="!sheet.drawing" @click="saveSvg">SVG</Button>
        <Button :disabled="!sheet.drawing || busy" @click="savePng">PNG</Button>
        <Button :disabled="!sheet.drawing" @click="print">Print</Button>
      </div>
      <nav aria-label="Beside the sheet">
        <button
          v-for="p in PAGES"
          :key="p.id"
          type="button"
          class="plain tab"
          :aria-pressed="sheet.page === p.id"
          @click="sheet.page = p.id"
        >
          {{ p.label }}
        </button>
      </nav>
      <PlanPanel v-if="sheet.page === 'plan'" :busy="busy" @save="saveAs" />
      <RevisionsPanel v-else-if="sheet.page === 'revisions'" />
      <SheetSettings v-else />
    </aside>
    <PlanTable v-if="sheet.page === 'plan' && sheet.drawing" class="table" />
    <ReleasedView />
    <BottomLine class="bottom-line" :hint="hint" />
    <CommandSearch v-if="searching" :actions="actions" @close="searching = false" />
    <KeyList v-if="listingKeys" :actions="actions" @close="listingKeys = false" />
  </main>
</template>

<style scoped src="./tabs.css"></style>
<style scoped>
.sheet-view {
  display: grid;
  grid-template: minmax(0, 1fr) auto auto / minmax(0, 1fr) 300px;
  flex: 1;
  min-height: 0;
}

.planning {
  grid-template-rows: minmax(0, 1fr) minmax(0, 0.8fr) auto;
}

.table {
  grid-column: 1;
  grid-row: 2;
}

.side {
  display: grid;
  grid-row: 1 / 3;
  grid-column: 2;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
  border-left: 1px solid var(--rule);
  background: var(--panel);
}

.files {
  display: flex;
  gap: 8px;
  padding: 12px 14px;
  border-bottom: 1px solid var(--rule);
}

/* Labels stay where they are while what they stand at is looked at. */
.desk {
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}

.desk > :not(nav) {
  grid-row: 2;
}

.looking {
  position: absolute;
  bottom: 12px;
  left: 16px;
  margin: 0;
  padding: 5px 12px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
}

.empty {
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 6px;
  background: var(--paper-deep);
}

.empty .figure {
  margin: 0;
  color: var(--pencil);
  font-size: 44px;
}

.bottom-line {
  grid-column: 1 / 3;
  grid-row: 3;
}
</style>

<style>
.printed-sheet {
  display: none;
}

@media print {
  body:has(> .printed-sheet:not(:empty)) > :not(.printed-sheet) {
    display: none !important;
  }

  body:has(> .printed-sheet:not(:empty)) {
    overflow: visible;
    background: #fff;
  }

  .printed-sheet:not(:empty) {
    display: block;
    color: #000;
  }

  .printed-sheet svg {
    display: block;
  }
}
</style>
