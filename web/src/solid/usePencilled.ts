import { formatMass } from '@lathica/core/units'
import type { Piece } from '@lathica/core/geometry'
import { isEndSketch } from '@lathica/core/sketch'
import { materialOf } from '@lathica/core/inspect'
import { pencilled, type Pencilled } from '@lathica/core/route'
import { usesSketch } from '@lathica/core/part'
import { computed, type ComputedRef } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'
import type { ShownBody } from './scene'

/** What is not made yet has a body's id of its own, and the colour of paper. */
export const PENCILLED = '~pencilled'
const PAPER = '#c9bd9f'

const NOTHING: readonly Piece[] = []

/**
 * The profile in hand as it would be turned, while no step turns it: it follows every move of drawing, dragging and
 * typing.
 */
export function usePencilled(): {
  readonly body: ComputedRef<ShownBody | undefined>
  /** What is said of it. */
  readonly words: ComputedRef<string>
} {
  const parts = usePartStore()
  const board = useBoardStore()

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
  const body = computed<ShownBody | undefined>(
    () =>
      found.value && {
        ...{ id: PENCILLED, section: found.value.section, mesh: undefined },
        ...{ colour: PAPER, look: 'ceramic', glassy: !found.value.isClosed },
      },
  )
  const words = computed(() => {
    if (!found.value) return ''
    if (!found.value.isClosed) return 'Not made yet: open, and shown as a skin.'
    const material = materialOf(parts, parts.bodies[0]?.id ?? '')
    const mass = found.value.volume * (material?.density ?? 0)
    const of = material ? ` of ${material.name}` : ''
    return `Not made yet: it would be ${formatMass(mass, parts.units)}${of}.`
  })
  return { body, words }
}
