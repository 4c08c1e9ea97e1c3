import { formatMass } from '@lathica/core/units'
import type { Piece } from '@lathica/core/geometry'
import { isEndSketch } from '@lathica/core/sketch'
import { materialOf } from '@lathica/core/inspect'
import { pencilled, takenBy, type Pencilled } from '@lathica/core/route'
import { usesSketch } from '@lathica/core/part'
import { computed, type ComputedRef } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import type { ShownBody } from './scene'

/** What is not made yet has a body's id of its own, and the colour of paper. */
export const PENCILLED = '~pencilled'
const PAPER = '#c9bd9f'

const NOTHING: readonly Piece[] = []

/** What a cut would take away, in the tone of what is in hand. */
const TAKEN = '~taken'
const CHIPS = '#c98a2b'

/**
 * The profile in hand as it would be turned, while no step turns it: it follows every move of drawing, dragging and
 * typing. Where it lies in what stands there already, what a cut would take away is shown in it.
 */
export function usePencilled(): {
  readonly bodies: ComputedRef<readonly ShownBody[]>
  /** Whether what stands there is to be seen through, so that what is in it shows. */
  readonly isInside: ComputedRef<boolean>
  readonly isClosed: ComputedRef<boolean>
  /** What is said of it. */
  readonly words: ComputedRef<string>
} {
  const parts = usePartStore()
  const board = useBoardStore()
  const route = useRouteStore()

  // Most moves of the pointer draw nothing: then nothing is worked out anew.
  const drawing = computed(
    () => (board.typedOverlay ?? board.toolState?.overlay)?.turned ?? NOTHING,
  )
  const found = computed<Pencilled | undefined>(() => {
    const { sketch } = board
    if (isEndSketch(sketch) || parts.route.some((s) => usesSketch(s) && s.sketch === sketch.id)) {
      return undefined
    }
    return pencilled(sketch, drawing.value)
  })
  const standing = computed(() => route.visible.filter((b) => !b.reference).map((b) => b.section))
  const taken = computed(() => found.value && takenBy(found.value, standing.value))
  const bodies = computed<ShownBody[]>(() => {
    if (!found.value) return []
    const { section, isClosed } = found.value
    const isGlassy = !isClosed || taken.value !== undefined
    const chips = taken.value?.sections ?? []
    return [
      {
        ...{ id: PENCILLED, section, mesh: undefined },
        ...{ colour: PAPER, look: 'ceramic', glassy: isGlassy, said: [] },
      },
      ...chips.map((chip, i): ShownBody => ({
        ...{ id: `${TAKEN}${i}`, section: chip, mesh: undefined },
        ...{ colour: CHIPS, look: 'plastic', glassy: false, said: [] },
      })),
    ]
  })
  const words = computed(() => {
    if (!found.value) return ''
    if (!found.value.isClosed) return 'Not made yet: open, and shown as a skin.'
    const material = materialOf(parts, parts.bodies[0]?.id ?? '')
    const massOf = (volume: number): string =>
      formatMass(volume * (material?.density ?? 0), parts.units)
    const of = material ? ` of ${material.name}` : ''
    const made = `Not made yet: it would be ${massOf(found.value.volume)}${of}`
    return taken.value ? `${made}; a cut would take ${massOf(taken.value.volume)}.` : `${made}.`
  })
  return {
    bodies,
    isInside: computed(() => taken.value !== undefined),
    isClosed: computed(() => found.value?.isClosed === true),
    words,
  }
}
