import { asksOfChecks } from '@lathica/core/inspect'
import { succeed, type Problem, type Result } from '@lathica/core/result'
import {
  NOTHING_FOUND,
  knownFor,
  withAnswer,
  withFound,
  type Findings,
  type LiftedProperties,
  type SolidAsk,
  type SolidPlan,
  type SolidTold,
} from '@lathica/core/solid'
import { asksToSee, keyOf, type SeenLines } from '@lathica/core/drawing'
import type { Part } from '@lathica/core/part'
import { evaluate, type PartState } from '@lathica/core/route'
import { bodyPlans, plansCalled, type BuiltGeometry } from '@lathica/core/formats'
import { KernelFault } from './fault'
import type { Kernel } from './kernel'

/** The operations of a plan up to the end of the step that holds the one which failed. */
function failedPlan({ base, ops }: SolidPlan, after: number): SolidPlan {
  const step = ops[after - 1]?.step
  let end = after
  while (end < ops.length && ops[end]?.step === step) end++
  return { base, ops: ops.slice(0, end) }
}

/** What is said when a body is gone. */
const NOTHING_LEFT: Problem = {
  code: 'kernel.empty',
  message: 'Nothing is left of the body.',
  mend: 'Make the step smaller, or set it aside.',
}

/** The findings with what a plan came to; undefined figures where nothing is left of the body. */
export const withFigures = (
  findings: Findings,
  plan: SolidPlan,
  figures: LiftedProperties | undefined,
): Findings =>
  withFound(
    findings,
    plan,
    figures ? { ok: true, value: figures } : { ok: false, problem: NOTHING_LEFT },
  )

/**
 * The findings with a plan that could not be built: neither up to the step that could not be done, nor as a whole.
 * @param after how many of its operations were begun, where that is known
 */
export function withFault(
  findings: Findings,
  plan: SolidPlan,
  problem: Problem,
  after: number | undefined,
): Findings {
  const what = { ok: false, problem } as const
  return withFound(
    withFound(findings, failedPlan(plan, after ?? plan.ops.length), what),
    plan,
    what,
  )
}

/**
 * Has the bodies of a part built that are no full turn. A step that fails changes the plans after it, which are built
 * in their turn.
 * @param measure what rows of the inspection sheet ask of solids; left out, those rows stay open
 * @returns the part's state with all figures
 */
export function settlePlans(
  part: Part,
  weigh: (plan: SolidPlan) => LiftedProperties | undefined,
  measure?: (ask: SolidAsk) => SolidTold,
): PartState {
  let findings = NOTHING_FOUND
  for (;;) {
    const state = evaluate(part, findings)
    const open = openPlan(state, findings)
    if (!open) {
      const asks = measure ? asksOfChecks(state) : []
      if (!measure || asks.length === 0) return state
      for (const ask of asks) findings = withAnswer(findings, ask, answerTo(ask, measure))
      continue
    }
    try {
      findings = withFigures(findings, open, weigh(open))
    } catch (thrown) {
      if (!(thrown instanceof KernelFault)) throw thrown
      findings = withFault(findings, open, thrown.problem, thrown.after)
    }
  }
}

function answerTo(ask: SolidAsk, measure: (ask: SolidAsk) => SolidTold): Result<SolidTold> {
  try {
    return succeed(measure(ask))
  } catch (thrown) {
    if (!(thrown instanceof KernelFault)) throw thrown
    return { ok: false, problem: thrown.problem }
  }
}

const openPlan = ({ bodies }: PartState, findings: Findings): SolidPlan | undefined =>
  bodies.find((b) => b.plan && !knownFor(findings, b.plan))?.plan

/** What the sheet of a part takes of the kernel: nothing where all of it is a full turn. */
export function seenBy(kernel: Kernel, state: PartState): SeenLines {
  return new Map(
    asksToSee(state).map(
      (ask) => [keyOf(ask), kernel.see(plansCalled(state, ask.bodies), ask)] as const,
    ),
  )
}

/**
 * What a part's files take of the kernel: triangles within a tolerance in mm, and the exchange file.
 * @param onBody told of every body that was built
 */
export function builtGeometry(
  kernel: Kernel,
  state: PartState,
  tolerance: number,
  onBody: (name: string) => void = () => undefined,
): BuiltGeometry {
  const plans = bodyPlans(state)
  return {
    meshes: new Map(
      plans.flatMap(({ bodyId, name, plan }) => {
        if (plan.ops.length === 0) return []
        const { mesh } = kernel.build(plan, tolerance)
        onBody(name)
        return [[bodyId, mesh] as const]
      }),
    ),
    step: kernel.writeStep(plans, state.part.name),
  }
}
