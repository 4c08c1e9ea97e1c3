<script setup lang="ts">
import type { Vec } from '@lathica/core/geometry'
import type { KnownStep } from '@lathica/core/part'
import { stepRules, type StepGrip } from '@lathica/core/route'
import { useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch, watchEffect } from 'vue'
import { tellProblem } from '../notices'
import { useStepEdit } from '../route/steps/useStepEdit'
import { usePartStore } from '../store/part'
import { sameDocument } from '../store/sameDocument'
import { useRouteStore } from '../store/route'
import type { Px } from '../board/view'

/** Places of the step in hand by which it is moved: with the pointer, or with arrow keys. */
const { step, grips, onPage, inPart } = defineProps<{
  step: KnownStep
  grips: readonly StepGrip[]
  /** From the part to the page, from the axis on, and back. */
  onPage: (at: Vec) => Px
  inPart: (at: Px) => Vec
}>()

const emit = defineEmits<{
  /** What is to be said of the one that is dragged; none when it is let go. */
  told: [words: string, isRefused: boolean]
}>()
const parts = usePartStore()
const route = useRouteStore()
const edit = useStepEdit(step.id)

interface Drag {
  readonly step: KnownStep
  readonly grip: StepGrip
  /** From the middle of the grip to where it was taken hold of. */
  readonly off: Px
  /** What was shown last, and could be made. */
  readonly good?: KnownStep
  readonly refusal?: string
}
const drag = shallowRef<Drag>()
watch(drag, (now) => (route.isGripped = now !== undefined), { flush: 'sync' })
onBeforeUnmount(() => (drag.value = undefined))

function moved(from: KnownStep, grip: StepGrip, to: Vec, straight: boolean): KnownStep | undefined {
  return stepRules(from).moved?.(from, grip, { to, straight, units: parts.units })
}

const HELD = 'Its place is told by names of values.'

function onDown(event: PointerEvent, grip: StepGrip): void {
  if (event.button !== 0) return
  event.preventDefault()
  const target = event.currentTarget as SVGElement
  target.setPointerCapture(event.pointerId)
  target.focus()
  const [at, pointer] = [onPage(grip.at), pointerIn(event)]
  drag.value = { step, grip, off: { x: pointer.x - at.x, y: pointer.y - at.y } }
}

function onMove(event: PointerEvent): void {
  const now = drag.value
  if (!now) return
  const { x, y } = pointerIn(event)
  const to = inPart({ x: x - now.off.x, y: y - now.off.y })
  const next = moved(now.step, now.grip, to, event.shiftKey)
  if (!next) {
    drag.value = { ...now, refusal: HELD }
    return
  }
  edit.preview(next)
  if (edit.state.value?.status !== 'failed') {
    drag.value = { step: now.step, grip: now.grip, off: now.off, good: next }
    return
  }
  // The last place that it can have is still shown.
  drag.value = { ...now, refusal: edit.state.value.problem?.message ?? '' }
  if (now.good) edit.preview(now.good)
  else edit.stopPreview()
}

function onUp(): void {
  const done = drag.value
  drag.value = undefined
  if (done?.good) take(done.good)
  else edit.stopPreview()
}

function cancel(): void {
  drag.value = undefined
  edit.stopPreview()
}

function take(next: KnownStep): void {
  // As it was taken last: what is dragged just now is no change of that yet.
  const before = parts.history?.part.route.find((s) => s.id === step.id)
  const refused = sameDocument(next, before) ? undefined : edit.take(next)
  edit.stopPreview()
  if (refused) tellProblem(refused)
}

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || !drag.value) return
    event.stopPropagation()
    cancel()
  },
  { capture: true },
)

/** A press of an arrow key: what comes to half a millimetre of a diameter or a depth, or a degree. */
const BY = { far: 0.3, turn: Math.PI / 180 }
const KEYS: Readonly<Record<string, { readonly far?: number; readonly turn?: number }>> = {
  ArrowUp: { far: 1 },
  ArrowDown: { far: -1 },
  ArrowLeft: { turn: 1 },
  ArrowRight: { turn: -1 },
}

function onKey(event: KeyboardEvent, grip: StepGrip): void {
  const way = KEYS[event.key]
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  const far = Math.hypot(grip.at.x, grip.at.y) + BY.far * (way.far ?? 0) * unitBy.value
  const angle = Math.atan2(grip.at.y, grip.at.x) + BY.turn * (way.turn ?? 0)
  const next = moved(step, grip, { x: far * Math.cos(angle), y: far * Math.sin(angle) }, true)
  if (next) take(next)
  else tellProblem({ message: HELD, mend: 'Change them in the table of values.' })
}
/** In inches the steps are other ones. */
const unitBy = computed(() => (parts.units.length === 'in' ? 1.016 : 1))

const svg = ref<SVGGElement>()
function pointerIn(event: PointerEvent): Px {
  const box = svg.value?.ownerSVGElement?.getBoundingClientRect()
  const origin = svg.value?.getCTM()
  return {
    x: event.clientX - (box?.left ?? 0) - (origin?.e ?? 0),
    y: event.clientY - (box?.top ?? 0) - (origin?.f ?? 0),
  }
}

const shown = computed(() => grips.map((grip) => ({ grip, at: onPage(grip.at) })))
/** The circle they are on, if it is one. */
const circle = computed(() => {
  const radii = grips.map(({ at }) => Math.hypot(at.x, at.y))
  const [first = 0] = radii
  if (step.kind !== 'holes' || radii.length < 2 || radii.some((r) => Math.abs(r - first) > 1e-6))
    return undefined
  const { x, y } = onPage({ x: first, y: 0 })
  return Math.hypot(x, y)
})
watchEffect(() => {
  const held = drag.value
  const own = held && shown.value.find(({ grip }) => grip.number === held.grip.number)
  emit('told', held?.refusal ?? own?.grip.words ?? '', held?.refusal !== undefined)
})
</script>

<template>
  <g ref="svg" class="grips">
    <circle v-if="circle" class="pitch" :r="circle" />
    <circle
      v-for="{ grip, at } in shown"
      :key="grip.number"
      class="grip"
      :class="{ held: drag?.grip.number === grip.number }"
      :cx="at.x"
      :cy="at.y"
      r="5.5"
      tabindex="0"
      role="button"
      :aria-label="`${grip.name}, ${grip.words}: drag it, or move it with arrow keys`"
      :data-grip="grip.number"
      @pointerdown="onDown($event, grip)"
      @pointermove="onMove"
      @pointerup="onUp"
      @pointercancel="cancel"
      @keydown="onKey($event, grip)"
    >
      <title>{{ grip.words }}; drag it, Shift keeps it on its circle or its ray</title>
    </circle>
  </g>
</template>

<style scoped>
.pitch {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1;
  stroke-dasharray: 16 3 3 3;
  pointer-events: none;
}

.grip {
  fill: var(--paper);
  stroke: var(--accent);
  stroke-width: 1.8;
  cursor: grab;
  touch-action: none;
}

.grip:hover,
.grip:focus-visible,
.grip.held {
  fill: var(--accent);
  outline: none;
}

.grip.held {
  cursor: grabbing;
}
</style>
