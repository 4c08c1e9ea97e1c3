import { fail, succeed, type Result } from '../../../result'
import { PART_FRAME, inFrame, place, turned, turnedFrame, vec } from '../../../geometry'
import { extentOf, greatestRadius } from '../../../section'
import {
  byAngle,
  prismTool,
  rectangleOf,
  repeatedOp,
  type Again,
  type SolidOp,
  type SolidPlan,
} from '../../../solid'
import type { AroundStep, HalveStep } from '../../../part'
import type { SizeAt, ThreadCircle } from '../../state'
import { material, planSoFar, wholeCount, worked, type Outcome, type StepContext } from '../context'
import { repeatedSteps } from '../repeated'
import { angleOr, anglesOf, lengthOr, sizesAt, tell, tellAngle } from './common'

/** Does again round the axis what earlier steps did. */
export function around(step: AroundStep, context: StepContext): Result<Outcome> {
  const count = wholeCount(context, step.count, 'number')
  if (!count.ok) return count
  const range = step.range.trim() === '' ? undefined : context.number(step.range, 'angle', 'range')
  if (range?.ok === false) return range
  if (step.steps.length === 0) {
    return fail('around.none', 'No step is chosen to repeat.', 'Choose one in the step card.')
  }
  const plans = new Map<string, SolidPlan>()
  let last: Outcome['work']
  const sizes: SizeAt[] = []
  const threads: ThreadCircle[] = []
  const { ids, sources } = repeatedSteps(step.steps, context)
  for (const id of ids) {
    const outcome = context.outcomeOf(id)
    const work = outcome?.work
    const turnedAway = anglesOf(count.value, 0, range?.value).slice(1)
    const ops = work?.ops.map((op) => joined(op, { step: step.id, sources }, turnedAway))
    if (!work || !ops || ops.includes(undefined)) {
      return fail(
        'around.step',
        'A step to repeat is gone, failed, or does nothing that can be repeated round the axis.',
        'Choose holes, flats, slots, extrusions or part turns before this step, and with them the rounds and bevels of their edges.',
        { involves: [id] },
      )
    }
    const done = ops.flatMap((op) => op ?? [])
    const plan = plans.get(work.body) ?? planSoFar(context, work.body)
    plans.set(work.body, { base: plan.base, ops: [...plan.ops, ...done] })
    last = { ops: done, body: work.body }
    const [next = 0] = turnedAway
    const pitch = count.value > 1 ? `, ${tellAngle(context, next)} apart` : ''
    const [size] = outcome.told?.sizes ?? []
    if (size && sizes.length === 0) {
      sizes.push({ ...size, at: turned(size.at, next), words: `${count.value} round${pitch}` })
    }
    threads.push(
      ...turnedAway.flatMap((angle) =>
        (outcome.told?.threads ?? []).map((t) => ({ ...t, frame: turnedFrame(t.frame, angle) })),
      ),
    )
  }
  return succeed({
    ...{ sections: new Map(), plans, notes: [], told: { sizes, threads } },
    ...(last ? { work: last } : {}),
  })
}

/** All copies of an operation as one. */
function joined(
  op: SolidOp,
  again: Pick<Again, 'step' | 'sources'>,
  angles: readonly number[],
): SolidOp | undefined {
  const copies = angles.map((angle, i) =>
    repeatedOp(op, { ...again, mark: `@${again.step}.${i + 2}` }, byAngle(angle)),
  )
  const known = copies.filter((c) => c !== undefined)
  if (known.length < copies.length) return undefined
  const { step } = again
  return op.kind === 'edges'
    ? { ...op, step, sets: known.flatMap((c) => (c.kind === 'edges' ? c.sets : [])) }
    : ({
        ...op,
        step,
        tools: known.flatMap((c) => (c.kind === 'combine' ? c.tools : [])),
      } as SolidOp)
}

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
