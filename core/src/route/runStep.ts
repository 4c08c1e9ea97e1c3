import { fail, type Result } from '../result'
import { stepRules } from './kinds'
import type { Outcome, StepContext } from './steps/context'
import type { Step } from '../part'

/** Runs one step on the bodies as they stand. */
export function runStep(step: Step, context: StepContext): Result<Outcome> {
  if (step.kind !== 'unknown') return stepRules(step).run(step, context)
  return fail(
    'step.unknown',
    `This version does not know the step “${String(step.kept['kind'])}”.`,
    'It is kept as it is; open the part with the version that made it.',
  )
}
