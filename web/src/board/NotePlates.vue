<script setup lang="ts">
import { changeNote } from '@lathica/core/notes'
import { useOpening } from '../route/opening'
import { useBoardStore } from '../store/board'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import { dragLabel } from './dragLabel'
import type { LaidNote } from './paint/lay'
import { toPlane } from './view'

/** What makes the painted plates of notes be taken by hand: a press opens a note, a drag puts its plate elsewhere. */
const props = defineProps<{ laid: readonly LaidNote[] }>()
const board = useBoardStore()
const notes = useNotesStore()
const parts = usePartStore()
const { openNote } = useOpening()

function press(id: string, event: PointerEvent): void {
  const { view } = board
  const found = props.laid.find(({ mark }) => mark.id === id)
  if (event.button !== 0 || !view || !found) return
  const { mark, plate } = found
  const middle = { x: plate.x + plate.width / 2, y: plate.y + plate.height / 2 }
  dragLabel(event, {
    move: (by) => {
      const at = toPlane(view, { x: middle.x + by.x, y: middle.y + by.y })
      notes.moved = { id, label: { x: at.x - mark.at.x, y: at.y - mark.at.y } }
    },
    end: () => {
      const { moved } = notes
      notes.moved = undefined
      const note = notes.states.find((s) => s.note.id === id)?.note
      if (!note) return
      if (moved) parts.run(changeNote({ ...note, label: moved.label }))
      else openNote(id)
    },
    cancel: () => (notes.moved = undefined),
  })
}
</script>

<template>
  <template v-for="{ plate, mark } in laid" :key="mark.id ?? ''">
    <!-- The list of notes reaches them by key; these are for the pointer. -->
    <button
      v-if="mark.id !== undefined && board.toolId === 'pick'"
      type="button"
      class="plate"
      tabindex="-1"
      data-floats
      :data-note="mark.id"
      :aria-label="`note ${mark.cells.map((c) => ('words' in c ? c.words : '')).join(' ')}`"
      :style="`left:${plate.x}px;top:${plate.y}px;width:${plate.width}px;height:${plate.height}px`"
      @pointerdown="press(mark.id, $event)"
    ></button>
  </template>
</template>

<style scoped>
.plate {
  position: absolute;
  padding: 0;
  border: 0;
  background: none;
  cursor: grab;
}

.plate:hover {
  box-shadow: 0 0 0 2px var(--accent);
}

.plate:active {
  cursor: grabbing;
}
</style>
