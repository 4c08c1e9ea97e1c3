import type { Result } from '../../../result'
import { isEndSketch } from '../../../sketch'
import type { Outcome, StepContext } from '../../steps/context'
import type { RevolveStep } from '../../../part'
import { isSolidTurn, solidTurn } from '../../steps/turning'
import { chosenProfile, notTurned, applied } from '../../steps/profile'

/** Turns closed regions of a profile, about the axis fully or as the step says. */
export function revolve(step: RevolveStep, context: StepContext): Result<Outcome> {
  const profile = chosenProfile(step, context)
  if (!profile.ok) return profile
  const { section, sketch } = profile.value
  if (isEndSketch(sketch)) return notTurned(sketch)
  return isSolidTurn(step)
    ? solidTurn(step, context, section, sketch)
    : applied(step, context, section)
}
