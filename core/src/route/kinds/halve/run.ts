import { fail, succeed, type Result } from '../../../result'
import { PART_FRAME, inFrame, place, turnedFrame, vec } from '../../../geometry'
import { extentOf, greatestRadius } from '../../../section'
import { prismTool, rectangleOf, type SolidOp } from '../../../solid'
import type { HalveStep } from '../../../part'
import { material, planSoFar, worked, type Outcome, type StepContext } from '../../steps/context'
import { angleOr, lengthOr, sizesAt, tell, tellAngle } from '../../steps/common'

/** Keeps one side of a plane along the axis; another body may get the other. */
export function halve(step: HalveStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const angle = angleOr(context, step.angle, 0, 'angle')
  if (!angle.ok) return angle
  const offset = lengthOr(context, step.offset, 0, 'offset')
  if (!offset.ok) return offset
  const over = 2 * greatestRadius(before.value) + 1
  if (Math.abs(offset.value) >= over / 2) {
    return fail('halve.clear', 'The plane lies clear of the body.', 'Type a smaller offset.')
  }
  const [from, to] = extentOf(before.value)
  const side = (way: 1 | -1): SolidOp => ({
    ...{ kind: 'combine', step: step.id, effect: 'cut' },
    tools: [
      prismTool(
        way === 1
          ? rectangleOf(step.id, vec(-over, -over), vec(offset.value, over))
          : rectangleOf(step.id, vec(offset.value, -over), vec(over, over)),
        turnedFrame(PART_FRAME, angle.value),
        from - 1,
        to + 1,
      ),
    ],
  })
  const sizes = sizesAt(
    step.body,
    inFrame(turnedFrame(PART_FRAME, angle.value), place(offset.value, 0, (from + to) / 2)),
    [
      offset.value === 0
        ? `cut through the axis at ${tellAngle(context, angle.value)}`
        : `cut ${tell(context, offset.value)} beside the axis at ${tellAngle(context, angle.value)}`,
    ],
  )
  const kept = worked(context, step.body, [side(1)], { told: { sizes } })
  if (!kept.ok || step.into === '') return kept
  if (step.into === step.body || !context.bodies.some((b) => b.id === step.into)) {
    return fail('step.body', 'The body for the other half is gone.', 'Choose another one.')
  }
  if (context.sectionOf(step.into).regions.length > 0) {
    return fail(
      'halve.taken',
      'The body for the other half has material of its own.',
      'Choose a new body for it.',
    )
  }
  const plan = planSoFar(context, step.body)
  return succeed({
    ...kept.value,
    sections: new Map([[step.into, before.value]]),
    plans: new Map([
      ...(kept.value.plans ?? []),
      [step.into, { base: plan.base, ops: [...plan.ops, side(-1)] }],
    ]),
  })
}
