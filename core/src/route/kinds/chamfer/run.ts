import { succeed, type Result } from '../../../result'
import type { ChamferSize } from '../../../section'
import { positive, type Outcome, type StepContext } from '../../steps/context'
import type { ChamferStep } from '../../../part'
import { finished } from '../../steps/corners'

/** Bevels corners, set after set. */
export function chamfer(step: ChamferStep, context: StepContext): Result<Outcome> {
  return finished(step, context, (set) => {
    const along = positive(context, set.along, 'length', 'leg')
    if (!along.ok) return along
    const byAngle = set.across.trim() === ''
    const other = byAngle
      ? positive(context, set.angle, 'angle', 'angle')
      : positive(context, set.across, 'length', 'other leg')
    if (!other.ok) return other
    const size: ChamferSize = byAngle
      ? { kind: 'angle', along: along.value, angle: other.value }
      : { kind: 'legs', along: along.value, across: other.value }
    return succeed({ kind: 'bevel', size })
  })
}
