<script setup lang="ts">
import { entityName, isEndSketch } from '@lathica/core/sketch'
import { computed, ref, useTemplateRef } from 'vue'
import { bringIntoPart } from '../files/bringIn'
import { refWords } from '../solid/words'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import BoardStatus from './BoardStatus.vue'
import ConstraintMarks from './ConstraintMarks.vue'
import EntryForm from './EntryForm.vue'
import SizeField from './SizeField.vue'
import NotePlates from './NotePlates.vue'
import SizeLabels from './SizeLabels.vue'
import SuggestionMenu from './SuggestionMenu.vue'
import TakenList from './TakenList.vue'
import { isPictureFile } from '../files/readPicture'
import { isOutlineFile, takeOutline } from './boardOutline'
import { takePicture } from './boardPicture'
import { seenFrom } from './endPicture'
import { useBoardPaint } from './useBoardPaint'
import { useBoardPointer } from './useBoardPointer'
import { useBoardView } from './useBoardView'

const board = useBoardStore()
const parts = usePartStore()
const route = useRouteStore()
const pane = useTemplateRef<HTMLElement>('pane')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height, drawings, legible } = useBoardView(pane)
const shown = computed(() => legible.value.shown)
const { laid } = useBoardPaint(canvas, width, height, shown)
const { at } = useBoardPointer(pane)

/** Scale in pixels per mm and place of the datum point: what a test needs to point at a place. */
const viewText = computed(() => {
  const { view } = board
  return view && [view.scale, view.origin.x, view.origin.y].map((v) => v.toFixed(4)).join(' ')
})

/** While one draws or edits, the labels of sizes must not stand in the pointer's way. */
const isDrawing = computed(() => board.toolId !== 'pick' && board.toolId !== 'size')

const words = computed(() => {
  if (board.typing !== undefined) return []
  const said = board.toolState?.overlay?.words ?? []
  const { hoverRef } = route
  // Where the profile has nothing to say, the part's own face does.
  const face = board.toolId === 'pick' && board.hover === undefined && hoverRef && at.value
  return face ? [refWords(hoverRef, parts)] : said
})
const wordsAt = computed(() => {
  if (!at.value) return undefined
  const flip = at.value.x > width.value - 190
  return {
    left: `${at.value.x + (flip ? -14 : 14)}px`,
    top: `${Math.max(4, at.value.y - 34)}px`,
    transform: flip ? 'translateX(-100%)' : 'none',
  }
})

/** A picture is laid behind the board, a drawing is drawn, other files are brought in. */
async function drop(event: DragEvent): Promise<void> {
  for (const file of event.dataTransfer?.files ?? []) {
    if (isPictureFile(file)) await takePicture(file)
    else await (isOutlineFile(file) ? takeOutline(file) : bringIntoPart(file))
  }
}

/** Arrow keys go from one point or line to the next, so that the board works without a mouse. */
const announced = ref('')
function step(by: number): void {
  const { points, entities } = board.sketch
  const ids = ['axis', 'origin', ...points.map((p) => p.id), ...entities.map((e) => e.id)]
  const here = ids.indexOf(board.picks.at(-1) ?? '')
  const next = ids[(Math.max(here, by > 0 ? -1 : 0) + by + ids.length) % ids.length] ?? 'axis'
  board.picks = [next]
  announced.value = entityName(board.sketch, next)
}
</script>

<template>
  <section
    ref="pane"
    class="board"
    aria-label="Board"
    tabindex="0"
    :data-view="viewText"
    :data-tool="board.toolId"
    :data-drawing="isDrawing"
    :data-plane="board.looksAtEnd ? 'end' : 'half'"
    :style="{ cursor: board.toolState?.cursor ?? 'default' }"
    @dragover.prevent
    @drop.prevent="drop"
    @keydown.right.exact.prevent="step(1)"
    @keydown.down.exact.prevent="step(1)"
    @keydown.left.exact.prevent="step(-1)"
    @keydown.up.exact.prevent="step(-1)"
  >
    <canvas
      ref="canvas"
      role="img"
      :aria-label="
        board.looksAtEnd && isEndSketch(board.sketch)
          ? `end sketch ${board.sketch.name}, ${seenFrom(parts.lie, board.sketch.plane)}`
          : `half-section of profile ${board.sketch.name}`
      "
    />
    <ConstraintMarks v-if="board.view" />
    <SizeLabels :drawings="shown" />
    <NotePlates :laid="laid" />
    <SizeField v-if="board.field" :drawings="drawings" :width="width" :height="height" />
    <BoardStatus :hidden-sizes="legible.hidden" />
    <EntryForm
      v-if="board.typing !== undefined && board.toolState?.entry"
      :at="at"
      :width="width"
      :height="height"
    />
    <TakenList :at="at" :width="width" :height="height" />
    <button
      type="button"
      class="plain suggest"
      data-floats
      title="What is suggested while one draws (N)"
      :aria-expanded="board.suggestionsOpen"
      @click.stop="board.suggestionsOpen = !board.suggestionsOpen"
      @pointerdown.stop
    >
      suggest
    </button>
    <SuggestionMenu v-if="board.suggestionsOpen" />
    <div v-if="words.length > 0 && wordsAt && !board.field" class="words" :style="wordsAt">
      {{ words.join(' · ') }}
    </div>
    <p class="visually-hidden" aria-live="polite">{{ announced }}</p>
  </section>
</template>

<style scoped src="../ui/words.css"></style>
<style scoped>
.board {
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  background: var(--paper);
  touch-action: none;
  user-select: none;
}

.board:focus-visible {
  outline-offset: -2px;
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

/* While one draws or measures, marks and labels must not stand in the pointer's way. */
.board:not([data-tool='pick']) :deep(.mark),
.board[data-drawing='true'] :deep(.size) {
  pointer-events: none;
}

.suggest {
  position: absolute;
  right: 8px;
  top: 6px;
  padding: 2px 8px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
