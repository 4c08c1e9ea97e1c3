<script setup lang="ts">
import type { Problem } from '@lathica/core/result'
import type { ShownUnit } from '@lathica/core/units/shown'
import type { Figure } from '@lathica/core/part'
import type { Scatter, Span, Trials } from '@lathica/core/vary'
import { tellFigures, tellValue, unitWords } from '@lathica/core/inspect'
import { Button } from 'ant-design-vue'
import { BarController, BarElement, Chart, LinearScale } from 'chart.js'
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { readColours } from '../board/colours'
import { usePartStore } from '../store/part'
import { useTheme } from '../style/theme'
import PlainSelect from '../ui/PlainSelect.vue'
import { tryMany, type Job } from '../vary/client'

Chart.register(BarController, BarElement, LinearScale)

/** A figure of many parts, as their values scatter: how many lie outside what is wanted. */
const props = defineProps<{ figure: Figure; unit: ShownUnit; span: Span | undefined }>()
const parts = usePartStore()
const { name: theme } = useTheme()

const COUNT = 10_000
const BARS = 41
const SCATTERS = [
  { value: 'normal' as const, label: 'about the middle, 3σ to a limit' },
  { value: 'even' as const, label: 'evenly between the limits' },
]
const scatter = ref<Scatter>('normal')
const trials = shallowRef<Trials>()
const problem = shallowRef<Problem>()
const done = ref<number>()
let job: Job<Trials> | undefined

function end(): void {
  job?.end()
  job = undefined
  done.value = undefined
}
async function run(): Promise<void> {
  const part = parts.history?.part
  if (!part) return
  end()
  done.value = 0
  trials.value = undefined
  const plan = { count: COUNT, scatter: scatter.value }
  const own = tryMany(part, props.figure, plan, (share) => {
    if (job === own) done.value = share
  })
  job = own
  const answer = await own.answer
  if (job !== own) return
  job = undefined
  done.value = undefined
  trials.value = answer?.ok === true ? answer.value : undefined
  problem.value = answer && !answer.ok ? answer.problem : undefined
}
// Of another part, figure or scatter it would be another answer.
watch([() => parts.history?.part, () => props.figure, scatter], () => {
  end()
  trials.value = undefined
})
onBeforeUnmount(() => {
  end()
  chart?.destroy()
})

const counted = computed(() => {
  const values = trials.value?.values
  if (!values || values.length === 0) return undefined
  let [least, most, sum] = [Infinity, -Infinity, 0]
  let outside = 0
  for (const v of values) {
    least = Math.min(least, v)
    most = Math.max(most, v)
    sum += v
    if (props.span && (v < props.span.low || v > props.span.high)) outside++
  }
  const mean = sum / values.length
  let square = 0
  for (const v of values) square += (v - mean) ** 2
  const width = (most - least) / BARS || 1
  const bars = new Array<number>(BARS).fill(0)
  for (const v of values) {
    const i = Math.min(BARS - 1, Math.floor((v - least) / width))
    bars[i] = (bars[i] ?? 0) + 1
  }
  return {
    ...{ least, most, mean, outside, bars, width },
    sigma: Math.sqrt(square / values.length),
  }
})
const words = computed(() => {
  if (!counted.value || !trials.value) return ''
  const { mean, sigma, least, most } = counted.value
  const between = `from ${tellFigures(least, props.unit)} to ${tellValue(most, props.unit)}`
  return `Mean ${tellValue(mean, props.unit)}, standard deviation ${tellValue(sigma, props.unit)}, ${between}.`
})
const verdict = computed(() => {
  const { span } = props
  if (!counted.value || !trials.value || !span) return ''
  if (span.low === -Infinity && span.high === Infinity) return ''
  const { outside } = counted.value
  const all = trials.value.values.length
  return outside === 0
    ? `None of ${all.toLocaleString('en')} lies outside what is wanted.`
    : `${outside.toLocaleString('en')} of ${all.toLocaleString('en')} lie outside what is wanted.`
})

const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
let chart: Chart | undefined
watch(
  [counted, theme, () => props.span],
  async () => {
    await nextTick()
    chart?.destroy()
    chart = undefined
    const found = counted.value
    if (!canvas.value || !found) return
    const colours = readColours()
    const font = { family: "'IBM Plex Mono', monospace", size: 11 }
    const { size } = props.unit
    const at = (i: number): number => (found.least + (i + 0.5) * found.width) / size
    const isOut = (i: number): boolean => {
      const v = at(i) * size
      return props.span !== undefined && (v < props.span.low || v > props.span.high)
    }
    chart = new Chart(canvas.value, {
      type: 'bar',
      data: {
        datasets: [
          {
            data: found.bars.map((y, i) => ({ x: at(i), y })),
            backgroundColor: found.bars.map((_, i) => (isOut(i) ? colours.conflict : colours.halo)),
            ...{ barPercentage: 1, categoryPercentage: 0.92 },
          },
        ],
      },
      options: {
        ...{ animation: false, responsive: true, maintainAspectRatio: false, events: [] },
        plugins: {},
        scales: {
          x: {
            type: 'linear',
            min: found.least / size,
            max: found.most / size,
            ticks: { color: colours.inkSoft, font, maxTicksLimit: 5 },
            grid: { display: false },
            title: { display: true, text: unitWords(props.unit), color: colours.inkSoft, font },
          },
          y: {
            type: 'linear',
            beginAtZero: true,
            ticks: { color: colours.inkSoft, font, maxTicksLimit: 4 },
            grid: { color: colours.rule, lineWidth: 0.6 },
          },
        },
      },
    })
  },
  { flush: 'post' },
)
</script>

<template>
  <div class="trials" role="group" aria-label="Many parts">
    <div class="line">
      <label for="scatter">Values scatter</label>
      <PlainSelect id="scatter" v-model="scatter" :options="SCATTERS" />
    </div>
    <div class="line">
      <Button v-if="done === undefined" @click="run">
        Try {{ COUNT.toLocaleString('en') }} parts
      </Button>
      <template v-else>
        <progress :value="done" max="1" aria-label="parts worked out" />
        <Button @click="end">Stop</Button>
      </template>
    </div>
    <p v-if="problem" class="problem" role="alert">
      <strong>{{ problem.message }}</strong> {{ problem.mend }}
    </p>
    <template v-if="counted">
      <div class="chart">
        <canvas ref="canvas" role="img" :aria-label="`Histogram. ${words}`" />
      </div>
      <p class="figure small">{{ words }}</p>
      <p v-if="verdict" role="status">{{ verdict }}</p>
      <p v-if="trials && trials.lost > 0" class="small">{{ trials.lost }} could not be made.</p>
    </template>
  </div>
</template>

<style scoped>
.trials {
  margin: 8px 0;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
}

.line {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 6px;
}

progress {
  flex: 1;
  accent-color: var(--accent);
}

.chart {
  height: 150px;
}

.small {
  margin: 4px 0;
  font-size: 12px;
}

.problem {
  padding: 6px 8px;
  background: var(--conflict-wash);
}
</style>
