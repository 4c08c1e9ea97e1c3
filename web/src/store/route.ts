import type { Place, Vec } from '@lathica/core/geometry'
import type { Step } from '@lathica/core/part'
import {
  stepMarks,
  threadsOf,
  type BodyState,
  type PartState,
  type StepMark,
} from '@lathica/core/route'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { SectionRef } from '../board/refs'
import type { Ask } from '../board/tools'
import { usePartStore } from './part'

/** How far the route is run, what of it is shown, and what a step asks to be picked. */
export const useRouteStore = defineStore('route', () => {
  const parts = usePartStore()
  /** The step whose card is open. */
  const stepId = ref<string>()
  /** How many steps are run; all while undefined. */
  const runTo = ref<number>()
  const ask = shallowRef<Ask>()
  const hoverRef = shallowRef<SectionRef>()
  /** A place of the section that a chart points at. */
  const litPlace = shallowRef<Vec>()
  /** The way in space that is measured, and what it comes to. */
  const measured = shallowRef<{
    readonly from: Place
    readonly to: Place
    readonly words: string
  }>()
  /** Keys of what the opened card points at: chosen faces and edges. */
  const marked = shallowRef<readonly string[]>([])
  /** A step just made, whose first field takes the focus. */
  const fresh = ref<string>()
  /** A figure typed while faces are picked, or right after, which goes into the first field of the step's card. */
  const typed = shallowRef<{ readonly text: string }>()
  /** The step for which something was picked last. */
  const picked = ref<string>()
  /** Whether a place of the step in hand is taken hold of just now. */
  const isGripped = ref(false)
  /** The body whose card is open. */
  const bodyId = ref<string>()

  const openStep = computed<Step | undefined>(() =>
    parts.part?.route.find((s) => s.id === stepId.value),
  )
  /** Whether a digit is meant for the step's card: while something is picked for it, and until something else is done. */
  const takesFigure = computed(
    () =>
      openStep.value !== undefined && (ask.value !== undefined || picked.value === stepId.value),
  )

  /** How many steps lie behind what is shown: up to the opened one, or as far as the route is run. */
  const shownCount = computed(() => {
    const all = parts.part?.route.length ?? 0
    const opened = openStep.value ? (parts.part?.route.indexOf(openStep.value) ?? -1) : -1
    return opened >= 0 ? opened + 1 : Math.min(all, runTo.value ?? all)
  })
  /** The step that is looked at: the opened one, or the last that the route is run to. */
  const current = computed<Step | undefined>(() => {
    if (openStep.value) return openStep.value
    return runTo.value === undefined ? undefined : parts.part?.route[runTo.value - 1]
  })
  const currentState = computed(() =>
    parts.followed?.steps.find((s) => s.stepId === current.value?.id && s.status === 'done'),
  )
  /** The sizes of its own that it made, to be shown on board and solid. */
  const marks = computed<readonly StepMark[]>(() =>
    currentState.value ? stepMarks(currentState.value, parts.units) : [],
  )
  /** True while the steps are shown one after another. */
  const playing = ref(false)

  /** Shows the route as far as a step more or less; past the end all of it is run. */
  function runBy(by: number): void {
    const all = parts.part?.route.length ?? 0
    const to = Math.max(1, Math.min(all, shownCount.value + by))
    stepId.value = undefined
    runTo.value = to
    if (to === all && by > 0) playing.value = false
  }

  const bodies = computed(() => standingAfter(parts.state, shownCount.value))
  const visible = computed(() => seen(bodies.value))
  /** The same for panes that may lag behind the drawing. */
  const followed = computed(() => standingAfter(parts.followed, shownCount.value))
  const followedVisible = computed(() => seen(followed.value))

  function seen(all: readonly BodyState[]): readonly BodyState[] {
    const hidden = new Set(parts.bodies.filter((b) => !b.visible).map((b) => b.id))
    return hidden.size === 0 ? all : all.filter((b) => !hidden.has(b.bodyId))
  }

  /** While edges of a solid are picked, the bodies as the step finds them stand on the solid pane. */
  const onSolid = computed(() => {
    const before = ask.value?.rims ? ask.value.bodies() : []
    if (!before.some((b) => b.plan)) return followedVisible.value
    return followedVisible.value.map((b) => before.find((x) => x.bodyId === b.bodyId) ?? b)
  })

  /** The threads of holes in what is seen, told by circles. */
  const threads = computed(() => {
    const shown = new Set(followedVisible.value.map((b) => b.bodyId))
    const all = parts.followed ? threadsOf(parts.followed, shownCount.value) : []
    return all.filter((t) => shown.has(t.body))
  })

  /** The bodies as a step finds them. */
  function before(id: string | undefined): readonly BodyState[] {
    const at = parts.part?.route.findIndex((s) => s.id === id) ?? -1
    return at < 0 ? bodies.value : standingAfter(parts.state, at)
  }

  function stopAsking(): void {
    ask.value = undefined
    hoverRef.value = undefined
    litPlace.value = undefined
  }

  function reset(): void {
    stepId.value = undefined
    runTo.value = undefined
    bodyId.value = undefined
    marked.value = []
    picked.value = undefined
    playing.value = false
    stopAsking()
  }

  return {
    stepId,
    runTo,
    ask,
    hoverRef,
    litPlace,
    measured,
    marked,
    fresh,
    typed,
    picked,
    isGripped,
    bodyId,
    openStep,
    takesFigure,
    current,
    currentState,
    marks,
    playing,
    runBy,
    shownCount,
    bodies,
    visible,
    followed,
    followedVisible,
    onSolid,
    threads,
    before,
    stopAsking,
    reset,
  }
})

function standingAfter(state: PartState | undefined, count: number): readonly BodyState[] {
  if (!state) return []
  if (count >= state.steps.length) return state.bodies
  const last = state.steps[count - 1]
  if (last) return last.bodies
  return state.bodies.map((b) => ({
    bodyId: b.bodyId,
    section: { regions: [] },
    plan: undefined,
    mesh: undefined,
    reference: b.reference,
    solid: undefined,
    mass: 0,
    told: b.told,
  }))
}
