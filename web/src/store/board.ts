import { emptySketch, evaluate, type Sketch } from '@lathica/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { tellProblem } from '../notices'
import {
  beginTool,
  type Board,
  type FieldTarget,
  type ToolId,
  type ToolState,
} from '../board/tools'
import type { View } from '../board/view'
import { usePartStore } from './part'

const NO_SKETCH = emptySketch('none', '')

/** What is in hand on the modelling screen: the profile, the tool, the picks, the view. */
export const useBoardStore = defineStore('board', () => {
  const parts = usePartStore()
  const sketchId = ref('')
  const stepId = ref<string>()
  const toolId = ref<ToolId>('pick')
  const toolState = shallowRef<ToolState>()
  const picks = shallowRef<readonly string[]>([])
  const hover = ref<string>()
  const field = shallowRef<FieldTarget>()
  /** Who stands against what was just refused; lit on the drawing while the refusal is read. */
  const accused = shallowRef<readonly string[]>([])
  const view = shallowRef<View>()
  /** Counts up when the view should be fitted to the part again. */
  const fitAsked = ref(0)
  const showMarks = ref(true)
  /** The pane that fills the place of all, and the one the pointer was over last. */
  const largest = ref<'board' | 'solid' | 'none'>('none')
  const pointed = ref<'board' | 'solid'>('board')

  const sketch = computed<Sketch>(() => {
    const all = parts.part?.sketches ?? []
    return all.find((s) => s.id === sketchId.value) ?? all[0] ?? NO_SKETCH
  })
  const sketchState = computed(() => parts.state?.sketches.get(sketch.value.id))

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
    picks: () => picks.value,
    setPicks: (ids) => (picks.value = ids),
    setHover: (id) => (hover.value = id),
    run: (command) => parts.run(command),
    show: (part) => (parts.preview = part),
    take: (label, part) => parts.take(label, part),
    openField: (target) => (field.value = target),
    tell: (message, mend) => tellProblem({ message, mend }),
  }

  function useTool(id: ToolId): void {
    field.value = undefined
    const state = parts.part && view.value ? beginTool(board, id) : undefined
    if (state) {
      toolId.value = id
      toolState.value = state
      if (id !== 'pick') stepId.value = undefined
    } else if (id !== 'pick') useTool('pick')
  }

  function feed(next: ToolState | undefined): void {
    if (next) toolState.value = next
  }

  /** Steps back one level: the field, the tool's state, the tool, the picks. */
  function escape(): void {
    if (field.value) {
      field.value = undefined
      return
    }
    const next = toolState.value?.escape?.()
    if (next) toolState.value = next
    else if (toolId.value !== 'pick') useTool('pick')
    else stepId.value = undefined
  }

  /** Starts anew with a part that was opened. */
  function reset(): void {
    sketchId.value = ''
    stepId.value = undefined
    picks.value = []
    hover.value = undefined
    field.value = undefined
    toolState.value = undefined
    toolId.value = 'pick'
    view.value = undefined
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
  const sections = computed(() =>
    parts.part ? evaluate(parts.part).bodies.map((b) => b.section) : [],
  )

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
    fitAsked,
    showMarks,
    largest,
    pointed,
    sketch,
    sketchState,
    freedoms,
    sections,
    openField: board.openField,
    useTool,
    feed,
    escape,
    reset,
    fit: () => fitAsked.value++,
  }
})
