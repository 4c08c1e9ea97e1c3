<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { formatAngle, formatLength } from '@lathica/core/units'
import {
  leastRadius,
  lengthOf,
  radiusOf,
  simplePieces,
  sweepOf,
  type Piece,
  type Vec,
} from '@lathica/core/geometry'
import {
  AXIS_ID,
  ORIGIN_ID,
  entityName,
  isEndSketch,
  locator,
  standsOn,
  besideBy,
  type Constraint,
  type Repeat,
  type Size,
  piecesOf,
  isFree,
} from '@lathica/core/sketch'
import { describeItem, findItem, referencesOf } from '@lathica/core/constraints'
import {
  giveDirection,
  joinCurves,
  joinedAt,
  openEnds,
  removeItems,
  setRepeatCount,
  takePointOut,
  type Command,
} from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { computed, shallowRef, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import CurveCard from './CurveCard.vue'
import FlattenButtons from './FlattenButtons.vue'
import ItemRow from './ItemRow.vue'
import PlaceFields from './PlaceFields.vue'

const board = useBoardStore()
const parts = usePartStore()

const title = computed(() => {
  const [only, ...more] = board.picks
  if (only === undefined || more.length > 0) return `${board.picks.length} picked`
  const item = findItem(board.sketch, only)
  const name = item ? describeItem(board.sketch, item) : entityName(board.sketch, only)
  return name.charAt(0).toUpperCase() + name.slice(1)
})

/** What is known of a single point or line, in figures. */
const figures = computed<readonly (readonly [string, string])[]>(() => {
  const [id, ...more] = board.picks
  const { units } = parts
  if (id === undefined || more.length > 0) return []
  const { sketch, sketchState } = board
  const locate = locator(sketch)
  const mm = (value: number): string => `${formatLength(value, units)} ${units.length}`
  // Across the axis there are no diameters: places lie level and upright from the middle.
  const isEnd = isEndSketch(sketch)
  const out = (y: number): string =>
    isEnd ? formatLength(y, units) : `⌀${formatLength(2 * y, units)}`
  const point = sketch.points.find((p) => p.id === id)
  if (point) {
    const free = sketchState?.solution.pointFreedoms.get(id) ?? 0
    return [['Can move', ['no: in ink', 'one way', 'freely'][free] ?? '']]
  }
  const entity = sketch.entities.find((e) => e.id === id)
  if (!entity) return []
  const role = ['Role', entity.role === 'centre' ? 'centre line' : entity.role] as const
  const pieces = piecesOf(entity, locate)
  const [piece] = pieces
  if (!piece) return [['Length', mm(0)], role]
  if (piece.kind === 'arc') {
    return [
      ['Radius', mm(radiusOf(piece))],
      ['Centre', `${formatLength(piece.centre.x, units)}, ${out(piece.centre.y)} ${units.length}`],
      ...(entity.kind === 'circle'
        ? []
        : [['Turns', formatAngle(Math.abs(sweepOf(piece)), units)] as const]),
      role,
    ]
  }
  const [a, b] = [piece.from, pieces.at(-1)?.to ?? piece.to]
  const ends = [
    'Ends at',
    isEnd
      ? [a, b].map((p) => `${formatLength(p.x, units)}, ${out(p.y)}`).join(' – ')
      : `${out(a.y)}, ${out(b.y)}`,
  ] as const
  if (entity.kind === 'parallel') {
    return [
      ['Lies', `${mm(Math.abs(besideBy(entity, locate)))} beside ${entityName(sketch, entity.of)}`],
      ['Length', mm(pieces.reduce((sum, p) => sum + lengthOf(p), 0))],
      ends,
      role,
    ]
  }
  if (isFree(entity)) {
    const least = Math.min(...pieces.flatMap(simplePieces).map(leastRadius))
    const length = pieces.reduce((sum, p) => sum + lengthOf(p), 0)
    return [
      ['Length', mm(length)],
      ['Tightest', Number.isFinite(least) ? `R${mm(least)}` : 'straight'],
      ends,
      ...(isEnd || entity.kind === 'curve' ? [] : extremesOf(pieces)),
      role,
    ]
  }
  const angle = Math.atan2(Math.abs(b.y - a.y), Math.abs(b.x - a.x))
  return [
    ['Length', mm(Math.hypot(b.x - a.x, b.y - a.y))],
    [isEnd ? 'To level' : 'To the axis', formatAngle(angle, units)],
    ends,
    role,
  ]
})

/** Where a free curve of a half-section is widest and narrowest, and where along the axis that is. */
function extremesOf(pieces: readonly Piece[]): (readonly [string, string])[] {
  const { units } = parts
  const ends = pieces.flatMap(simplePieces).flatMap((p) => [p.from, p.to])
  const tell = (words: string, pick: (a: Vec, b: Vec) => Vec): (readonly [string, string])[] => {
    const [first, ...rest] = ends
    if (!first) return []
    const at = rest.reduce(pick, first)
    const along = formatLength(at.x, units)
    return [[words, `⌀${formatLength(2 * at.y, units)} at ${along} ${units.length}`]]
  }
  return [
    ...tell('Widest', (a, b) => (b.y > a.y ? b : a)),
    ...tell('Narrowest', (a, b) => (b.y < a.y ? b : a)),
  ]
}

/** Constraints and sizes that stand on what is picked, or are picked themselves. */
const items = computed<(Constraint | Size)[]>(() => {
  const { sketch, picks } = board
  const points = sketch.entities.filter((e) => picks.includes(e.id)).flatMap(standsOn)
  const near = new Set([...picks, ...points])
  return [...sketch.constraints, ...sketch.sizes].filter(
    (item) => picks.includes(item.id) || referencesOf(item).some((id) => near.has(id)),
  )
})
const canDelete = computed(() => board.picks.some((id) => id !== AXIS_ID && id !== ORIGIN_ID))

/** The points that are picked, if nothing but points is. */
const points = computed(() => {
  const found = board.sketch.points.filter((p) => board.picks.includes(p.id))
  return found.length === board.picks.length ? found : []
})

/** The free curve that the one picked point is an inner place of. */
const through = computed(() => {
  const [point, ...more] = board.picks
  if (point === undefined || more.length > 0) return undefined
  const found = board.sketch.entities.find((e) => e.kind === 'spline' && e.by.includes(point))
  return found?.kind === 'spline' ? { curve: found.id, way: found.way, point } : undefined
})

/** The one picked point where two free curves meet, which can be made one. */
const joint = computed(() => {
  const [point, ...more] = board.picks
  const isOne = point !== undefined && more.length === 0
  return isOne && joinedAt(board.sketch, point) ? point : undefined
})

/** The free curve of many places that is picked by itself. */
const spline = computed(() => {
  const [only, ...more] = board.picks
  const found = more.length === 0 && board.sketch.entities.find((e) => e.id === only)
  return found && found.kind === 'spline' ? found : undefined
})

/** Whether two open ends are picked. */
const bridges = computed(() => {
  if (points.value.length !== 2) return false
  const open = openEnds(board.sketch)
  return points.value.every((p) => open.includes(p.id))
})

/** The repeat that is picked, or that what is picked belongs to. */
const repeat = computed(() => items.value.find((c): c is Repeat => c.kind === 'repeat'))
const problem = shallowRef<Problem>()
watch(
  () => board.picks,
  () => (problem.value = undefined),
)

function setCount(event: Event): void {
  if (!repeat.value) return
  const count = Number((event.target as HTMLInputElement).value)
  run(setRepeatCount(board.sketch.id, repeat.value.id, count))
}

/** What cannot be done is said here, with its mend. */
function run(command: Command): void {
  const result = parts.attempt(command)
  problem.value = result.ok ? undefined : result.problem
}

function open(item: Constraint | Size): void {
  board.picks = [item.id]
  if ('formula' in item) board.openField({ kind: 'size', id: item.id })
}
</script>

<template>
  <h2>{{ title }}</h2>
  <PlaceFields v-if="points.length > 0" :key="board.picks.join()" :points="points" />
  <FlattenButtons v-if="points.length > 1" :ids="points.map((p) => p.id)" />
  <dl v-if="figures.length > 0" class="fields">
    <template v-for="[name, value] in figures" :key="name">
      <dt>{{ name }}</dt>
      <dd class="figure">{{ value }}</dd>
    </template>
  </dl>
  <CurveCard v-if="spline" :curve="spline" />
  <template v-if="items.length > 0">
    <h3>Held by</h3>
    <ul class="list">
      <ItemRow v-for="item in items" :key="item.id" :item="item" @open="open(item)" />
    </ul>
  </template>
  <div v-if="repeat" class="fields">
    <label for="repeat-count">In all</label>
    <input
      id="repeat-count"
      class="figure count"
      :value="repeat.copies.length + 1"
      inputmode="numeric"
      @change="setCount"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.stop
    />
  </div>
  <p v-if="problem" class="problem" role="alert">
    <strong>{{ problem.message }}</strong> {{ problem.mend }}
  </p>
  <div class="buttons">
    <Button
      v-if="through"
      @click="parts.run(takePointOut(board.sketch.id, through.curve, through.point))"
    >
      Take out of the curve
    </Button>
    <Button
      v-if="through?.way === 'through'"
      @click="run(giveDirection(board.sketch.id, through.curve, through.point))"
    >
      Give it a direction
    </Button>
    <Button v-if="joint !== undefined" @click="run(joinCurves(board.sketch.id, joint))">
      Join the curves
    </Button>
    <Button v-if="bridges" @click="board.useTool('bridge')">Bridge</Button>
    <Button @click="board.picks = []">Let go</Button>
    <Button
      v-if="canDelete"
      danger
      @click="parts.run(removeItems(board.sketch.id, [...board.picks]))"
    >
      Delete
    </Button>
  </div>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.fields + .fields,
.list + .fields {
  margin-top: 10px;
}

.count {
  width: 64px;
  height: 26px;
  padding: 0 6px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--panel);
  color: var(--ink);
}
</style>
<style scoped>
h3 {
  margin-top: 12px;
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-soft);
}
</style>
