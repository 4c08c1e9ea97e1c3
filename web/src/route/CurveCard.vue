<script setup lang="ts">
import { isEndSketch, type SketchSpline } from '@lathica/core/sketch'
import {
  curveEnd,
  refitted,
  setCurveEnd,
  setPointCount,
  smoothCurve,
  smoothed,
  turnWay,
  type CurveEnd,
} from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'
import ReshapeField from './ReshapeField.vue'

/** How a free curve of many places is led, and how it ends. */
const props = defineProps<{ curve: SketchSpline }>()
const board = useBoardStore()
const parts = usePartStore()

const WAYS = [
  { value: 'through' as const, label: 'through its points' },
  { value: 'frame' as const, label: 'over their frame' },
]
const ENDS = [
  { value: 'free' as const, label: 'as it likes' },
  { value: 'smooth' as const, label: 'smooth' },
  { value: 'bend' as const, label: 'smooth in curvature' },
  { value: 'square' as const, label: 'square to the axis' },
]

/** What an end can do: go on smoothly only from something that ends there too. */
function offered(point: string): typeof ENDS {
  const { sketch } = board
  const isJoined = sketch.entities.some(
    (e) => e.id !== props.curve.id && e.kind !== 'circle' && [e.from, e.to].includes(point),
  )
  return ENDS.filter(
    ({ value }) =>
      ((value !== 'smooth' && value !== 'bend') || isJoined) &&
      (value !== 'square' || !isEndSketch(sketch)),
  )
}

const ends = computed(() => [
  { called: 'Begins', point: props.curve.from },
  { called: 'Ends', point: props.curve.to },
])
const endAt = (point: string): CurveEnd => curveEnd(board.sketch, props.curve, point)

/** The curve as it is, whatever is shown of it meanwhile. */
const own = computed(() => {
  const sketch = parts.history?.part.sketches.find((s) => s.id === board.sketch.id)
  const curve = sketch?.entities.find((e) => e.id === props.curve.id)
  return sketch && curve?.kind === 'spline' ? { sketch, curve } : undefined
})
function setWay(way: SketchSpline['way']): void {
  if (way !== props.curve.way) parts.run(turnWay(board.sketch.id, props.curve.id))
}

function setEnd(point: string, end: CurveEnd): void {
  parts.run(setCurveEnd(board.sketch.id, props.curve.id, point, end))
}
</script>

<template>
  <div class="fields">
    <label for="curve-way">Runs</label>
    <PlainSelect
      id="curve-way"
      :model-value="curve.way"
      :options="WAYS"
      @update:model-value="setWay"
    />
    <template v-if="own">
      <ReshapeField
        id="curve-count"
        label="Points"
        want="number"
        :text="String(own.curve.by.length + 2)"
        :own="own"
        :make="(count) => setPointCount(board.sketch.id, curve.id, count)"
        :fit="refitted"
      />
      <ReshapeField
        id="curve-smooth"
        label="Smooth out"
        want="length"
        text=""
        empty="waves shorter than"
        :own="own"
        :make="(wave) => smoothCurve(board.sketch.id, curve.id, wave)"
        :fit="smoothed"
      />
    </template>
    <template v-for="{ called, point } in ends" :key="called">
      <label :for="`curve-${called}`">{{ called }}</label>
      <PlainSelect
        :id="`curve-${called}`"
        :model-value="endAt(point)"
        :options="offered(point)"
        @update:model-value="(end) => setEnd(point, end)"
      />
    </template>
  </div>
  <div class="buttons">
    <Button @click="board.useTool('curvePoint')">Add points</Button>
  </div>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.fields {
  margin-top: 10px;
}

.fields > label {
  color: var(--ink-soft);
}
</style>
