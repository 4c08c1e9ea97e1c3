<script setup lang="ts">
import { formatLength } from '@lathica/core/units'
import type { Part } from '@lathica/core/part'
import { isEndSketch, type SketchSpline } from '@lathica/core/sketch'
import {
  MOST_PLACES,
  curveEnd,
  leastPlaces,
  perform,
  refitted,
  setCurveEnd,
  setPointCount,
  turnWay,
  type CurveEnd,
} from '@lathica/core/edit'
import { Button } from 'ant-design-vue'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import PlainSelect from '../ui/PlainSelect.vue'

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
  { value: 'square' as const, label: 'square to the axis' },
]

/** What an end can do: go on smoothly only from something that ends there too. */
function offered(point: string): typeof ENDS {
  const { sketch } = board
  const isJoined = sketch.entities.some(
    (e) => e.id !== props.curve.id && e.kind !== 'circle' && [e.from, e.to].includes(point),
  )
  return ENDS.filter(
    ({ value }) => (value !== 'smooth' || isJoined) && (value !== 'square' || !isEndSketch(sketch)),
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
const count = computed(() => (own.value ? own.value.curve.by.length + 2 : 0))
const typed = ref(String(count.value))
const departs = ref('')
const problem = ref('')
watch(count, (now) => (typed.value = String(now)))

/** Shows the curve with as many points as are typed, and says how far it departs at most. */
function showCount(): void {
  problem.value = ''
  departs.value = ''
  const { history } = parts
  if (!own.value || !history) return
  const wanted = Number(typed.value)
  const { sketch, curve } = own.value
  const made =
    wanted === count.value
      ? undefined
      : perform(history.part, setPointCount(sketch.id, curve.id, wanted))
  show(made?.ok ? made.value : undefined)
  const fitted = made?.ok ? refitted(sketch, curve, wanted) : undefined
  if (fitted) {
    const off = formatLength(fitted.deviation, parts.units)
    departs.value = `departs by ${off} ${parts.units.length}`
  }
}

/** Shows another part meanwhile, or the one there is again. */
let isShowing = false
function show(part: Part | undefined): void {
  if (part || isShowing) parts.preview = part
  isShowing = part !== undefined
}

function takeCount(): void {
  show(undefined)
  if (!own.value || Number(typed.value) === count.value) return
  const { sketch, curve } = own.value
  const result = parts.attempt(setPointCount(sketch.id, curve.id, Number(typed.value)))
  problem.value = result.ok ? '' : `${result.problem.message} ${result.problem.mend}`
  if (!result.ok) typed.value = String(count.value)
}

function leaveCount(): void {
  typed.value = String(count.value)
  departs.value = ''
  show(undefined)
}
onBeforeUnmount(() => show(undefined))

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
    <label for="curve-count">Points</label>
    <span class="counted">
      <span class="value">
        <input
          id="curve-count"
          v-model="typed"
          class="figure"
          type="number"
          :min="leastPlaces(curve.way)"
          :max="MOST_PLACES"
          @input="showCount"
          @change="takeCount"
          @keydown.esc.prevent="leaveCount"
          @keydown.stop
        />
      </span>
      <span v-if="departs" class="soft" role="status">{{ departs }}</span>
    </span>
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
  <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  <div class="buttons">
    <Button @click="board.useTool('curvePoint')">Add points</Button>
  </div>
</template>

<style scoped src="./card.css"></style>
<style scoped src="../ui/valueField.css"></style>
<style scoped>
.fields {
  margin-top: 10px;
}

.counted {
  display: flex;
  align-items: baseline;
  gap: 8px;
}

.counted .value {
  width: 64px;
}

.fields > label {
  color: var(--ink-soft);
}
</style>
