import {
  drawSheet,
  NOTHING_SEEN,
  viewsToSee,
  type Drawing,
  type SeenFrom,
  type SeenLines,
} from '@lathica/core/drawing'
import { bodyPlans } from '@lathica/core/formats'
import type { Piece } from '@lathica/core/geometry'
import type { PartState } from '@lathica/core/route'
import { moveSheetLabel } from '@lathica/core/edit'
import { PLAIN_SHEET } from '@lathica/core/part'
import { defineStore } from 'pinia'
import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { seeSolids } from '../kernel/client'
import { tellProblem } from '../notices'
import { usePartStore } from './part'

/** The sheet of the part in hand: the drawing as the part stands, and what is picked on it. */
export const useSheetStore = defineStore('sheet', () => {
  const parts = usePartStore()
  /** What the kernel has seen of the bodies as they are, and how much it is looking at. */
  const seen = shallowRef<SeenLines>(NOTHING_SEEN)
  const looking = ref(0)
  /** The page is open: only then is anything looked at. */
  const isOpen = ref(false)
  const drawing = computed(
    (): Drawing | undefined => parts.state && drawSheet(parts.state, seen.value),
  )
  const setup = computed(() => parts.part?.sheet ?? PLAIN_SHEET)
  /** The id of a size or a note. */
  const picked = ref<string>()
  /** How much of the sheet is seen, in mm of paper: its lower left corner, and its width. */
  const asked = ref(0)

  /** What was seen last, of which plans: moving a label changes none. */
  let known: { readonly key: string; readonly lines: SeenLines } | undefined

  /** What the kernel sees of the part as it is; it is asked where that is not known. */
  async function look(): Promise<SeenLines> {
    const { state } = parts
    const views = state ? viewsToSee(state) : []
    if (!state || views.length === 0) return NOTHING_SEEN
    const plans = bodyPlans(state).map((b) => b.plan)
    const key = JSON.stringify([views, plans])
    if (known?.key === key) return known.lines
    looking.value += 1
    try {
      const lines: Partial<Record<SeenFrom, readonly Piece[]>> = {}
      for (const from of views) {
        const answer = await seeSolids(plans, from)
        if (!answer.ok) {
          tellProblem(answer.problem)
          return NOTHING_SEEN
        }
        lines[from] = answer.value
      }
      known = { key, lines }
      return lines
    } finally {
      looking.value -= 1
    }
  }

  /** The sheet with all that the kernel sees. */
  async function whole(): Promise<Drawing | undefined> {
    const lines = await look()
    return parts.state && drawSheet(parts.state, lines)
  }

  watchDebounced(
    [() => parts.state, isOpen],
    async () => {
      const { state } = parts
      if (!state || !isOpen.value) return
      const lines = await look()
      if (state === parts.state) seen.value = lines
    },
    { debounce: 150, immediate: true },
  )
  // What was seen of another shape is not drawn.
  watch(
    () => parts.state,
    (state, before) => {
      const isSame = (a: PartState | undefined): boolean =>
        a?.bodies.every((b, i) => b.plan === before?.bodies[i]?.plan) === true
      if (!isSame(state)) seen.value = NOTHING_SEEN
    },
  )

  watch(
    () => parts.id,
    () => (picked.value = undefined),
  )

  /** Labels in the order they are read: from above, and from the left. */
  const order = computed((): readonly string[] =>
    [...(drawing.value?.labels ?? [])]
      .sort(([, a], [, b]) => Math.round((b.at.y - a.at.y) / 10) || a.at.x - b.at.x)
      .map(([id]) => id),
  )

  /** Goes to the next label, or the one before. */
  function step(by: 1 | -1): void {
    const ids = order.value
    if (ids.length === 0) return
    const at = picked.value === undefined ? -1 : ids.indexOf(picked.value)
    const next = at < 0 ? (by > 0 ? 0 : ids.length - 1) : (at + by + ids.length) % ids.length
    picked.value = ids[next]
  }

  const isMoved = (id: string): boolean => setup.value.moved.some((m) => m.id === id)

  /** Moves a label by so much of the paper, in mm: x to the right, y upwards. */
  function move(id: string, dx: number, dy: number): void {
    const label = drawing.value?.labels.get(id)
    if (!label) return
    const { by, along, across } = label
    parts.run(
      moveSheetLabel(id, {
        x: rounded(by.x + dx * along.x + dy * along.y),
        y: rounded(by.y + dx * across.x + dy * across.y),
      }),
    )
  }

  /** Puts a label back to where it stands by itself. */
  function putBack(id: string): void {
    if (isMoved(id)) parts.run(moveSheetLabel(id, undefined))
  }

  /** Asks the view to show the whole sheet. */
  const fit = (): void => void asked.value++

  return {
    drawing,
    whole,
    looking,
    isOpen,
    setup,
    picked,
    asked,
    order,
    step,
    move,
    putBack,
    isMoved,
    fit,
  }
})

/** To a hundredth of a mm: more is not seen. */
const rounded = (mm: number): number => Math.round(mm * 100) / 100
