import { emptySketch, isEndSketch, type Sketch } from '@lathica/core/sketch'
import { usesSketch, type Step } from '@lathica/core/part'
import { endMarksBefore, standingBefore } from '@lathica/core/route'
import type { SizeOffer } from '@lathica/core/edit'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { tellProblem } from '../notices'
import {
  beginTool,
  type Ask,
  type Board,
  type FieldTarget,
  type Overlay,
  type ToolId,
  type ToolState,
} from '../board/tools'
import { USUAL, type Suggesting } from '../board/snapping'
import type { SectionRef } from '../board/refs'
import type { View } from '../board/view'
import { usePartStore } from './part'
import { useRouteStore } from './route'

const NO_SKETCH = emptySketch('none', '')

/** What is in hand on the modelling screen: the profile, the tool, the picks, the view. */
export const useBoardStore = defineStore('board', () => {
  const parts = usePartStore()
  const sketchId = ref('')
  const route = useRouteStore()
  const stepId = computed<string | undefined>({
    get: () => route.stepId,
    set: (id) => (route.stepId = id),
  })
  const toolId = ref<ToolId>('pick')
  const toolState = shallowRef<ToolState>()
  const picks = shallowRef<readonly string[]>([])
  const hover = ref<string>()
  const field = shallowRef<FieldTarget>()
  /** Who stands against what was just refused; lit on the drawing while the refusal is read. */
  const accused = shallowRef<readonly string[]>([])
  const view = shallowRef<View>()
  /** How large the board's pane is, in pixels. */
  const pane = shallowRef<{ readonly width: number; readonly height: number }>({
    width: 0,
    height: 0,
  })
  /** Counts up when the view should be fitted to the part again. */
  const fitAsked = ref(0)
  const showMarks = ref(true)
  const suggestionsOpen = ref(false)
  /** What is suggested while one draws. */
  const suggesting = shallowRef<Suggesting>(USUAL)
  /** Constraints just taken with what was drawn; shown for a moment. */
  const taken = shallowRef<readonly string[]>([])
  /** A size that the card proposes, while it is pointed at there. */
  const proposed = shallowRef<SizeOffer>()
  /** A size clicked while a value field is open: to link to, or to take its value once. */
  const linked = shallowRef<{ readonly id: string; readonly once: boolean }>()
  /** What was typed first, while the fields of the tool's entry stand open. */
  const typing = ref<string>()
  /** What the typed values would draw. */
  const typedOverlay = shallowRef<Overlay>()
  /** What a card shows of what is typed in it, whatever the pointer does meanwhile. */
  const cardOverlay = shallowRef<Overlay>()
  /** The pane that fills the place of all, and the one the pointer was over last. */
  const largest = ref<'board' | 'solid' | 'none'>('none')
  const pointed = ref<'board' | 'solid'>('board')

  const sketch = computed<Sketch>(() => {
    const all = parts.part?.sketches ?? []
    return all.find((s) => s.id === sketchId.value) ?? all[0] ?? NO_SKETCH
  })
  const sketchState = computed(() => parts.state?.sketches.get(sketch.value.id))
  /** Nothing is drawn yet, not even a point. */
  const isBlank = computed(() => sketch.value.entities.length + sketch.value.points.length === 0)
  /** The board shows the part from its end while an end sketch is in hand; faces are picked on the half-section. */
  const looksAtEnd = computed(
    () =>
      isEndSketch(sketch.value) && (toolId.value !== 'asking' || route.ask?.accept === 'region'),
  )
  /** The face each new end sketch was begun on, for the steps that are made from it. */
  const endFaces = new Map<string, SectionRef>()

  const board: Board = {
    part: () => {
      if (!parts.part) throw new Error('no part is open')
      return parts.part
    },
    sketch: () => sketch.value,
    view: () => {
      if (!view.value) throw new Error('the board has no size yet')
      return view.value
    },
    standing: () => {
      const { part, state } = parts
      if (!part || !state || isEndSketch(sketch.value)) return []
      return standingBefore(part, state, sketch.value.id)
        .filter((b) => !b.reference)
        .map((b) => b.section)
    },
    endMarks: () => {
      const { part, state } = parts
      const across = part && state && isEndSketch(sketch.value)
      return across ? endMarksBefore(part, state, sketch.value) : []
    },
    picks: () => picks.value,
    setPicks: (ids) => (picks.value = ids),
    setHover: (id) => (hover.value = id),
    suggesting: () => suggesting.value,
    run: (command) => noting(() => parts.run(command)),
    attempt: (command) =>
      noting(() => {
        const result = parts.attempt(command)
        return result.ok ? undefined : result.problem
      }),
    show: (part) => (parts.preview = part),
    take: (label, part) => parts.take(label, part),
    openField: (target) => (field.value = target),
    tell: (message, mend) => tellProblem({ message, mend }),
    asking: () => route.ask,
    setHoverRef: (ref) => (route.hoverRef = ref),
    finish: () => {
      useTool('pick')
      return toolState.value ?? { hint: '' }
    },
  }

  /** Notes which constraints an edit by the tool in hand took, so that they can be dropped again. */
  function noting<T>(edit: () => T): T {
    const before = new Set(sketch.value.constraints.map((c) => c.id))
    const result = edit()
    const added = sketch.value.constraints.filter((c) => !before.has(c.id)).map((c) => c.id)
    taken.value = toolId.value.startsWith('tie:') ? [] : added
    return result
  }

  function useTool(id: ToolId): void {
    if (id !== toolId.value) hover.value = undefined
    if (id !== 'asking') route.stopAsking()
    if (id !== 'asking' && id !== 'pick') route.picked = undefined
    field.value = undefined
    closeEntry()
    const state = parts.part && view.value ? beginTool(board, id) : undefined
    if (state) {
      toolId.value = id
      toolState.value = undefined
      feed(state)
      if (id !== 'pick' && id !== 'asking') stepId.value = undefined
    } else if (id !== 'pick') useTool('pick')
  }

  function feed(next: ToolState | undefined): void {
    if (next) toolState.value = next
    if (!toolState.value?.entry) closeEntry()
    else if (toolState.value.entry.open === true) typing.value ??= ''
  }

  function closeEntry(): void {
    typing.value = undefined
    typedOverlay.value = undefined
  }

  /** Steps back one level: the field, the tool's state, the tool, the picks. */
  function escape(): void {
    if (field.value) {
      field.value = undefined
      return
    }
    if (typing.value !== undefined) {
      closeEntry()
      if (!toolState.value?.entry?.open) return
    }
    const next = toolState.value?.escape?.()
    if (next) feed(next)
    else if (toolId.value !== 'pick') useTool('pick')
    else stepId.value = undefined
  }

  /** Nothing is in hand or open that Esc would let go of but the picks. */
  const isAtRest = computed(
    () =>
      !field.value &&
      typing.value === undefined &&
      toolId.value === 'pick' &&
      stepId.value === undefined &&
      !parts.preview,
  )

  /** Lets a step ask for faces, edges or regions. */
  function startAsking(ask: Ask): void {
    route.ask = {
      ...ask,
      take: (ref, adding) => {
        ask.take(ref, adding)
        route.picked = stepId.value
      },
    }
    useTool('asking')
  }

  /** Takes the sketch of a step in hand; a step without one is seen on the half-section. */
  function lookAt(step: Step): void {
    if (usesSketch(step)) sketchId.value = step.sketch
    else if (isEndSketch(sketch.value)) backToHalf()
  }

  /** From an end sketch to the part's first half-section. */
  function backToHalf(): void {
    sketchId.value = parts.part?.sketches.find((s) => s.plane === 'half')?.id ?? ''
    picks.value = []
    useTool('pick')
  }

  /** Starts anew with a part that was opened. */
  function reset(): void {
    sketchId.value = ''
    picks.value = []
    hover.value = undefined
    field.value = undefined
    toolState.value = undefined
    toolId.value = 'pick'
    view.value = undefined
    endFaces.clear()
    route.reset()
  }

  watch(field, () => (accused.value = []), { flush: 'sync' })

  // What is picked or edited can vanish by undo or by another page; the tool may stand on it too.
  watch(
    () => parts.history?.part,
    (part) => {
      if (!part) return
      const known = new Set([
        'axis',
        'origin',
        ...[
          sketch.value.points,
          sketch.value.entities,
          sketch.value.constraints,
          sketch.value.sizes,
        ]
          .flat()
          .map((x) => x.id),
      ])
      picks.value = picks.value.filter((id) => known.has(id))
      if (hover.value !== undefined && !known.has(hover.value)) hover.value = undefined
      if (field.value?.kind === 'size' && !known.has(field.value.id)) field.value = undefined
      if (!part.route.some((s) => s.id === stepId.value)) stepId.value = undefined
      feed(toolState.value?.refresh?.())
    },
    { flush: 'sync' },
  )

  const freedoms = computed(() => sketchState.value?.solution.freedoms ?? 0)
  // What is there to go by stands on the solid pane alone.
  const sections = computed(() => route.visible.filter((b) => !b.reference).map((b) => b.section))

  return {
    sketchId,
    stepId,
    toolId,
    toolState,
    picks,
    hover,
    field,
    accused,
    view,
    pane,
    fitAsked,
    showMarks,
    suggestionsOpen,
    suggesting,
    taken,
    typing,
    typedOverlay,
    cardOverlay,
    proposed,
    linked,
    closeEntry,
    largest,
    pointed,
    sketch,
    sketchState,
    isBlank,
    looksAtEnd,
    endFaces,
    freedoms,
    sections,
    openField: board.openField,
    useTool,
    startAsking,
    feed,
    lookAt,
    backToHalf,
    escape,
    isAtRest,
    reset,
    fit: () => fitAsked.value++,
  }
})
