import { turned, type Place } from '../../../geometry'
import type { SlotStep } from '../../../part'
import { anglePlace } from '../../steps/common'
import type { StepContext } from '../../steps/context'
import { angleMoved, takenBy } from '../../steps/gripped'
import type { StepGrip } from '../../state'
import type { GripMove } from '../kind'

/** Slots are turned about the axis. @param at the middle of the first, on the surface */
export const slotGrips = (
  { body }: SlotStep,
  context: StepContext,
  first: Place,
  angles: readonly number[],
): StepGrip[] =>
  angles.map((angle, i) => {
    const at = turned(first, angle - (angles[0] ?? 0))
    return {
      body,
      number: i + 1,
      at,
      name: `slot ${i + 1}`,
      words: `at ${anglePlace(context, at)}`,
    }
  })

/** The step with its slots elsewhere round the axis; undefined where names of values tell where. */
export function slotMoved(step: SlotStep, grip: StepGrip, move: GripMove): SlotStep | undefined {
  const phase = angleMoved(step.phase, takenBy(grip, move).turn, move.units)
  return phase === undefined ? undefined : { ...step, phase }
}
