<script setup lang="ts">
import { describeItem } from '@lathica/core'
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
const picked = computed(() => new Set(board.picks))
const conflicting = computed(
  () =>
    new Set([
      ...(board.sketchState?.solution.disagreements.flatMap((d) => d.members) ?? []),
      ...board.accused,
    ]),
)

/** What a label says of itself; moving points changes none of it. */
interface Told {
  readonly said: string
  /** Only a formula is marked; a plain number needs no mark. */
  readonly isFormula: boolean
}
const sizes = computed(() => board.sketch.sizes)
const entities = computed(() => board.sketch.entities)
const told = computed(() => {
  void entities.value
  const { sketch } = board
  return new Map<string, Told>(
    sizes.value.map((size) => [
      size.id,
      {
        said: describeItem(sketch, size),
        isFormula: !size.reference && !/^[\d.\s]+$/.test(size.formula),
      },
    ]),
  )
})

function open(id: string): void {
  if (id === 'pending') return
  board.picks = [id]
  board.openField({ kind: 'size', id })
}
</script>

<template>
  <button
    v-for="d in shown"
    :key="d.id"
    v-memo="[
      d.text,
      d.reference,
      d.label.x,
      d.label.y,
      picked.has(d.id),
      conflicting.has(d.id),
      told.get(d.id),
    ]"
    type="button"
    class="size figure"
    data-floats
    :data-size="d.id"
    :class="{
      reference: d.reference,
      picked: picked.has(d.id),
      pending: d.id === 'pending',
      conflict: conflicting.has(d.id),
      formula: told.get(d.id)?.isFormula,
    }"
    :style="`left:${d.label.x}px;top:${d.label.y}px;min-width:${d.width - 6}px`"
    :aria-label="told.get(d.id)?.said ?? d.text"
    :title="told.get(d.id)?.said"
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
