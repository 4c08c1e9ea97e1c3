<script setup lang="ts">
import { lengthOf, pointAt } from '@lathica/core/geometry'
import { entityMap, locator, piecesOf, pointsOf, type Constraint } from '@lathica/core/sketch'
import { describeItem, referencesOf } from '@lathica/core/constraints'
import { computed } from 'vue'
import TurnIcon from '../icons/TurnIcon.vue'
import { useBoardStore } from '../store/board'
import { toScreen, type Px } from './view'

const board = useBoardStore()

/** Curves shorter than this have no room for marks, in pixels. */
const LEGIBLE = 18

interface Mark {
  readonly constraint: Constraint
  readonly at: Px
}

const disagreeing = computed(
  () =>
    new Set([
      ...(board.sketchState?.solution.disagreements.flatMap((d) => d.members) ?? []),
      ...board.accused,
    ]),
)

/** Marks stand beside what can still move; in ink they show only on what is hovered or picked. */
const marks = computed<Mark[]>(() => {
  // Read once: each reading of the store costs, and this runs at every move of a drag.
  const { view, sketch, sketchState, picks, hover, showMarks } = board
  if (!view || !sketchState) return []
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const freedoms = sketchState.solution.pointFreedoms
  const crowd = new Map<string, number>()
  return sketch.constraints.flatMap((constraint): Mark[] => {
    const [anchor = ''] = referencesOf(constraint)
    const entity = lines.get(anchor)
    const points = entity ? pointsOf(entity) : [anchor]
    const moves = points.some((p) => (freedoms.get(p) ?? 0) > 0)
    if (!(showMarks && moves) && !disagreeing.value.has(constraint.id)) {
      const ids = [constraint.id, anchor, ...points]
      if (!ids.some((id) => id === hover || picks.includes(id))) return []
    }
    const pieces = entity ? piecesOf(entity, locate) : []
    const piece = pieces[Math.floor(pieces.length / 2)]
    const looked = [constraint.id, anchor].some((id) => id === hover || picks.includes(id))
    if (piece && view.scale * lengthOf(piece) < LEGIBLE && !looked) return []
    const n = crowd.get(anchor) ?? 0
    crowd.set(anchor, n + 1)
    const at = piece
      ? besideLine(toScreen(view, pointAt(piece, 0.4)), toScreen(view, pointAt(piece, 0.6)), n)
      : besidePoint(toScreen(view, locate(anchor)), n)
    return [{ constraint, at }]
  })
})

/** Below a line or right of it, further marks along the line. */
function besideLine(a: Px, b: Px, n: number): Px {
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
  const steep = Math.abs(uy) > Math.abs(ux)
  const side = steep ? -Math.sign(uy) : Math.sign(ux)
  const [x, y] = [(a.x + b.x) / 2 - side * uy * 11, (a.y + b.y) / 2 + side * ux * 11]
  return { x: x + ux * 18 * n, y: y + uy * 18 * n }
}

function besidePoint(at: Px, n: number): Px {
  return { x: at.x + 12 + 18 * n, y: at.y + 13 }
}

function pick(id: string, add: boolean): void {
  board.picks = add ? [...board.picks.filter((p) => p !== id), id] : [id]
}
</script>

<template>
  <button
    v-for="{ constraint, at } in marks"
    :key="constraint.id"
    type="button"
    class="mark"
    data-floats
    :class="{
      picked: board.picks.includes(constraint.id),
      conflict: disagreeing.has(constraint.id),
    }"
    :style="`left:${at.x}px;top:${at.y}px`"
    :title="describeItem(board.sketch, constraint)"
    :aria-label="describeItem(board.sketch, constraint)"
    @click="pick(constraint.id, $event.shiftKey)"
    @pointerenter="board.hover = constraint.id"
    @pointerleave="board.hover = undefined"
  >
    <TurnIcon :name="constraint.kind" />
  </button>
</template>

<style scoped>
.mark {
  position: absolute;
  transform: translate(-50%, -50%);
  width: 16px;
  height: 16px;
  padding: 0;
  border: 0;
  border-radius: 3px;
  background: transparent;
  color: var(--accent-deep);
  cursor: pointer;
}

.mark :deep(svg) {
  display: block;
  width: 14px;
  height: 14px;
  margin: 1px;
}

.mark:hover,
.picked {
  background: var(--halo-wash);
  outline: 1px solid var(--halo);
}

.conflict {
  color: var(--conflict);
  outline: 1px dashed var(--conflict);
}
</style>
