<script setup lang="ts">
import { place, type Frame, type Place, type Vec } from '@lathica/core/geometry'
import { entityName, isEndSketch } from '@lathica/core/sketch'
import { computed, ref } from 'vue'
import type { PointerAt } from '../board/tools'
import { toScreen } from '../board/view'
import { useBoardStore } from '../store/board'

/** The points of the profile in hand, in its plane in space, to be pulled there as on the board. */
const props = defineProps<{
  /** Counts up with every picture: then places are seen elsewhere. */
  pictures: number
  /** Where a place of the part is seen on the pane. */
  project: (at: Place) => Vec | undefined
  /** Where a place of the pane lies in the plane of a frame. */
  placeOn: (frame: Frame, x: number, y: number) => Vec | undefined
}>()
const board = useBoardStore()
const svg = ref<SVGSVGElement>()

/** The half-section's plane: its first direction out from the axis, its second along it. */
const HALF: Frame = { at: place(0, 0, 0), x: place(1, 0, 0), z: place(0, -1, 0) }

interface Dot extends Vec {
  readonly id: string
  readonly isPicked: boolean
  readonly isStill: boolean
}

const dots = computed<readonly Dot[]>(() => {
  void props.pictures
  const { sketch } = board
  if (isEndSketch(sketch)) return []
  // The rims of circles tell a radius, and are no places.
  const rims = new Set(sketch.entities.flatMap((e) => (e.kind === 'circle' ? [e.rim] : [])))
  return sketch.points.flatMap(({ id, x, y }) => {
    const seen = rims.has(id) ? undefined : props.project(place(y, 0, x))
    const isStill = board.sketchState?.solution.pointFreedoms.get(id) === 0
    return seen ? [{ id, ...seen, isPicked: board.picks.includes(id), isStill }] : []
  })
})

/** The pointer as the board would see it at the same place of the profile. */
function onBoard(event: PointerEvent): PointerAt | undefined {
  const box = svg.value?.getBoundingClientRect()
  const { view } = board
  if (!box || !view) return undefined
  const met = props.placeOn(HALF, event.clientX - box.left, event.clientY - box.top)
  // Out from the axis, and along it.
  const px = met && toScreen(view, { x: met.y, y: met.x })
  return px && { px, shift: event.shiftKey, alt: event.altKey, double: false }
}

const emit = defineEmits<{ pulling: [isPulling: boolean] }>()
let pulling = false
function setPulling(on: boolean): void {
  pulling = on
  emit('pulling', on)
}

function press(event: PointerEvent, id: string): void {
  const { view, sketch } = board
  const point = sketch.points.find((p) => p.id === id)
  if (!view || !point || event.button !== 0) return
  if (board.toolId !== 'pick') board.useTool('pick')
  setPulling(true)
  ;(event.target as Element).setPointerCapture(event.pointerId)
  const at = { px: toScreen(view, point), shift: event.shiftKey, alt: event.altKey, double: false }
  board.feed(board.toolState?.move?.(at))
  board.feed(board.toolState?.press?.(at))
}

function move(event: PointerEvent, id: string): void {
  if (!pulling) {
    board.hover = id
    return
  }
  const at = onBoard(event)
  if (at) board.feed(board.toolState?.move?.(at))
}

function release(event: PointerEvent): void {
  if (!pulling) return
  const at = onBoard(event)
  if (at) board.feed(board.toolState?.release?.(at))
  setPulling(false)
}
</script>

<template>
  <svg ref="svg" class="points" aria-label="Points of the profile" role="group">
    <g
      v-for="d in dots"
      :key="d.id"
      :data-point="d.id"
      :class="{ picked: d.isPicked, lit: board.hover === d.id, still: d.isStill }"
      @pointerdown.stop.prevent="press($event, d.id)"
      @pointermove="move($event, d.id)"
      @pointerup="release"
      @pointercancel="release"
      @pointerleave="pulling || (board.hover = undefined)"
    >
      <title>{{ entityName(board.sketch, d.id) }}</title>
      <circle class="reach" :cx="d.x" :cy="d.y" r="9" />
      <circle class="ring" :cx="d.x" :cy="d.y" r="4.5" />
    </g>
  </svg>
</template>

<style scoped>
.points {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}

.points g {
  cursor: grab;
  pointer-events: all;
}

.reach {
  fill: transparent;
}

.lit .reach,
.picked .reach {
  fill: var(--halo);
  opacity: 0.5;
}

.ring {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6;
}

.still .ring {
  fill: var(--ink);
}
</style>
