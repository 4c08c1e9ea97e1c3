<script setup lang="ts">
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, inject, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { refAt, type SectionRef } from '../board/refs'
import { REF_REACH } from '../board/tools'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import { THEME } from '../style/themeKey'
import { createSolidScene, type ShownBody, type SolidScene } from './scene'

const parts = usePartStore()
const route = useRouteStore()
const board = useBoardStore()
const theme = inject(THEME, ref('light'))
const pane = useTemplateRef<HTMLElement>('pane')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(pane)
const noWebGl = ref(false)
let scene: SolidScene | undefined

const bodies = computed<ShownBody[]>(() => {
  const { bodies: named, materials } = parts
  return route.followedVisible.map((b) => {
    const body = named.find((x) => x.id === b.bodyId)
    const material = materials.find((m) => m.id === body?.material)
    return {
      id: b.bodyId,
      section: b.section,
      colour: body?.colour || (material?.colour ?? '#8d979d'),
    }
  })
})
const empty = computed(() => bodies.value.every((b) => b.section.regions.length === 0))

onMounted(() => {
  if (!canvas.value) return
  try {
    scene = createSolidScene(canvas.value)
  } catch {
    noWebGl.value = true
    return
  }
  watch(
    () => parts.lie,
    (lie) => scene?.setLie(lie),
    { immediate: true },
  )
  watch(
    theme,
    (name) => scene?.setTones(name === 'dark' ? '#0e1214' : '#1e2a32', name === 'dark'),
    { immediate: true },
  )
  watch(
    [width, height],
    ([w, h], [w0]) => {
      if (w < 10 || h < 10) return
      scene?.resize(w, h)
      if (!w0 || w0 < 10) scene?.fit(false)
    },
    { immediate: true },
  )
  watch(
    bodies,
    (shown, before) => {
      scene?.show(shown, parts.preview !== undefined)
      const wasEmpty = before?.every((b) => b.section.regions.length === 0) ?? true
      if (wasEmpty && !empty.value) scene?.fit(false)
    },
    { immediate: true },
  )
  watch(
    () => board.fitAsked,
    () => scene?.fit(true),
    { flush: 'post' },
  )
})
/** What a step asks for is picked here as well: the place on the surface is a place of the section. */
function refUnder(event: PointerEvent): SectionRef | undefined {
  const { ask } = route
  if (ask?.accept === 'region' || !canvas.value) return undefined
  const box = canvas.value.getBoundingClientRect()
  const hit = scene?.placeAt(event.clientX - box.left, event.clientY - box.top)
  const among = ask?.bodies() ?? route.followedVisible
  return hit && refAt(among, hit.at, REF_REACH * hit.perPixel, ask?.accept ?? 'face')
}

useEventListener(canvas, 'pointermove', (event: PointerEvent) => {
  if (event.buttons !== 0) return
  const ref = refUnder(event)
  const same = ref?.key === route.hoverRef?.key && ref?.body === route.hoverRef?.body
  if (!same) route.hoverRef = ref
})
useEventListener(canvas, 'pointerleave', () => (route.hoverRef = undefined))
let pressedAt: { readonly x: number; readonly y: number } | undefined
useEventListener(canvas, 'pointerdown', (event: PointerEvent) => {
  pressedAt = { x: event.clientX, y: event.clientY }
})
// A press that does not move is a pick; one that moves turns the part.
useEventListener(canvas, 'pointerup', (event: PointerEvent) => {
  const still =
    pressedAt && Math.hypot(event.clientX - pressedAt.x, event.clientY - pressedAt.y) < 4
  const picks = route.ask && still === true && event.button === 0
  const ref = picks === true ? refUnder(event) : undefined
  if (!ref) return
  route.ask?.take(ref)
  if (!route.ask && board.toolId === 'asking') board.useTool('pick')
})
watch(
  () => route.hoverRef,
  (ref) => scene?.light(ref),
  { flush: 'post' },
)
onBeforeUnmount(() => scene?.dispose())
</script>

<template>
  <section ref="pane" class="solid" aria-label="Solid" :data-asking="route.ask !== undefined">
    <canvas ref="canvas" role="img" aria-label="the part, shaded" />
    <p v-if="noWebGl" class="note">
      This browser shows no 3D pictures. Board, figures and files work all the same.
    </p>
    <p v-else-if="empty" class="note">
      The part appears here once a closed profile is revolved:
      <span class="keys"><kbd>4</kbd> <kbd>R</kbd></span>
    </p>
  </section>
</template>

<style scoped>
.solid {
  position: relative;
  overflow: hidden;
  min-width: 0;
  min-height: 0;
  background: var(--paper-deep);
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
}

.solid[data-asking='true'] canvas {
  cursor: crosshair;
}

.keys {
  white-space: nowrap;
}

.note {
  position: absolute;
  left: 50%;
  top: 50%;
  transform: translate(-50%, -50%);
  color: var(--ink-soft);
  text-align: center;
  max-width: 90%;
  pointer-events: none;
}
</style>
