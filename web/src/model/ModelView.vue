<script setup lang="ts">
import { until, useElementSize, useStorage } from '@vueuse/core'
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue'
import BoardPane from '../board/BoardPane.vue'
import CommandSearch from '../commands/CommandSearch.vue'
import KeyList from '../commands/KeyList.vue'
import { createActions, type Page } from '../commands/registry'
import { useShortcuts } from '../commands/useShortcuts'
import EndView from '../endview/EndView.vue'
import FileReport from '../files/FileReport.vue'
import ToolPad from '../pad/ToolPad.vue'
import RoutePane from '../route/RoutePane.vue'
import StepCard from '../route/StepCard.vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import BottomLine from './BottomLine.vue'
import PaneDivider from './PaneDivider.vue'

/** The board comes first; what takes longer is made ready once it has been drawn. */
const SolidPane = defineAsyncComponent(async () => {
  await firstPicture()
  return import('../solid/SolidPane.vue')
})

async function firstPicture(): Promise<void> {
  await until(() => board.view !== undefined).toBe(true)
  await new Promise((done) => requestAnimationFrame(() => setTimeout(done)))
}

const parts = usePartStore()
const board = useBoardStore()
const actions = createActions()
const page = ref<Page>('draw')
const panes = useTemplateRef<HTMLElement>('panes')
const { width, height } = useElementSize(panes)
const { searching, listingKeys } = useShortcuts(actions, page)

/** How the height or width is shared between board and solid, kept for the next visit. */
const share = useStorage('lathica.boardShare', 0.555)
const standing = computed(() => parts.lie === 'standing')
const boardShare = computed({
  get: () => ({ board: 1, solid: 0, none: share.value })[board.largest],
  set: (next: number) => (share.value = Math.min(0.8, Math.max(0.25, next))),
})
const layout = computed(() => ({
  '--board': `${boardShare.value}fr`,
  '--rest': `${1 - boardShare.value}fr`,
}))
</script>

<template>
  <main class="model">
    <div ref="panes" class="panes" :class="{ standing }" :style="layout">
      <BoardPane class="p-board" @pointerenter="board.pointed = 'board'" />
      <EndView class="p-end" />
      <ToolPad v-model:page="page" class="p-pad" :actions="actions" />
      <div class="p-solid" @pointerenter="board.pointed = 'solid'"><SolidPane /></div>
      <PaneDivider
        v-if="board.largest === 'none'"
        v-model="boardShare"
        :upright="standing"
        :extent="standing ? width : height"
        :at="boardShare"
        label="Board and solid"
      />
    </div>
    <aside class="side">
      <FileReport />
      <RoutePane />
      <StepCard />
    </aside>
    <BottomLine class="bottom-line" />
    <CommandSearch v-if="searching" :actions="actions" @close="searching = false" />
    <KeyList v-if="listingKeys" :actions="actions" @close="listingKeys = false" />
  </main>
</template>

<style scoped>
.model {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 328px;
  flex: 1;
  min-height: 0;
}

.panes {
  position: relative;
  display: grid;
  gap: 1px;
  min-height: 0;
  background: var(--rule);
}

.panes:not(.standing) {
  grid-template:
    'board board end' minmax(0, var(--board))
    'pad solid solid' minmax(0, var(--rest))
    / 284px minmax(0, 1fr) 22%;
}

.panes.standing {
  grid-template:
    'board solid solid' minmax(0, 1fr)
    'end pad pad' 232px
    / minmax(0, var(--board)) minmax(0, var(--rest)) 0;
}

.p-board {
  grid-area: board;
}

.p-end {
  grid-area: end;
}

.p-pad {
  grid-area: pad;
}

.p-solid {
  display: grid;
  grid-area: solid;
  min-width: 0;
  min-height: 0;
  background: var(--paper-deep);
}

.side {
  display: grid;
  grid-template-rows: auto minmax(150px, 1fr) fit-content(66%);
  min-height: 0;
  border-left: 1px solid var(--rule);
  background: var(--panel);
}

.side > :nth-last-child(2) {
  grid-row: 2;
}

.side > :last-child {
  grid-row: 3;
  border-top: 1px solid var(--rule);
}

.bottom-line {
  grid-column: 1 / 3;
}
</style>
