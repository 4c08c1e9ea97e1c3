<script setup lang="ts">
import { entityMap, locator } from '@lathica/core/sketch'
import { splitTolerance } from '@lathica/core/formula'
import { describeItem } from '@lathica/core/constraints'
import { perform, placeLabels } from '@lathica/core/edit'
import { computed, shallowRef, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { dragLabel } from './dragLabel'
import { LABEL_HEIGHT } from './sizes/frame'
import { anchorOf, type SizeDrawing } from './sizes/layout'
import { toPlane } from './view'

const props = defineProps<{ drawings: readonly SizeDrawing[] }>()
const board = useBoardStore()
const parts = usePartStore()

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
const told = shallowRef<ReadonlyMap<string, Told>>(new Map())
watch(
  [() => board.sketch.sizes, () => board.sketch.entities],
  () => {
    const { sketch } = board
    told.value = new Map(
      sketch.sizes.map((size) => [
        size.id,
        {
          said: describeItem(sketch, size),
          isFormula: !size.reference && !/^[\d.\s]+$/.test(splitTolerance(size.formula).value),
        },
      ]),
    )
  },
  { immediate: true },
)

/**
 * Where a label stands. Its width is known, so it needs no transform to be centred, and the page can
 * paint all labels as one.
 */
function styleOf({ label, width }: SizeDrawing): string {
  const [wide, high] = [width - 4, LABEL_HEIGHT]
  return `left:${label.x - wide / 2}px;top:${label.y - high / 2}px;width:${wide}px`
}

function open(id: string, event: MouseEvent): void {
  if (id === 'pending' || dragged) return
  const { field } = board
  if (field && !(field.kind === 'size' && field.id === id)) {
    board.linked = { id, once: event.altKey }
    return
  }
  board.picks = event.shiftKey ? [...board.picks.filter((p) => p !== id), id] : [id]
  if (!event.shiftKey) board.openField({ kind: 'size', id })
}

/** A press that moves drags the label; one that does not opens its field. */
let dragged = false

function press(id: string, event: PointerEvent): void {
  dragged = false
  const { view } = board
  const label = props.drawings.find((d) => d.id === id)?.label
  const size = board.sketch.sizes.find((s) => s.id === id)
  const part = parts.part
  if (event.button !== 0 || !view || !label || !size || !part || board.field) return
  const sketch = board.sketch
  const anchor = anchorOf(size, entityMap(sketch), locator(sketch))
  dragLabel(event, {
    move: (by) => {
      dragged = true
      const place = toPlane(view, { x: label.x + by.x, y: label.y + by.y })
      const put = { x: place.x - anchor.x, y: place.y - anchor.y }
      const moved = perform(part, placeLabels(sketch.id, new Map([[id, put]])))
      if (moved.ok) parts.preview = moved.value
    },
    end: (moved) => {
      const { preview } = parts
      parts.preview = undefined
      if (moved && preview) parts.take('move label', preview)
    },
    cancel: () => (parts.preview = undefined),
  })
}
</script>

<template>
  <button
    v-for="d in shown"
    :key="d.id"
    v-memo="[
      d.text,
      d.reference,
      d.upright,
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
      upright: d.upright,
    }"
    :style="styleOf(d)"
    :aria-label="told.get(d.id)?.said ?? d.text"
    :title="told.get(d.id)?.said"
    :tabindex="d.id === 'pending' ? -1 : 0"
    @pointerdown="press(d.id, $event)"
    @click="open(d.id, $event)"
    @pointerenter="board.hover = d.id"
    @pointerleave="board.hover = undefined"
  >
    {{ d.text }}
  </button>
</template>

<style scoped>
.size {
  position: absolute;
  height: 18px;
  padding: 0;
  border: 1px solid transparent;
  border-radius: 3px;
  background: var(--paper);
  color: var(--ink);
  font-size: 12px;
  line-height: 16px;
  white-space: nowrap;
  cursor: text;
}

.upright {
  transform: rotate(-90deg);
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
