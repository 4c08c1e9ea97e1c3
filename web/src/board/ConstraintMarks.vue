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
  const taken = standing(sketch.points.map((p) => toScreen(view, p)))
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
    const ends = piece && [0.4, 0.6].map((t) => toScreen(view, pointAt(piece, t)))
    const [a, b] = ends ?? []
    if (!a || !b) return [{ constraint, at: besidePoint(toScreen(view, locate(anchor)), n) }]
    // On the other side, or farther along, where a point would lie beneath: that is to be picked.
    const places = [n, n + 1, n - 1].flatMap((k) =>
      [1, -1].map((side) => besideLine(a, b, k, side)),
    )
    const [first = a] = places
    return [{ constraint, at: places.find((p) => !taken(p)) ?? first }]
  })
})

/** So near to a point, in pixels, a mark covers it. */
const COVERS = 15

/** Tells whether any of some points lies beneath a mark at a place; each is looked for among few. */
function standing(points: readonly Px[]): (at: Px) => boolean {
  const cell = (v: number): number => Math.floor(v / COVERS)
  const near = new Map<string, Px[]>()
  for (const p of points) {
    const key = `${cell(p.x)} ${cell(p.y)}`
    near.set(key, [...(near.get(key) ?? []), p])
  }
  const around = [-1, 0, 1].flatMap((i) => [-1, 0, 1].map((j) => [i, j] as const))
  return (at) =>
    around.some(([i, j]) =>
      near
        .get(`${cell(at.x) + i} ${cell(at.y) + j}`)
        ?.some((p) => Math.hypot(p.x - at.x, p.y - at.y) < COVERS),
    )
}

/** Below a line or right of it, or on its other side; further marks along the line. */
function besideLine(a: Px, b: Px, n: number, way: number): Px {
  const length = Math.hypot(b.x - a.x, b.y - a.y) || 1
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
  const steep = Math.abs(uy) > Math.abs(ux)
  const side = way * (steep ? -Math.sign(uy) : Math.sign(ux))
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
