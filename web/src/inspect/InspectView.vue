<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue'
import CommandSearch from '../commands/CommandSearch.vue'
import KeyList from '../commands/KeyList.vue'
import { inspectActions } from '../commands/inspectActions'
import type { Page } from '../commands/registry'
import { useShortcuts } from '../commands/useShortcuts'
import BottomLine from '../model/BottomLine.vue'
import { useBoardStore } from '../store/board'
import { useInspectStore, type InspectTab } from '../store/inspect'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import ChartPane from './ChartPane.vue'
import MassPanel from './MassPanel.vue'
import MeasurePanel from './MeasurePanel.vue'
import SectionPane from './SectionPane.vue'
import SheetPanel from './SheetPanel.vue'
import TolerancePanel from './TolerancePanel.vue'

/** The section is on the page first; the solid follows. */
const SolidPane = defineAsyncComponent(() => import('../solid/SolidPane.vue'))

const parts = usePartStore()
const route = useRouteStore()
const board = useBoardStore()
const inspect = useInspectStore()
const actions = inspectActions()
const { searching, listingKeys } = useShortcuts(actions, ref<Page>('draw'))
const standing = computed(() => parts.lie === 'standing')

const TABS: readonly { readonly id: InspectTab; readonly label: string }[] = [
  { id: 'sheet', label: 'Checks' },
  { id: 'measure', label: 'Measure' },
  { id: 'mass', label: 'Mass' },
  { id: 'tolerances', label: 'Tolerances' },
]
const HINTS: Readonly<Record<InspectTab, string>> = {
  sheet:
    'Click a row to change it; click faces and edges to measure them and keep the figure here.',
  measure:
    'Click one or two faces, edges, points on the axis, or bodies; Shift adds more, Esc lets go.',
  tolerances:
    'Click two faces to see what their distance varies by; tolerances are typed behind values, as in 35 k6.',
  mass: 'Figures follow the section exactly; choose a body, a material, or other units.',
}

watch(
  () => parts.id,
  () => {
    // The board's tool is laid down first: it would stop the asking.
    board.useTool('pick')
    inspect.reset()
    inspect.begin()
  },
  { immediate: true },
)
onBeforeUnmount(() => route.stopAsking())
</script>

<template>
  <main class="inspect" :class="{ standing }">
    <div class="panes">
      <SectionPane class="p-section" />
      <ChartPane class="p-chart" />
    </div>
    <aside class="side" :class="{ whole: inspect.tab === 'tolerances' }">
      <div class="tabs" role="tablist" aria-label="Inspection">
        <button
          v-for="t in TABS"
          :id="`tab-${t.id}`"
          :key="t.id"
          type="button"
          role="tab"
          class="tab"
          :aria-selected="inspect.tab === t.id"
          :aria-controls="`panel-${t.id}`"
          @click="inspect.tab = t.id"
        >
          {{ t.label }}
        </button>
      </div>
      <div
        :id="`panel-${inspect.tab}`"
        class="panel"
        role="tabpanel"
        :aria-labelledby="`tab-${inspect.tab}`"
      >
        <SheetPanel v-if="inspect.tab === 'sheet'" />
        <MeasurePanel v-else-if="inspect.tab === 'measure'" />
        <TolerancePanel v-else-if="inspect.tab === 'tolerances'" />
        <MassPanel v-else />
      </div>
      <div v-show="inspect.tab !== 'tolerances'" class="p-solid"><SolidPane /></div>
    </aside>
    <BottomLine class="bottom-line" :hint="HINTS[inspect.tab]" />
    <CommandSearch v-if="searching" :actions="actions" @close="searching = false" />
    <KeyList v-if="listingKeys" :actions="actions" @close="listingKeys = false" />
  </main>
</template>

<style scoped>
.inspect {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 456px;
  flex: 1;
  min-height: 0;
}

.panes {
  display: grid;
  gap: 1px;
  min-height: 0;
  background: var(--rule);
}

.inspect:not(.standing) .panes {
  grid-template-rows: minmax(0, 11fr) minmax(0, 10fr);
}

.inspect.standing .panes {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}

.side {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) minmax(190px, 38%);
  min-height: 0;
  border-left: 1px solid var(--rule);
  background: var(--panel);
}

.side.whole {
  grid-template-rows: auto minmax(0, 1fr);
}

.tabs {
  display: flex;
  gap: 2px;
  padding: 8px 12px 0;
  border-bottom: 1px solid var(--rule);
}

.tab {
  padding: 5px 14px 6px;
  border: 0;
  border-bottom: 2px solid transparent;
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
}

.tab:hover {
  color: var(--ink);
}

.tab[aria-selected='true'] {
  border-bottom-color: var(--accent);
  color: var(--ink);
  font-weight: 600;
}

.panel {
  display: grid;
  min-height: 0;
}

.p-solid {
  display: grid;
  min-height: 0;
  border-top: 1px solid var(--rule);
}

.bottom-line {
  grid-column: 1 / 3;
}
</style>
