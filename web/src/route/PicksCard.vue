<script setup lang="ts">
import {
  AXIS_ID,
  ORIGIN_ID,
  describeItem,
  entityName,
  findItem,
  formatAngle,
  formatLength,
  locator,
  referencesOf,
  removeItems,
  type Constraint,
  type Size,
} from '@lathica/core'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import ItemRow from './ItemRow.vue'

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
  const point = sketch.points.find((p) => p.id === id)
  if (point) {
    const free = sketchState?.solution.pointFreedoms.get(id) ?? 0
    return [
      ['From datum', mm(point.x)],
      ['Diameter', `⌀${mm(2 * point.y)}`],
      ['Can move', ['no: in ink', 'one way', 'freely'][free] ?? ''],
    ]
  }
  const line = sketch.entities.find((e) => e.id === id)
  if (!line) return []
  const [a, b] = [locate(line.from), locate(line.to)]
  const angle = Math.atan2(Math.abs(b.y - a.y), Math.abs(b.x - a.x))
  return [
    ['Length', mm(Math.hypot(b.x - a.x, b.y - a.y))],
    ['To the axis', formatAngle(angle, units)],
    ['Ends at', `⌀${formatLength(2 * a.y, units)}, ⌀${formatLength(2 * b.y, units)}`],
    ['Role', line.role === 'centre' ? 'centre line' : line.role],
  ]
})

/** Constraints and sizes that stand on what is picked, or are picked themselves. */
const items = computed<(Constraint | Size)[]>(() => {
  const { sketch, picks } = board
  const points = sketch.entities.filter((e) => picks.includes(e.id)).flatMap((e) => [e.from, e.to])
  const near = new Set([...picks, ...points])
  return [...sketch.constraints, ...sketch.sizes].filter(
    (item) => picks.includes(item.id) || referencesOf(item).some((id) => near.has(id)),
  )
})
const canDelete = computed(() => board.picks.some((id) => id !== AXIS_ID && id !== ORIGIN_ID))

function open(item: Constraint | Size): void {
  board.picks = [item.id]
  if ('formula' in item) board.openField({ kind: 'size', id: item.id })
}
</script>

<template>
  <h2>{{ title }}</h2>
  <dl v-if="figures.length > 0" class="fields">
    <template v-for="[name, value] in figures" :key="name">
      <dt>{{ name }}</dt>
      <dd class="figure">{{ value }}</dd>
    </template>
  </dl>
  <template v-if="items.length > 0">
    <h3>Held by</h3>
    <ul class="list">
      <ItemRow v-for="item in items" :key="item.id" :item="item" @open="open(item)" />
    </ul>
  </template>
  <div class="buttons">
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
h3 {
  margin-top: 12px;
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-soft);
}
</style>
