<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import { formatLength } from '@lathica/core/units'
import { isEndSketch, type SketchPoint } from '@lathica/core/sketch'
import { placePoints } from '@lathica/core/edit'
import { computed } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import ValueInput from './steps/ValueInput.vue'
import { useTyped } from './steps/typed'

/** Where the picked points stand, to be typed: all of them stand there then. */
const props = defineProps<{ points: readonly SketchPoint[] }>()
const board = useBoardStore()
const parts = usePartStore()
const { read, fault } = useTyped()

const fields = computed(() => {
  const isEnd = isEndSketch(board.sketch)
  const out = isEnd
    ? ({ label: 'Upright', times: 1 } as const)
    : ({ label: 'Diameter', times: 2 } as const)
  return [
    { label: isEnd ? 'Level' : 'From datum', of: 'x' as const, times: 1, sign: undefined },
    { ...out, of: 'y' as const, sign: isEnd ? undefined : '⌀' },
  ].map((field) => ({ ...field, text: shared(field.of, field.times) }))
})

/** What all points have in common, as it is typed; empty where they differ. */
function shared(of: 'x' | 'y', times: number): string {
  const texts = new Set(props.points.map((p) => formatLength(p[of] * times, parts.units)))
  const [only = '', ...more] = texts
  return more.length === 0 ? only : ''
}

function take(of: 'x' | 'y', times: number, text: string): Problem | undefined {
  if (text === '') return undefined
  const result = read(text, 'length')
  if (!result.ok) return result.problem
  const ids = props.points.map((p) => p.id)
  const placed = parts.attempt(placePoints(board.sketch.id, ids, { [of]: result.value / times }))
  return placed.ok ? undefined : placed.problem
}
</script>

<template>
  <div class="fields">
    <template v-for="f in fields" :key="f.label">
      <label :for="`place-${f.of}`">{{ f.label }}</label>
      <ValueInput
        :id="`place-${f.of}`"
        :label="f.label"
        want="length"
        :text="f.text"
        :sign="f.sign"
        empty="various"
        :fault="fault"
        :take="(text) => take(f.of, f.times, text)"
      />
    </template>
  </div>
</template>

<style scoped src="./card.css"></style>
<style scoped>
.fields {
  margin-bottom: 8px;
}

.fields > label {
  color: var(--ink-soft);
}
</style>
