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
  /** What the kernel has seen of the bodies as they are, and what it was asked for. */
  const seen = shallowRef<SeenLines>(NOTHING_SEEN)
  const looking = ref(false)
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
  watchDebounced(
    [() => parts.state, isOpen],
    async () => {
      const { state } = parts
      if (!state || !isOpen.value) return
      const views = viewsToSee(state)
      const plans = views.length === 0 ? [] : bodyPlans(state).map((b) => b.plan)
      const key = JSON.stringify([views, plans])
      if (known?.key === key) {
        seen.value = known.lines
        return
      }
      seen.value = NOTHING_SEEN
      if (views.length === 0) return
      looking.value = true
      const lines: Partial<Record<SeenFrom, readonly Piece[]>> = {}
      for (const from of views) {
        const answer = await seeSolids(plans, from)
        if (state !== parts.state) return
        if (!answer.ok) {
          looking.value = false
          tellProblem(answer.problem)
          return
        }
        lines[from] = answer.value
      }
      looking.value = false
      known = { key, lines }
      seen.value = lines
    },
    { debounce: 150, immediate: true },
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
