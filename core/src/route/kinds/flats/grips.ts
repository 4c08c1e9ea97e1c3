import type { FlatsStep } from '../../../part'
import { angleMoved, lengthMoved, plainValue, takenBy } from '../../steps/gripped'
import type { StepGrip } from '../../state'
import type { GripMove } from '../kind'

/** The step with one of its flats farther out or elsewhere round the axis; undefined where names of values tell both. */
export function flatMoved(step: FlatsStep, grip: StepGrip, move: GripMove): FlatsStep | undefined {
  const { units } = move
  const { out, turn } = takenBy(grip, move)
  const count = plainValue(step.count, 'number', units)
  const size =
    count === undefined
      ? undefined
      : lengthMoved(step.size, out * perMillimetre(step.measure, count), units)
  const phase = angleMoved(step.phase, turn, units)
  if (size === undefined && phase === undefined) return undefined
  return { ...step, size: size ?? step.size, phase: phase ?? step.phase }
}

/** How much the size grows for a flat that lies a millimetre farther out. */
function perMillimetre(measure: FlatsStep['measure'], count: number): number {
  if (measure === 'depth') return -1
  return count % 2 === 0 ? 2 : 1
}
