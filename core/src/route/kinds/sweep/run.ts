import type { Result } from '../../../result'
import type { Outcome, StepContext } from '../../steps/context'
import type { SweepStep } from '../../../part'
import { carried } from './carried'
import { noProfile, openChain } from '../../steps/profile'

/** Carries a small section along an open chain. */
export function sweep(step: SweepStep, context: StepContext): Result<Outcome> {
  const sketch = context.sketch(step.sketch)
  if (!sketch || !context.sketchState(step.sketch)) return noProfile
  const chain = openChain(sketch, step.id)
  if (!chain.ok) return chain
  return carried(
    step,
    context,
    chain.value.map((e) => e.piece),
  )
}
