<script setup lang="ts">
import { ref } from 'vue'

const props = defineProps<{
  /** True when it stands upright between panes side by side. */
  upright: boolean
  /** The width or height that is shared out, in pixels. */
  extent: number
  /** Where it stands, as a share of the extent. */
  at: number
  label: string
}>()
const share = defineModel<number>({ required: true })
const dragging = ref(false)
let grabbedAt = 0
let grabbedShare = 0

function along(event: PointerEvent): number {
  return props.upright ? event.clientX : event.clientY
}

function grab(event: PointerEvent): void {
  dragging.value = true
  grabbedAt = along(event)
  grabbedShare = share.value
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}

function drag(event: PointerEvent): void {
  if (dragging.value) share.value = grabbedShare + (along(event) - grabbedAt) / props.extent
}

function nudge(by: number): void {
  share.value += by
}
</script>

<template>
  <div
    class="divider"
    :class="{ upright, dragging }"
    :style="upright ? { left: `${at * 100}%` } : { top: `${at * 100}%` }"
    role="separator"
    tabindex="0"
    :aria-label="label"
    :aria-orientation="upright ? 'vertical' : 'horizontal'"
    :aria-valuenow="Math.round(share * 100)"
    @pointerdown="grab"
    @pointermove="drag"
    @pointerup="dragging = false"
    @keydown.up.prevent="nudge(-0.02)"
    @keydown.left.prevent="nudge(-0.02)"
    @keydown.down.prevent="nudge(0.02)"
    @keydown.right.prevent="nudge(0.02)"
  />
</template>

<style scoped>
.divider {
  position: absolute;
  z-index: 2;
  left: 0;
  right: 0;
  height: 9px;
  margin-top: -5px;
  cursor: row-resize;
  touch-action: none;
}

.divider.upright {
  top: 0;
  bottom: 0;
  right: auto;
  width: 9px;
  height: auto;
  margin: 0 0 0 -5px;
  cursor: col-resize;
}

.divider:hover::after,
.divider.dragging::after,
.divider:focus-visible::after {
  content: '';
  position: absolute;
  inset: 3px 0;
  background: var(--halo);
}

.divider.upright::after {
  inset: 0 3px;
}
</style>
