<script setup lang="ts">
import { writeDrawingSvg } from '@lathica/core/formats'
import { Button, Spin } from 'ant-design-vue'
import { computed, onBeforeUnmount, ref, useTemplateRef } from 'vue'
import CommandSearch from '../commands/CommandSearch.vue'
import KeyList from '../commands/KeyList.vue'
import type { Page } from '../commands/registry'
import { sheetActions } from '../commands/sheetActions'
import { useShortcuts } from '../commands/useShortcuts'
import BottomLine from '../model/BottomLine.vue'
import { usePartStore } from '../store/part'
import { useSheetStore } from '../store/sheet'
import SheetPaper from './SheetPaper.vue'
import SheetSettings from './SheetSettings.vue'
import { useSheetFiles } from './useSheetFiles'

/** The drawing for the workshop. */
const parts = usePartStore()
const sheet = useSheetStore()
const paper = useTemplateRef<InstanceType<typeof SheetPaper>>('paper')
const { busy, printing, savePdf, saveSvg, savePng, print } = useSheetFiles()
const actions = sheetActions({
  savePdf: () => void savePdf(),
  savePng: () => void savePng(),
  print: () => void print(),
  saveSvg: () => void saveSvg(),
  giveUp: () => paper.value?.giveUp(),
})
const { searching, listingKeys } = useShortcuts(actions, ref<Page>('draw'))

sheet.isOpen = true
onBeforeUnmount(() => (sheet.isOpen = false))

const HINT =
  'Click a size or a note to pick it, drag it where it reads better; drag the paper, turn the wheel to come nearer.'

/** What is printed: the page has the size of the sheet. */
const printed = computed(() => {
  const { drawing } = sheet
  if (!printing.value || !drawing) return ''
  const { width, height } = drawing.paper
  const style = `<style>@page{size:${width}mm ${height}mm;margin:0}</style>`
  return `${style}${writeDrawingSvg(drawing, parts.name)}`
})
</script>

<template>
  <main class="sheet-view">
    <div v-if="sheet.drawing" class="desk">
      <SheetPaper ref="paper" :drawing="sheet.drawing" :name="parts.name" />
      <p v-if="sheet.looking > 0" class="looking" role="status">
        <Spin size="small" /> Looking at the solid …
      </p>
    </div>
    <div v-else class="empty">
      <p class="figure">⌀ ?</p>
      <p>There is nothing to draw yet: revolve a closed profile first.</p>
      <Button type="primary" @click="$router.push({ name: 'model' })">To the model</Button>
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
      <SheetSettings />
    </aside>
    <BottomLine class="bottom-line" :hint="HINT" />
    <CommandSearch v-if="searching" :actions="actions" @close="searching = false" />
    <KeyList v-if="listingKeys" :actions="actions" @close="listingKeys = false" />
    <Teleport to="body">
      <!-- eslint-disable-next-line vue/no-v-html -->
      <div v-if="printed !== ''" class="printed-sheet" v-html="printed" />
    </Teleport>
  </main>
</template>

<style scoped>
.sheet-view {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 300px;
  flex: 1;
  min-height: 0;
}

.side {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
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
  min-width: 0;
  min-height: 0;
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
}
</style>

<style>
.printed-sheet {
  display: none;
}

@media print {
  body > :not(.printed-sheet):has(~ .printed-sheet),
  body:has(> .printed-sheet) > :not(.printed-sheet) {
    display: none !important;
  }

  body:has(> .printed-sheet) {
    overflow: visible;
    background: #fff;
  }

  .printed-sheet {
    display: block;
    color: #000;
  }

  .printed-sheet svg {
    display: block;
  }
}
</style>
