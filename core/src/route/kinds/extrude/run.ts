import type { Result } from '../../../result'
import type { Outcome, StepContext } from '../../steps/context'
import type { ExtrudeStep } from '../../../part'
import { drawOut } from './drawOut'
import { chosenProfile } from '../../steps/profile'

/** Draws closed regions of a profile out square to its plane. */
export function extrude(step: ExtrudeStep, context: StepContext): Result<Outcome> {
  const profile = chosenProfile(step, context)
  if (!profile.ok) return profile
  const { section, sketch } = profile.value
  return drawOut(step, context, section, sketch.plane)
}
