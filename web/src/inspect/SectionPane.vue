<script setup lang="ts">
import { boundsOf, boxAround } from '@lathica/core/geometry'
import { AXIS_ID } from '@lathica/core/sketch'
import { edgesOf } from '@lathica/core/section'
import { filledRoom } from '@lathica/core/inspect'
import { useElementBounding, useElementSize, useEventListener } from '@vueuse/core'
import { computed, inject, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import { readColours } from '../board/colours'
import { refAt, refsCalled, wholeAt, wholeBody, type SectionRef } from '../board/refs'
import { REF_REACH } from '../board/tools'
import { emptyBox, fittedView, pannedBy, toPlane, zoomedAt, type Px } from '../board/view'
import { refWords } from '../solid/words'
import { useBoardStore } from '../store/board'
import { useInspectStore } from '../store/inspect'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import { THEME } from '../style/themeKey'
import { paintInspection, type SectionPicture } from './paint'
import { useShownMeasure } from './useShownMeasure'

/** The section as it stands, to be measured: its faces, edges and axis are picked here. */
const parts = usePartStore()
const route = useRouteStore()
const board = useBoardStore()
const inspect = useInspectStore()
const theme = inject(THEME, ref('light'))
const pane = useTemplateRef<HTMLElement>('pane')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(pane)
const { left, top } = useElementBounding(pane)
watch([left, top], ([x, y]) => (inspect.corner = { x, y }), { immediate: true })

/** Room beside the part: as much along the axis as the chart's own axis takes. */
const MARGINS = {
  lying: { axial: 84, outer: 26, mirror: 26 },
  standing: { axial: 58, outer: 40, mirror: 40 },
}
const box = computed(() =>
  boxAround(
    inspect.standing.flatMap((b) =>
      edgesOf(b.section).flatMap((e) => {
        const { min, max } = boundsOf(e.piece)
        return [min, max]
      }),
    ),
  ),
)
function fit(): void {
  if (width.value < 10 || height.value < 10) return
  const margins = MARGINS[parts.lie]
  inspect.view = fittedView(
    parts.lie,
    box.value ?? emptyBox(parts.units.length),
    width.value,
    height.value,
    margins,
  )
}
watch([width, height, () => parts.id, () => parts.lie, () => box.value === undefined], fit, {
  immediate: true,
})
watch(() => board.fitAsked, fit)

const measure = useShownMeasure()
// What lies in space is drawn on the solid.
watch(measure, (now) => (route.measured = now?.space && { ...now.space, words: now.words }), {
  immediate: true,
})

const colours = computed(() => {
  void theme.value
  return readColours()
})
const picture = computed<SectionPicture | undefined>(() => {
  const { view } = inspect
  if (!view || width.value < 10) return undefined
  const filled = inspect.filled
  const liquid =
    inspect.cavity && filled && 'height' in filled && inspect.chart === 'capacity'
      ? filledRoom(inspect.cavity, filled.height ?? 0)
      : undefined
  return {
    ...{ view, width: width.value, height: height.value, colours: colours.value },
    sections: inspect.standing.map((b) => b.section),
    marked: refsCalled(inspect.standing, inspect.shownKeys),
    hover: route.hoverRef,
    axisPicked: inspect.shownPicks.some((p) => p.key === AXIS_ID) || overAxis.value,
    measure: measure.value,
    liquid,
    cursor: inspect.cursor,
  }
})

let frame = 0
function paint(): void {
  frame = 0
  const element = canvas.value
  const ctx = element?.getContext('2d', { alpha: false })
  if (!element || !ctx || !picture.value) return
  const ratio = window.devicePixelRatio || 1
  element.width = Math.round(width.value * ratio)
  element.height = Math.round(height.value * ratio)
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0)
  paintInspection(ctx, picture.value)
}
watch([picture, canvas], () => (frame ||= requestAnimationFrame(paint)), { immediate: true })
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
  route.measured = undefined
})

const at = ref<Px>()
const overAxis = ref(false)
const place = (event: PointerEvent | WheelEvent): Px => {
  const found = pane.value?.getBoundingClientRect()
  return { x: event.clientX - (found?.left ?? 0), y: event.clientY - (found?.top ?? 0) }
}
function under(px: Px): SectionRef | undefined {
  const { view } = inspect
  if (!view) return undefined
  const at = toPlane(view, px)
  const near = refAt(inspect.standing, at, REF_REACH / view.scale, 'any')
  return near ?? (isOnAxis(px) ? undefined : wholeAt(inspect.standing, at))
}
/** The axis can be picked where nothing of the part is nearer. */
function isOnAxis(px: Px): boolean {
  const { view } = inspect
  return view !== undefined && Math.abs(toPlane(view, px).y) * view.scale < 6
}

let from: Px | undefined
let panned = false
useEventListener(pane, 'pointerdown', (event: PointerEvent) => {
  from = place(event)
  panned = false
  pane.value?.setPointerCapture(event.pointerId)
})
useEventListener(pane, 'pointermove', (event: PointerEvent) => {
  const here = place(event)
  at.value = here
  if (from && inspect.view) {
    const far = Math.hypot(here.x - from.x, here.y - from.y) > 4
    if (!panned && !far) return
    panned = true
    inspect.view = pannedBy(inspect.view, here.x - from.x, here.y - from.y)
    from = here
    return
  }
  const found = under(here)
  route.hoverRef = found
  overAxis.value = !found && isOnAxis(here)
})
useEventListener(pane, 'pointerup', (event: PointerEvent) => {
  const click = from !== undefined && !panned && event.button === 0
  from = undefined
  if (!click) return
  const found = under(place(event))
  if (found) route.ask?.take(found, event.shiftKey)
  else if (isOnAxis(place(event))) inspect.take({ body: '', key: AXIS_ID }, event.shiftKey)
  else inspect.picks = []
})
useEventListener(pane, 'pointerleave', () => {
  at.value = undefined
  overAxis.value = false
  route.hoverRef = undefined
})
useEventListener(
  pane,
  'wheel',
  (event: WheelEvent) => {
    event.preventDefault()
    if (!inspect.view) return
    const turn = Math.max(-240, Math.min(240, event.deltaY))
    inspect.view = zoomedAt(inspect.view, place(event), Math.exp(-turn / 400))
  },
  { passive: false },
)

/** Arrow keys go from body to body, face to face and edge to edge; Enter picks. */
const all = computed<SectionRef[]>(() => {
  const keys = new Set<string>()
  for (const { section } of inspect.standing) {
    for (const e of edgesOf(section)) if (e.name.role !== 'axis') keys.add(edgeName(e))
  }
  return [...inspect.standing.map(wholeBody), ...refsCalled(inspect.standing, [...keys])].filter(
    (r, i, list) => list.findIndex((o) => o.key === r.key && o.body === r.body) === i,
  )
})
const edgeName = (e: {
  readonly name: { readonly step: string; readonly entity: string }
}): string => `${e.name.step}/${e.name.entity}`
function step(by: number): void {
  const here = all.value.findIndex((r) => r.key === route.hoverRef?.key)
  const count = all.value.length
  if (count > 0) route.hoverRef = all.value[(Math.max(here, by > 0 ? -1 : 0) + by + count) % count]
}
function pickHovered(event: KeyboardEvent): void {
  if (route.hoverRef) route.ask?.take(route.hoverRef, event.shiftKey)
}

const words = computed(() => {
  if (route.hoverRef) return refWords(route.hoverRef, parts, inspect.standing)
  return overAxis.value ? 'axis' : ''
})
const wordsStyle = computed(() => {
  if (!at.value) return { left: '12px', top: '8px' }
  const flip = at.value.x > width.value - 220
  return {
    left: `${at.value.x + (flip ? -14 : 14)}px`,
    top: `${Math.max(4, at.value.y - 32)}px`,
    transform: flip ? 'translateX(-100%)' : 'none',
  }
})
const viewText = computed(() => {
  const { view } = inspect
  return view && [view.scale, view.origin.x, view.origin.y].map((v) => v.toFixed(4)).join(' ')
})
</script>

<template>
  <section
    ref="pane"
    class="section-pane"
    aria-label="Section"
    tabindex="0"
    :data-view="viewText"
    @keydown.right.exact.prevent="step(1)"
    @keydown.down.exact.prevent="step(1)"
    @keydown.left.exact.prevent="step(-1)"
    @keydown.up.exact.prevent="step(-1)"
    @keydown.enter.prevent="pickHovered"
  >
    <canvas ref="canvas" role="img" aria-label="the half-section as it stands" />
    <p v-if="words" class="words" :style="wordsStyle" aria-live="polite">{{ words }}</p>
    <p v-if="inspect.standing.length === 0" class="none">
      There is nothing to measure yet: revolve a closed profile on the model screen.
    </p>
  </section>
</template>

<style scoped src="../ui/words.css"></style>
<style scoped>
.section-pane {
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  background: var(--paper);
  touch-action: none;
  user-select: none;
  cursor: crosshair;
}

.section-pane:focus-visible {
  outline-offset: -2px;
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}

.none {
  position: absolute;
  inset: 40% 10% auto;
  color: var(--ink-soft);
  text-align: center;
}
</style>
