import type { Problem } from '@lathica/core/result'
import { foundFor, noteFound, type LiftedProperties, type SolidPlan } from '@lathica/core/solid'
import type { Part } from '@lathica/core/part'
import { evaluate, type PartState } from '@lathica/core/route'
import { bodyPlans, type BuiltGeometry } from '@lathica/core/formats'
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

/** Notes what a plan came to, so that the part's state tells it. */
export function noteFigures(plan: SolidPlan, figures: LiftedProperties | undefined): void {
  noteFound(plan, figures ? { ok: true, value: figures } : { ok: false, problem: NOTHING_LEFT })
}

/** Notes that a plan could not be built: neither up to the step that could not be done, nor as a whole. */
export function noteFault(plan: SolidPlan, problem: Problem, after: number | undefined): void {
  const what = { ok: false, problem } as const
  noteFound(failedPlan(plan, after ?? plan.ops.length), what)
  noteFound(plan, what)
}

/**
 * Has the bodies of a part built that are no full turn, and notes what they come to. A step that
 * fails changes the plans after it, which are built in their turn.
 * @returns the part's state with all figures
 */
export function settlePlans(
  part: Part,
  weigh: (plan: SolidPlan) => LiftedProperties | undefined,
): PartState {
  for (;;) {
    const state = evaluate(part)
    const open = state.bodies.find((b) => b.plan && !foundFor(b.plan))?.plan
    if (!open) return state
    try {
      noteFigures(open, weigh(open))
    } catch (thrown) {
      if (!(thrown instanceof KernelFault)) throw thrown
      noteFault(open, thrown.problem, thrown.after)
    }
  }
}

/**
 * What a part's files take of the kernel: triangles within a tolerance in mm, and the exchange file.
 * @param onBody told of every body that was built
 */
export function builtGeometry(
  kernel: Kernel,
  part: Part,
  tolerance: number,
  onBody: (name: string) => void = () => undefined,
): BuiltGeometry {
  const plans = bodyPlans(part)
  return {
    meshes: new Map(
      plans.flatMap(({ bodyId, name, plan }) => {
        if (plan.ops.length === 0) return []
        const { mesh } = kernel.build(plan, tolerance)
        onBody(name)
        return [[bodyId, mesh] as const]
      }),
    ),
    step: kernel.writeStep(plans, part.name),
  }
}
