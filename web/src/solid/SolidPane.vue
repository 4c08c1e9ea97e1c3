<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, inject, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { THEME } from '../style/themeKey'
import { createSolidScene, type ShownBody, type SolidScene } from './scene'

const parts = usePartStore()
const board = useBoardStore()
const theme = inject(THEME, ref('light'))
const pane = useTemplateRef<HTMLElement>('pane')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(pane)
const noWebGl = ref(false)
let scene: SolidScene | undefined

const bodies = computed<ShownBody[]>(() => {
  const { bodies: named, materials, followed } = parts
  return (followed?.bodies ?? []).map((b) => {
    const body = named.find((x) => x.id === b.bodyId)
    const material = materials.find((m) => m.id === body?.material)
    return { id: b.bodyId, section: b.section, colour: material?.colour ?? '#8d979d' }
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
onBeforeUnmount(() => scene?.dispose())
</script>

<template>
  <section ref="pane" class="solid" aria-label="Solid">
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
