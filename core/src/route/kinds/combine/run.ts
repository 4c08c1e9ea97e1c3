import { fail, succeed, type Result } from '../../../result'
import { PART_FRAME } from '../../../geometry'
import { EMPTY_SECTION, combine as combinedSections, type Section } from '../../../section'
import { turnedTool, type SolidOp, type SolidTool } from '../../../solid'
import type { CombineStep } from '../../../part'
import {
  changed,
  material,
  notSound,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'

/** Joins two bodies, cuts one from the other, or keeps what they have in common. */
export function combineBodies(step: CombineStep, context: StepContext): Result<Outcome> {
  const own = material(context, step.body)
  if (!own.ok) return own
  if (step.other === step.body) {
    return fail('combine.same', 'A body is combined with another one.', 'Choose a second body.')
  }
  const other = material(context, step.other)
  if (!other.ok) return other
  const plans = [context.planOf(step.body), context.planOf(step.other)]
  const sections = combinedSections(own.value, other.value, step.effect)
  if (!sections) return notSound
  const isTurned = plans.every((p) => p === undefined)
  // What is cut by a body that is no full turn stays elsewhere round the axis.
  const turnedSection = step.effect === 'cut' && plans[1] ? own.value : sections
  const emptied: readonly (readonly [string, Section])[] = step.keep
    ? []
    : [[step.other, EMPTY_SECTION]]
  if (isTurned) {
    const done = changed(context, step.body, own.value, sections)
    if (!done.ok) return done
    const all = new Map([...done.value.sections, ...emptied])
    return succeed({ ...done.value, sections: all })
  }
  const tool: SolidTool = plans[1]
    ? { kind: 'body', plan: plans[1], frame: PART_FRAME, mark: '' }
    : turnedTool(other.value, PART_FRAME)
  const op: SolidOp = { kind: 'combine', step: step.id, effect: step.effect, tools: [tool] }
  const done = worked(context, step.body, [op], { turned: turnedSection })
  if (!done.ok) return done
  return succeed({
    ...done.value,
    sections: new Map([...done.value.sections, ...emptied]),
    plans: new Map([
      ...(done.value.plans ?? []),
      ...(step.keep ? [] : [[step.other, undefined] as const]),
    ]),
  })
}
