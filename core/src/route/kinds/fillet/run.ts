import { succeed, type Result } from '../../../result'
import { positive, type Outcome, type StepContext } from '../../steps/context'
import type { FilletStep } from '../../../part'
import { finished } from '../../steps/corners'

/** Rounds corners, set after set. */
export function fillet(step: FilletStep, context: StepContext): Result<Outcome> {
  return finished(step, context, (set) => {
    const radius = positive(context, set.radius, 'length', 'radius')
    if (!radius.ok) return radius
    return succeed({ kind: 'round', radius: radius.value })
  })
}
