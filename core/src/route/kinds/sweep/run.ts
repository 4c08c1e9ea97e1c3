import type { Result } from '../../../result'
import type { Outcome, StepContext } from '../../steps/context'
import type { SweepStep } from '../../../part'
import { carried } from './carried'
import { chainOfStep } from '../../steps/profile'

/** Carries a small section along an open chain. */
export function sweep(step: SweepStep, context: StepContext): Result<Outcome> {
  const chain = chainOfStep(step, context)
  if (!chain.ok) return chain
  return carried(
    step,
    context,
    chain.value.edges.map((e) => e.piece),
  )
}
