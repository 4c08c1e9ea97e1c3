<script setup lang="ts">
import { usualUnit } from '@lathica/core/units/shown'
import { materialOf, ringsAt } from '@lathica/core/inspect'
import { writeCsv } from '@lathica/core/formats'
import { useElementBounding, useElementSize, useEventListener } from '@vueuse/core'
import { computed, inject, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import { readColours } from '../board/colours'
import { toPlane, toScreen, type Px } from '../board/view'
import { saveFile } from '../dispatch/saveFile'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import { useSolidsStore } from '../store/solids'
import { THEME } from '../style/themeKey'
import PlainSelect from '../ui/PlainSelect.vue'
import { CHARTS, chartSource, chartTable, readout, type ChartKind } from './chartData'
import { Chart, areaOf, chartConfig } from './drawChart'
import FillFields from './FillFields.vue'

/** Figures along the part's axis, in line with the section beside them. */
const parts = usePartStore()
const route = useRouteStore()
const inspect = useInspectStore()
const solids = useSolidsStore()
const theme = inject(THEME, ref('light'))
const pane = useTemplateRef<HTMLElement>('pane')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(pane)
const { left, top } = useElementBounding(pane)
/** From a place of this pane to the same place of the section's. */
const inSection = ({ x, y }: Px): Px => ({
  x: x + left.value - inspect.corner.x,
  y: y + top.value - inspect.corner.y,
})
const lying = computed(() => parts.lie === 'lying')
const length = computed(() => usualUnit('length', parts.units))

const source = computed(() => {
  const { body, cavity } = inspect
  if (!body) return undefined
  const density = materialOf(parts, body.bodyId)?.density ?? 0
  return chartSource(body, cavity, density, parts.units, () => solids.meshOf(body))
})
/** The room of a vessel goes by its section; all else of a body that is no full turn by what planes cut of it. */
const isCut = computed(() => source.value?.cut !== undefined && inspect.chart !== 'capacity')
const data = computed(() => source.value && CHARTS[inspect.chart].data(source.value))
interface Basis {
  readonly words: string
  readonly why: string
  /** Told to fewer digits. */
  readonly isRough?: true
}
const BASES = {
  turn: {
    words: 'of the full turn',
    why: 'Goes by the half-section: holes and flats are left out.',
  },
  exact: {
    words: 'of the solid',
    why: 'By exact cross-sections, with holes and flats as they are.',
  },
  summed: {
    words: 'of the solid',
    why: 'Summed between exact cross-sections; at the end it is exact, between to a thousandth.',
    isRough: true,
  },
  triangles: {
    words: 'by triangles',
    why: 'Cut from the picture’s triangles: right to a few thousandths.',
    isRough: true,
  },
} as const satisfies Record<string, Basis>
/** What a chart of a body that is no full turn is made of. */
const basis = computed((): Basis | undefined => {
  if (!inspect.body?.plan) return undefined
  // Up to where it runs out a vessel is the full turn.
  if (CHARTS[inspect.chart].ofVessels && inspect.cavity?.isWhole) return undefined
  if (!isCut.value) return BASES.turn
  if (!source.value?.isExact) return BASES.triangles
  return inspect.chart === 'mass' ? BASES.summed : BASES.exact
})
const told = computed(() => {
  if (!data.value) return ''
  if (isCut.value && source.value?.stations.length === 0) return 'the solid is not built yet'
  if (inspect.cursor === undefined) return 'point at the chart, or use the arrow keys'
  const place = inspect.cursor / length.value.size
  const values = readout(data.value, place, basis.value?.isRough ? 4 : 5)
  return `at ${Number(place.toFixed(3))} ${length.value.name}: ${values || 'nothing'}`
})
const kinds = computed(() => inspect.charts.map((value) => ({ value, label: CHARTS[value].words })))
const owners = computed(() =>
  inspect.standing.map((b) => ({
    value: b.bodyId,
    label: parts.bodies.find((x) => x.id === b.bodyId)?.name ?? b.bodyId,
  })),
)

/** The place along the axis at a pixel of the chart, as the section's view has it. */
function placeAt(px: number): number | undefined {
  const { view } = inspect
  if (!view) return undefined
  const at = inSection(lying.value ? { x: px, y: 0 } : { x: 0, y: px })
  return toPlane(view, at).x / length.value.size
}
/** The places at the ends of the chart's area, as near as can be told before it is drawn. */
const ends = computed(() => {
  const [a, b] = areaOf(parts.lie, width.value, height.value)
  const [from, to] = [placeAt(a), placeAt(b)]
  return from === undefined || to === undefined ? undefined : { from, to }
})

let chart: Chart<'line', { x: number; y: number }[]> | undefined
function draw(): void {
  chart?.destroy()
  chart = undefined
  const element = canvas.value
  if (!element || !data.value || !ends.value || width.value < 80 || height.value < 80) return
  const ratio = window.devicePixelRatio || 1
  element.style.width = `${width.value}px`
  element.style.height = `${height.value}px`
  element.width = width.value
  element.height = height.value
  const frame = {
    ...{ lie: parts.lie, lengthUnit: length.value.name, colours: readColours() },
    ...ends.value,
  }
  const cursor = (): number | undefined =>
    inspect.cursor === undefined ? undefined : inspect.cursor / length.value.size
  const config = chartConfig(data.value, frame, cursor)
  chart = new Chart(element, {
    ...config,
    options: { ...config.options, devicePixelRatio: ratio },
  })
  keepInLine(chart)
}
/** Labels at the ends may take room: the places there are set once the chart knows its area. */
function keepInLine(made: NonNullable<typeof chart>): void {
  const { left: x0, right: x1, top: y0, bottom: y1 } = made.chartArea
  const scale = made.options.scales?.[lying.value ? 'x' : 'y']
  const [from, to] = lying.value ? [placeAt(x0), placeAt(x1)] : [placeAt(y1), placeAt(y0)]
  if (!scale || from === undefined || to === undefined) return
  Object.assign(scale, { min: from, max: to })
  made.update('none')
}
let frame = 0
watch(
  [data, ends, width, height, canvas, theme],
  () => (frame ||= requestAnimationFrame(drawNow)),
  {
    immediate: true,
  },
)
function drawNow(): void {
  frame = 0
  draw()
}
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
  chart?.destroy()
  setCursor(undefined)
})

/** The cursor lights the place on section and solid: its outermost circle. */
function setCursor(place: number | undefined): void {
  inspect.cursor = place
  const rings = place === undefined || !inspect.body ? [] : ringsAt(inspect.body.section, place)
  const radius = rings.at(-1)?.[1]
  route.litPlace = place !== undefined && radius !== undefined ? { x: place, y: radius } : undefined
  chart?.draw()
}
const place = (event: PointerEvent): Px => {
  const box = pane.value?.getBoundingClientRect()
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
}
useEventListener(pane, 'pointermove', (event: PointerEvent) => {
  if (inspect.view) setCursor(toPlane(inspect.view, inSection(place(event))).x)
})
useEventListener(pane, 'pointerleave', () => setCursor(undefined))

/** Arrow keys move the cursor by a hundredth of the part, with Shift by a tenth. */
function step(event: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
  const stations = source.value?.stations
  const [first, last] = [stations?.[0]?.x, stations?.at(-1)?.x]
  if (by === undefined || first === undefined || last === undefined) return
  event.preventDefault()
  const move = (by * (last - first)) / (event.shiftKey ? 10 : 100)
  const next = inspect.cursor === undefined ? (first + last) / 2 : inspect.cursor + move
  setCursor(Math.min(last, Math.max(first, next)))
}

function saveTable(): void {
  if (source.value) {
    saveFile(writeCsv(chartTable(inspect.chart, source.value)), fileName('csv'), 'text/csv')
  }
}
function savePicture(): void {
  const element = canvas.value
  if (!element) return
  // On paper, since a chart without a ground is hard to read on a dark page.
  const sheet = document.createElement('canvas')
  sheet.width = element.width
  sheet.height = element.height
  const brush = sheet.getContext('2d')
  if (!brush) return
  brush.fillStyle = readColours().paper
  brush.fillRect(0, 0, sheet.width, sheet.height)
  brush.drawImage(element, 0, 0)
  sheet.toBlob((blob) => {
    void blob
      ?.arrayBuffer()
      .then((bytes) => saveFile(new Uint8Array(bytes), fileName('png'), 'image/png'))
  }, 'image/png')
}
const fileName = (end: string): string => `${parts.name} ${CHARTS[inspect.chart].words}.${end}`

/** The height that is filled to, as a line of the section's own. */
const surfaceAt = computed(() => {
  const { view, cavity, filled, chart: kind } = inspect
  if (!view || !cavity || kind !== 'capacity' || !filled || !('height' in filled)) return undefined
  const at = toScreen(view, { x: cavity.floor + (filled.height ?? 0), y: 0 })
  const { x, y } = inSection({ x: 0, y: 0 })
  return lying.value ? { left: `${at.x - x}px` } : { top: `${at.y - y}px` }
})
</script>

<template>
  <section class="chart" aria-label="Chart">
    <header>
      <PlainSelect
        id="chart-kind"
        class="kind"
        aria-label="Chart of"
        :model-value="inspect.chart"
        :options="kinds"
        @update:model-value="inspect.chosenChart = $event as ChartKind"
      />
      <PlainSelect
        v-if="owners.length > 1 && inspect.body"
        id="chart-body"
        class="kind"
        aria-label="Body of the chart"
        :model-value="inspect.body.bodyId"
        :options="owners"
        @update:model-value="inspect.chosenBody = $event"
      />
      <span class="gap" />
      <span v-if="basis" class="soft basis" :title="basis.why">{{ basis.words }}</span>
      <button type="button" class="plain" title="Save the chart’s table" @click="saveTable">
        CSV
      </button>
      <button type="button" class="plain" title="Save the chart’s picture" @click="savePicture">
        PNG
      </button>
    </header>
    <FillFields v-if="inspect.chart === 'capacity'" class="fill" />
    <p class="told figure" aria-live="polite">{{ told }}</p>
    <div
      ref="pane"
      class="area"
      tabindex="0"
      role="group"
      :aria-label="`${CHARTS[inspect.chart].words} along the axis; arrow keys move the cursor`"
      @keydown="step"
    >
      <canvas ref="canvas" role="img" :aria-label="`curve of ${CHARTS[inspect.chart].words}`" />
      <div v-if="surfaceAt" class="surface" :class="{ lying }" :style="surfaceAt" />
    </div>
  </section>
</template>

<style scoped>
.chart {
  position: relative;
  display: grid;
  grid-template: auto auto auto minmax(0, 1fr) / minmax(0, 1fr);
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  background: var(--panel);
}

header {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 6px 8px;
}

.kind {
  flex: 0 1 212px;
  min-width: 0;
}

.gap {
  flex: 1;
}

.basis {
  font-size: 12px;
  white-space: nowrap;
}

.fill {
  grid-row: 2;
  padding: 0 10px 4px;
}

.told {
  grid-row: 3;
  min-height: 20px;
  padding: 0 10px;
  color: var(--ink-soft);
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.area {
  position: relative;
  grid-row: 4;
  min-height: 0;
  overflow: hidden;
  cursor: crosshair;
}

.area:focus-visible {
  outline-offset: -2px;
}

canvas {
  position: absolute;
  inset: 0;
}

.surface {
  position: absolute;
  border: 0 dashed var(--accent);
  pointer-events: none;
}

.surface.lying {
  top: 0;
  bottom: 30px;
  border-left-width: 1.5px;
}

.surface:not(.lying) {
  left: 50px;
  right: 12px;
  border-top-width: 1.5px;
}
</style>
