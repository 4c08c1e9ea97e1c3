<script setup lang="ts">
import { leftNormal, vec } from '@lathica/core/geometry'
import type { SectionEdge } from '@lathica/core/section'
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useAskedAreas } from '../board/useAskedAreas'
import { refsCalled, wholeBody, type SectionRef } from '../board/refs'
import { bringIntoPart } from '../files/bringIn'
import { useBoardStore } from '../store/board'
import { useLookStore, type ViewName } from '../store/look'
import { usePartStore } from '../store/part'
import { useNotesStore } from '../store/notes'
import { useRouteStore } from '../store/route'
import { useSolidsStore } from '../store/solids'
import { frontOf } from './cutting'
import { movedByKey } from './movedByKey'
import PictureDialog from './PictureDialog.vue'
import { pictureSaved } from './pictureSaved'
import { refOfHit, rimsCalled } from './refOfHit'
import { usePointing } from './usePointing'
import { usePencilled } from './usePencilled'
import { useSetting } from './useSetting'
import { useShownBodies } from './useShownBodies'
import { createSolidScene, type ShownBody, type SolidScene } from './scene'
import { areaUnder } from './areaUnder'
import BuildingNote from './BuildingNote.vue'
import SolidPoints from './SolidPoints.vue'
import SolidTools from './SolidTools.vue'
import SolidWords from './SolidWords.vue'
import { spreadLabels, type Label } from './spreadLabels'
import { lineOf, middleOf } from './measuredWay'

const parts = usePartStore()
const route = useRouteStore()
const notes = useNotesStore()
const board = useBoardStore()
const look = useLookStore()
const solids = useSolidsStore()
const pane = useTemplateRef<HTMLElement>('pane')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(pane)
const noWebGl = ref(false)
const lost = ref(false)
const asksPicture = ref(false)
const saving = ref(false)
let scene: SolidScene | undefined
/** The first solid of a part brings all of it into view, until one has turned it oneself. */
let fitsAnew = true
/** The standard view to begin with: the one asked for, be it before the pane was there. */
const viewOf = (asked: typeof look.viewAsked): ViewName =>
  asked && asked.view !== 'square' ? asked.view : 'threeQuarter'

const bodies = useShownBodies()
const pencil = usePencilled()
/** What stands in the pane: the bodies, and what is drawn and not made yet. */
const shown = computed(() =>
  look.alone === undefined && pencil.bodies.value.length > 0
    ? [
        ...bodies.value.map((b) => (pencil.isInside.value ? { ...b, glassy: true } : b)),
        ...pencil.bodies.value,
      ]
    : bodies.value,
)
const isEmpty = (all: readonly ShownBody[] | undefined): boolean =>
  all?.every((b) => b.section.regions.length === 0) ?? true

const setting = useSetting(bodies)

onMounted(() => {
  if (!canvas.value) return
  try {
    scene = createSolidScene(canvas.value, {
      onLost: (isLost) => (lost.value = isLost),
      onAsked: () => tellStill(false),
      onPicture,
    })
  } catch {
    noWebGl.value = true
    return
  }
  watch(
    () => parts.lie,
    (lie) => scene?.setLie(lie),
    { immediate: true },
  )
  watch(setting, (now) => scene?.set(now), { immediate: true })
  watch(
    () => route.threads,
    (threads) => scene?.setThreads(threads),
    { immediate: true },
  )
  watch(
    [width, height],
    ([w, h], [w0]) => {
      if (w < 10 || h < 10) return
      scene?.resize(w, h)
      if (!w0 || w0 < 10) scene?.fit(viewOf(look.viewAsked), false)
    },
    { immediate: true },
  )
  watch(
    () => parts.id,
    () => (fitsAnew = true),
  )
  watch(
    [shown, () => parts.preview !== undefined],
    ([now, changing], earlier) => {
      const before = earlier[0]
      scene?.show(now, changing || board.toolState?.overlay?.turned !== undefined)
      // What the kernel builds may reach further than a full turn.
      const isBuilt = now.some((b) => b.mesh && !before?.find((o) => o.id === b.id)?.mesh)
      const isNew = (isEmpty(before) && !isEmpty(now)) || (isBuilt && fitsAnew)
      if (isNew) scene?.fit(viewOf(look.viewAsked), false)
      // While there is nothing but what is drawn, it stays in view as it grows.
      else if (isEmpty(bodies.value) && !isEmpty(now) && !pulling.value) scene?.hold()
      if (now.some((b) => b.mesh)) fitsAnew = false
    },
    { immediate: true },
  )
  watch(
    () => board.fitAsked,
    () => scene?.fit('threeQuarter', true),
    { flush: 'post' },
  )
  watch(
    () => look.viewAsked,
    (asked) => {
      if (!asked) return
      if (asked.view === 'square') {
        fitsAnew = false
        lookSquare()
      } else scene?.fit(asked.view, true)
    },
    { flush: 'post' },
  )
  watch(
    () => look.spinning,
    (on) => scene?.spin(on),
  )
})

/** The place the pointer was over last, which a look square on goes by. */
let under: { readonly edge: SectionEdge; readonly angle: number } | undefined

function lookSquare(): void {
  // What is picked is looked at from the front; what is pointed at, where it is pointed at.
  const [picked] = route.ask ? refsCalled(route.followedVisible, route.ask.chosen()) : []
  const edge = under?.edge ?? picked?.edge
  if (!edge) return
  const inwards = leftNormal(edge.piece, 0.5)
  scene?.square(under?.angle ?? frontOf(parts.lie), { x: -inwards.x, y: -inwards.y })
}

function hitUnder(event: MouseEvent): ReturnType<SolidScene['hitAt']> {
  const box = canvas.value?.getBoundingClientRect()
  return box && scene?.hitAt(event.clientX - box.left, event.clientY - box.top)
}

/** What a step or a measure asks for is picked here as well. */
function refUnder(event: PointerEvent, single = event.shiftKey): SectionRef | undefined {
  if (route.ask?.accept === 'region') return areaUnder(scene, canvas.value, route.ask, event)
  const hit = hitUnder(event)
  const found = hit && refOfHit(hit, route.ask, route.followedVisible, single)
  under = hit && found?.edge ? { edge: found.edge, angle: hit.angle } : undefined
  return found
}

const pointing = usePointing(canvas, width, refUnder, () => (under = undefined))
const { words, wordsStyle } = pointing
let pressedAt: { readonly x: number; readonly y: number } | undefined
useEventListener(canvas, 'wheel', () => (fitsAnew = false), { passive: true })
useEventListener(canvas, 'pointerdown', (event: PointerEvent) => {
  fitsAnew = false
  pressedAt = { x: event.clientX, y: event.clientY }
})
// A press that does not move is a pick; one that moves turns the part.
useEventListener(canvas, 'pointerup', (event: PointerEvent) => {
  const still =
    pressedAt && Math.hypot(event.clientX - pressedAt.x, event.clientY - pressedAt.y) < 4
  const picks = route.ask && still === true && event.button === 0
  const ref = picks === true ? refUnder(event) : undefined
  if (!ref) return
  route.ask?.take(ref, event.shiftKey)
  if (!route.ask && board.toolId === 'asking') board.useTool('pick')
})

// A second press on the same place takes the body as a whole.
useEventListener(canvas, 'dblclick', (event: MouseEvent) => {
  const hit = route.ask?.wholes && hitUnder(event)
  const body = hit && route.ask?.bodies().find((b) => b.bodyId === hit.body)
  if (body) route.ask?.take(wholeBody(body), event.shiftKey)
})

function onKey(event: KeyboardEvent): void {
  if (!scene || !movedByKey(scene, event)) return
  fitsAnew = false
  event.preventDefault()
  event.stopPropagation()
}

/** Lit: what lies under the pointer, what was picked, and the place a chart points at. */
const lit = computed(() => {
  const keys = [...(route.ask?.chosen() ?? []), ...notes.inHand.map((m) => m.on)]
  const chosen = [...ringsOf(keys), ...rimsCalled(bodies.value, keys)]
  const place = route.litPlace ? [{ place: route.litPlace }] : []
  const way = route.measured ? [{ rim: lineOf(route.measured) }] : []
  return [...(route.hoverRef ? [route.hoverRef] : []), ...chosen, ...place, ...way, ...route.marks]
})
watch(lit, (items) => scene?.light(items), { flush: 'post' })

/** So many faces of a solid are lit by rings; of more, as of a whole body, its edges are enough. */
const MOST_RINGED = 6
function ringsOf(keys: readonly string[]): readonly SectionRef[] {
  const refs = refsCalled(route.followedVisible, keys)
  const isCrowded = (id: string): boolean => refs.filter((r) => r.body === id).length > MOST_RINGED
  const crowded = bodies.value.filter(({ id, mesh }) => mesh && isCrowded(id)).map((b) => b.id)
  return refs.filter((r) => !crowded.includes(r.body))
}

const areas = useAskedAreas()
watch(areas, (shown) => scene?.setAreas(shown, route.ask?.areas?.().frame), { flush: 'post' })

async function savePicture(wide: number, high: number, background: boolean): Promise<void> {
  if (!scene) return
  saving.value = true
  const spec = { wide, high, background: background ? setting.value.tones.paper : undefined }
  asksPicture.value = !(await pictureSaved(scene, spec, parts.name))
  saving.value = false
}

/** The sizes of the step that is looked at, beside its faces as they are seen. */
const labels = ref<readonly Label[]>([])
/** While a point is pulled in the pane, what is under the pointer stays there. */
const pulling = ref(false)
/** How many pictures there were, while points are seen in them. */
const pictures = ref(0)
/** From where one looks, whether that is at rest, and how much there is to see: what a test and the bench go by. */
function onPicture(isStill: boolean): void {
  placeLabels()
  // Another face may lie under a pointer that rests.
  if (isStill && !pulling.value) pointing.again()
  tellStill(isStill)
  if (look.points) pictures.value++
  const { azimuth, polar } = scene?.eye() ?? { azimuth: 0, polar: 0 }
  pane.value?.setAttribute('data-eye', `${azimuth.toFixed(4)} ${polar.toFixed(4)}`)
  pane.value?.setAttribute('data-triangles', String(scene?.triangles() ?? 0))
}
const tellStill = (isStill: boolean): void =>
  pane.value?.setAttribute('data-still', String(isStill))
/** The sizes of the step in hand, or what the note in hand says of its face. */
const told = computed(() => {
  const { measured } = route
  const way = measured
    ? [{ words: measured.words, at: vec(0, 0), inSpace: middleOf(measured) }]
    : []
  return [...way, ...route.marks, ...notes.inHand]
})
function placeLabels(): void {
  const marks = told.value
  if (!scene || (marks.length === 0 && labels.value.length === 0)) return
  labels.value = spreadLabels(marks, scene.project, width.value)
}
watch(told, placeLabels, { flush: 'post' })

async function drop(event: DragEvent): Promise<void> {
  for (const file of event.dataTransfer?.files ?? []) await bringIntoPart(file)
}

onBeforeUnmount(() => scene?.dispose())
</script>

<template>
  <section
    ref="pane"
    class="solid"
    aria-label="Solid"
    :data-asking="route.ask !== undefined"
    :data-display="look.display"
    :data-cut="look.cut ?? 'none'"
    @dragover.prevent
    @drop.prevent="drop"
  >
    <canvas
      ref="canvas"
      role="img"
      tabindex="0"
      aria-label="the part in space; arrow keys turn it, plus and minus zoom"
      @keydown="onKey"
    />
    <SolidTools v-if="!noWebGl" @picture="asksPicture = true" />

    <SolidPoints
      v-if="look.points && !look.spinning && !noWebGl"
      :pictures="pictures"
      :project="(at) => scene?.project(at)"
      :place-on="(frame, x, y) => scene?.placeOn(frame, x, y)"
      @pulling="pulling = $event"
    />
    <SolidWords :labels="labels" :pointed="words" :style-of-pointed="wordsStyle" />
    <p v-if="noWebGl" class="note">
      This browser shows no 3D pictures. Board, figures and files work all the same.
    </p>
    <p v-else-if="lost" class="note" role="status">
      The graphics were lost for a moment. The picture comes back by itself; nothing else is
      touched.
    </p>
    <BuildingNote v-else-if="solids.slow || solids.isStopped" />
    <p v-else-if="pencil.words.value" class="pencilled" role="status">
      {{ pencil.words.value }}
      <span v-if="pencil.isClosed.value" class="keys">
        <kbd>4</kbd> <kbd>R</kbd> makes it<template v-if="pencil.isInside.value"
          >, <kbd>4</kbd> <kbd>E</kbd> cuts it</template
        >
      </span>
    </p>
    <p v-else-if="isEmpty(shown)" class="note">
      The part appears here once a closed profile is revolved:
      <span class="keys"><kbd>4</kbd> <kbd>R</kbd></span>
    </p>
    <PictureDialog
      v-if="asksPicture"
      :width="width"
      :height="height"
      :busy="saving"
      @save="savePicture"
      @close="asksPicture = false"
    />
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

canvas:focus-visible {
  outline-offset: -2px;
}

.solid[data-asking='true'] canvas {
  cursor: crosshair;
}

.keys {
  white-space: nowrap;
}

.pencilled {
  position: absolute;
  left: 12px;
  bottom: 10px;
  margin: 0;
  color: var(--ink-soft);
  font-size: 12px;
  pointer-events: none;
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
