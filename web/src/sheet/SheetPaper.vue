<script setup lang="ts">
import type { Drawing, DrawnPlace } from '@lathica/core/drawing'
import { drawingGroups } from '@lathica/core/formats'
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue'
import { useSheetStore } from '../store/sheet'
import { useSheetView } from './useSheetView'

/** The sheet on its paper: dragged and zoomed like a board; labels are picked and dragged. */
const props = defineProps<{ drawing: Drawing; name: string }>()
const sheet = useSheetStore()
const element = useTemplateRef<HTMLElement>('element')
const content = useTemplateRef<SVGGElement>('content')
const paper = computed(() => props.drawing.paper)
const { box, pixels, placeAt, zoomAt, pan } = useSheetView(
  element,
  paper,
  toRef(sheet, 'asked'),
  drawnBox,
)

/** Where the views with their labels are: beside the plan there is less room, and no more is looked at. */
function drawnBox() {
  if (sheet.page !== 'plan') return undefined
  const boxes = [...(content.value?.querySelectorAll<SVGGElement>('g[data-role]') ?? [])].flatMap(
    (g) => {
      const isFixed = props.drawing.labels.get(g.getAttribute('data-id') ?? '')?.isFixed === true
      const isDrawn = ['view', 'size', 'note'].includes(g.getAttribute('data-role') ?? '')
      return isDrawn && !isFixed ? [g.getBBox()] : []
    },
  )
  if (boxes.length === 0) return undefined
  const [x0, y0] = [Math.min(...boxes.map((b) => b.x)), Math.min(...boxes.map((b) => b.y))]
  const x1 = Math.max(...boxes.map((b) => b.x + b.width))
  const y1 = Math.max(...boxes.map((b) => b.y + b.height))
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 }
}
// The room changes with the page: the paper is fitted once it has its new size.
watch(
  () => [sheet.page, sheet.setup.balloons],
  () => requestAnimationFrame(() => requestAnimationFrame(sheet.fit)),
)

const drawn = computed(() => drawingGroups(props.drawing.groups, props.drawing.lines))

const groupOf = (id: string): SVGGElement | null =>
  content.value?.querySelector<SVGGElement>(`g[data-id="${CSS.escape(id)}"]`) ?? null

watch(
  [() => sheet.picked, drawn],
  async () => {
    await nextTick()
    content.value?.querySelectorAll('.picked').forEach((g) => g.classList.remove('picked'))
    if (sheet.picked !== undefined) groupOf(sheet.picked)?.classList.add('picked')
  },
  { immediate: true },
)

/** What the pointer holds: the paper, or a label. */
interface Held {
  readonly id: string | undefined
  /** The label under it, which may not be dragged. */
  readonly under: string | undefined
  readonly x: number
  readonly y: number
  lastX: number
  lastY: number
  isMoved: boolean
}
const held = ref<Held>()
/** Less than this is a click, in pixels. */
const CLICK = 4

function labelUnder(event: PointerEvent): string | undefined {
  const group = (event.target as Element).closest?.('g[data-id]')
  const id = group?.getAttribute('data-id') ?? undefined
  return id !== undefined && props.drawing.labels.has(id) ? id : undefined
}

function take(event: PointerEvent): void {
  if (event.button > 1) return
  const under = event.button === 0 ? labelUnder(event) : undefined
  // Lines beside the title block are picked, and stay where they are.
  const isFixed = under !== undefined && props.drawing.labels.get(under)?.isFixed === true
  const id = isFixed ? undefined : under
  element.value?.setPointerCapture(event.pointerId)
  const [x, y] = [event.clientX, event.clientY]
  held.value = { id, under, x, y, lastX: x, lastY: y, isMoved: false }
}

function drag(event: PointerEvent): void {
  if (sheet.tool) pointer.value = placeAt(event)
  const hold = held.value
  if (!hold) return
  const [dx, dy] = [event.clientX - hold.x, event.clientY - hold.y]
  if (!hold.isMoved && Math.hypot(dx, dy) < CLICK) return
  hold.isMoved = true
  if (hold.id === undefined) pan(event.clientX - hold.lastX, event.clientY - hold.lastY)
  else {
    const by = `translate(${dx / pixels.value} ${dy / pixels.value})`
    groupOf(hold.id)?.setAttribute('transform', by)
  }
  hold.lastX = event.clientX
  hold.lastY = event.clientY
}

function letGo(event: PointerEvent): void {
  const hold = held.value
  held.value = undefined
  if (!hold) return
  if (!hold.isMoved) {
    if (sheet.tool) {
      const near = nearest(placeAt(event))
      if (near) sheet.takePlace(near, event.shiftKey)
      return
    }
    sheet.picked = hold.under
    return
  }
  if (hold.id === undefined) return
  groupOf(hold.id)?.removeAttribute('transform')
  sheet.picked = hold.id
  const [dx, dy] = [event.clientX - hold.x, event.clientY - hold.y]
  sheet.move(hold.id, dx / pixels.value, -dy / pixels.value)
}

/** Where the pointer is while a size is drawn, in mm, y downwards. */
const pointer = ref<{ readonly x: number; readonly y: number }>()
/** Edges can be chosen for everything, faces for sizes only. */
const places = computed(() =>
  props.drawing.places.filter((p) => p.what === 'corner' || sheet.tool === 'size'),
)
const isSpot = ({ what }: DrawnPlace): boolean => what === 'corner' || what === 'point'
const edges = computed(() => places.value.filter(isSpot))
const faces = computed(() => places.value.filter((p) => !isSpot(p)))
const isBegun = ({ key, end, body }: DrawnPlace): boolean =>
  key === sheet.begun?.key && end === sheet.begun.end && body === sheet.begun.body
/** So near a place is taken, in pixels. */
const REACH = 16

/** The place that is meant at a place of the paper. */
function nearest(at: { readonly x: number; readonly y: number }): DrawnPlace | undefined {
  let best: { readonly place: DrawnPlace; readonly off: number } | undefined
  for (const place of places.value) {
    const off = Math.hypot(place.at.x - at.x, place.at.y + at.y) * pixels.value
    if (off <= REACH && off < (best?.off ?? Infinity)) best = { place, off }
  }
  return best?.place
}
const meant = computed(() => (sheet.tool && pointer.value ? nearest(pointer.value) : undefined))

/** Lets the label stand where it was. */
function giveUp(): void {
  const hold = held.value
  held.value = undefined
  if (hold?.id !== undefined) groupOf(hold.id)?.removeAttribute('transform')
}
defineExpose({ giveUp, isHeld: () => held.value?.isMoved === true })
</script>

<template>
  <div
    ref="element"
    class="paper"
    :class="{ panning: held?.isMoved && held.id === undefined, drawing: sheet.tool !== undefined }"
    @pointerdown="take"
    @pointermove="drag"
    @pointerup="letGo"
    @pointercancel="giveUp"
    @wheel.prevent="zoomAt($event, $event.deltaY < 0 ? 1.15 : 1 / 1.15)"
  >
    <svg :viewBox="box" role="group" :aria-label="`Sheet of ${name}`">
      <rect class="sheet" x="0" :y="-paper.height" :width="paper.width" :height="paper.height" />
      <!-- Made of numbers and escaped texts by the writer of sheets. -->
      <!-- eslint-disable-next-line vue/no-v-html -->
      <g ref="content" class="content" v-html="drawn" />
      <g v-if="sheet.tool" class="places">
        <circle
          v-for="(p, i) in edges"
          :key="i"
          :data-what="p.what"
          :cx="p.at.x"
          :cy="-p.at.y"
          :r="3.5 / pixels"
          :class="{ meant: p === meant, begun: isBegun(p) }"
        />
        <rect
          v-for="(p, i) in faces"
          :key="`face${i}`"
          :data-what="p.what"
          :transform="`translate(${p.at.x} ${-p.at.y}) rotate(45)`"
          :x="-2.6 / pixels"
          :y="-2.6 / pixels"
          :width="5.2 / pixels"
          :height="5.2 / pixels"
          :class="{ meant: p === meant, begun: isBegun(p) }"
        />
        <line
          v-if="sheet.begun && pointer"
          :x1="sheet.begun.at.x"
          :y1="-sheet.begun.at.y"
          :x2="meant?.at.x ?? pointer.x"
          :y2="meant ? -meant.at.y : pointer.y"
        />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.paper {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  background: var(--paper-deep);
  cursor: grab;
  touch-action: none;
}

.panning {
  cursor: grabbing;
}

svg {
  display: block;
  width: 100%;
  height: 100%;
  user-select: none;
}

.sheet {
  fill: var(--panel);
  stroke: var(--rule-strong);
  stroke-width: 0.3;
}

.content {
  color: var(--ink);
  /* Letters as wide as they were measured, whatever the pixels. */
  text-rendering: geometricPrecision;
}

.drawing {
  cursor: crosshair;
}

.places {
  pointer-events: none;
}

.places circle,
.places rect {
  fill: var(--panel);
  stroke: var(--accent);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}

.places .meant,
.places .begun {
  fill: var(--accent);
}

.places line {
  stroke: var(--accent);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}

.content :deep(g[data-role='size']),
.content :deep(g[data-role='note']) {
  cursor: move;
}

.content :deep(g[data-role='size']:hover),
.content :deep(g[data-role='note']:hover) {
  color: var(--accent);
}

.content :deep(.picked),
.content :deep(.picked:hover) {
  color: var(--halo);
}

.content :deep(.picked path) {
  stroke-width: 0.45;
}
</style>
