import { copyMark } from '../../../names'
import { fail, succeed, type Result } from '../../../result'
import { turned, turnedFrame } from '../../../geometry'
import { byAngle, repeatedOp, type Again, type SolidOp, type SolidPlan } from '../../../solid'
import type { AroundStep } from '../../../part'
import type { SizeAt, ThreadCircle } from '../../state'
import { planSoFar, wholeCount, type Outcome, type StepContext } from '../../steps/context'
import { repeatedSteps } from '../../steps/repeated'
import { anglesOf, tellAngle } from '../../steps/common'

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
    repeatedOp(op, { ...again, mark: copyMark(again.step, i + 2) }, byAngle(angle)),
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
