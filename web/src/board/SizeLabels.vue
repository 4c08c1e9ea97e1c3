<script setup lang="ts">
import { describeItem, findItem } from '@lathica/core'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import type { SizeDrawing } from './sizes/layout'

const props = defineProps<{ drawings: readonly SizeDrawing[] }>()
const board = useBoardStore()

const editedId = computed(() => {
  const { field } = board
  return field?.kind === 'size' ? field.id : field ? 'pending' : undefined
})
const shown = computed(() => props.drawings.filter((d) => d.id !== editedId.value))
const conflicting = computed(
  () => new Set(board.sketchState?.solution.disagreements.flatMap((d) => d.members) ?? []),
)

function said(id: string): string {
  const item = findItem(board.sketch, id)
  return item ? describeItem(board.sketch, item) : ''
}

function open(id: string): void {
  if (id === 'pending') return
  board.picks = [id]
  board.openField({ kind: 'size', id })
}

/** Only these hold a formula; a plain number needs no mark. */
function isFormula(id: string): boolean {
  const size = board.sketch.sizes.find((s) => s.id === id)
  return size !== undefined && !size.reference && !/^[\d.\s]+$/.test(size.formula)
}
</script>

<template>
  <button
    v-for="d in shown"
    :key="d.id"
    type="button"
    class="size figure"
    data-floats
    :data-size="d.id"
    :class="{
      reference: d.reference,
      picked: board.picks.includes(d.id),
      pending: d.id === 'pending',
      conflict: conflicting.has(d.id),
      formula: isFormula(d.id),
    }"
    :style="{ left: `${d.label.x}px`, top: `${d.label.y}px`, minWidth: `${d.width - 6}px` }"
    :aria-label="said(d.id) || d.text"
    :title="said(d.id)"
    :tabindex="d.id === 'pending' ? -1 : 0"
    @click="open(d.id)"
    @pointerenter="board.hover = d.id"
    @pointerleave="board.hover = undefined"
  >
    {{ d.text }}
  </button>
</template>

<style scoped>
.size {
  position: absolute;
  transform: translate(-50%, -50%);
  height: 18px;
  padding: 0 3px;
  border: 1px solid transparent;
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  font-size: 12px;
  line-height: 16px;
  white-space: nowrap;
  cursor: text;
}

.size:hover,
.picked {
  border-color: var(--halo);
}

.reference {
  color: var(--ink-soft);
}

.formula {
  text-decoration: underline dotted var(--accent);
  text-underline-offset: 2px;
}

.pending {
  pointer-events: none;
  border: 1px dashed var(--halo);
}

.conflict {
  color: var(--conflict);
  text-decoration: underline wavy var(--conflict) 1px;
}
</style>
