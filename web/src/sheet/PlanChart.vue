<script setup lang="ts">
import { scaleOf, standing, unitOfRow, type PlanRow } from '@lathica/core/plan'
import {
  CategoryScale,
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  type ChartConfiguration,
} from 'chart.js'
import { computed, onBeforeUnmount, useTemplateRef, watch } from 'vue'
import { readColours } from '../board/colours'
import { usePartStore } from '../store/part'
import { usePlanStore } from '../store/plan'
import { useTheme } from '../style/theme'

Chart.register(CategoryScale, LineController, LineElement, LinearScale, PointElement)

/** What was measured of one row, piece by piece between its limits; of all rows where none is in hand. */
const props = defineProps<{ row: PlanRow | undefined }>()
const parts = usePartStore()
const plan = usePlanStore()
const { name: theme } = useTheme()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')

interface Shown {
  readonly unit: string
  readonly labels: readonly string[]
  /** Points over each label. */
  readonly points: readonly { readonly at: number; readonly value: number; readonly bad: boolean }[]
  readonly lines: readonly { readonly value: number; readonly dashed: boolean }[]
}

/** Beyond its limits a value of all rows is drawn so far out at most. */
const FAR = 1.6

const shown = computed((): Shown => {
  const { pieces } = plan.plan
  const { row } = props
  if (!row) {
    const rows = plan.rows.filter((r) => r.lower !== undefined && r.upper !== undefined)
    return {
      ...{ unit: 'between the limits', labels: rows.map((r) => r.number) },
      points: rows.flatMap((r, at) =>
        pieces.flatMap((p) => {
          const value = plan.valueOf(r.id, p.id)
          const where = typeof value === 'number' ? standing(r, value) : undefined
          if (where === undefined) return []
          const held = Math.max(-FAR, Math.min(FAR, where))
          return [{ at, value: held, bad: plan.verdictOf(r, p.id) === 'bad' }]
        }),
      ),
      lines: [-1, 0, 1].map((value) => ({ value, dashed: value === 0 })),
    }
  }
  const units = parts.part?.units
  const size = units ? scaleOf(row.measure, units) : 1
  const line = (value: number | undefined, dashed: boolean) =>
    value === undefined ? [] : [{ value: value / size, dashed }]
  return {
    unit: units ? unitOfRow(row.measure, units) : '',
    labels: pieces.map((p) => p.name),
    points: pieces.flatMap((p, at) => {
      const value = plan.valueOf(row.id, p.id)
      const bad = plan.verdictOf(row, p.id) === 'bad'
      return typeof value === 'number' ? [{ at, value: value / size, bad }] : []
    }),
    lines: [...line(row.lower, false), ...line(row.nominal, true), ...line(row.upper, false)],
  }
})
const isEmpty = computed(() => shown.value.points.length === 0)

let chart: Chart | undefined

function config(): ChartConfiguration<'line', { x: number; y: number }[]> {
  const colours = readColours()
  const { labels, points, lines, unit } = shown.value
  const font = { family: "'IBM Plex Mono', monospace", size: 11 }
  const [first, last] = [-0.5, Math.max(0.5, labels.length - 0.5)]
  const values = [...points.map((p) => p.value), ...lines.map((l) => l.value)]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const room = (high - low || 1) * 0.15
  const own = (bad: boolean) => points.filter((p) => p.bad === bad)
  const dots = (bad: boolean) => ({
    data: own(bad).map((p) => ({ x: p.at, y: p.value })),
    showLine: false,
    pointRadius: bad ? 6 : 4,
    pointStyle: bad ? ('crossRot' as const) : ('circle' as const),
    borderColor: bad ? colours.conflict : colours.accent,
    backgroundColor: bad ? colours.conflict : colours.accent,
    borderWidth: bad ? 2.5 : 1,
  })
  return {
    type: 'line',
    data: {
      datasets: [
        dots(false),
        dots(true),
        ...lines.map(({ value, dashed }) => ({
          data: [
            { x: first, y: value },
            { x: last, y: value },
          ],
          pointRadius: 0,
          borderColor: dashed ? colours.inkSoft : colours.ink,
          borderWidth: dashed ? 1 : 1.5,
          borderDash: dashed ? [4, 3] : [],
        })),
      ],
    },
    options: {
      ...{ animation: false, maintainAspectRatio: false, responsive: true },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: {
          ...{ type: 'linear', min: first, max: last, grid: { display: false } },
          ticks: {
            ...{ color: colours.inkSoft, font, stepSize: 1, autoSkip: true, maxRotation: 0 },
            callback: (at) => labels[Number(at)] ?? '',
          },
        },
        y: {
          ...{ min: low - room, max: high + room },
          ticks: { color: colours.inkSoft, font, maxTicksLimit: 6, includeBounds: false },
          grid: { color: colours.rule, lineWidth: 0.6 },
          title: { display: true, text: unit, color: colours.inkSoft, font },
        },
      },
    },
  }
}

watch(
  [shown, canvas, theme],
  () => {
    chart?.destroy()
    chart = undefined
    if (canvas.value && !isEmpty.value) chart = new Chart(canvas.value, config() as never)
  },
  { flush: 'post', immediate: true },
)
onBeforeUnmount(() => chart?.destroy())

const said = computed(() => {
  const bad = shown.value.points.filter((p) => p.bad).length
  return `${shown.value.points.length} values, ${bad} out of their limits`
})
</script>

<template>
  <div v-show="!isEmpty" class="chart" role="img" :aria-label="said">
    <canvas ref="canvas" />
  </div>
  <p v-if="isEmpty" class="soft">Values show here between their limits once they are typed.</p>
</template>

<style scoped>
.chart {
  height: 160px;
}

.soft {
  margin: 0;
  color: var(--ink-soft);
}
</style>
