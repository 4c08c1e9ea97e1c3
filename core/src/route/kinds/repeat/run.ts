import { copyMark } from '../../../names'
import { fail, succeed, type Result } from '../../../result'
import { asCopy, combine, movedAlong, type Section } from '../../../section'
import { byLength, repeatedOp, type Again, type SolidOp, type SolidPlan } from '../../../solid'
import {
  changed,
  notSound,
  planSoFar,
  wholeCount,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import { repeatedSteps } from '../../steps/repeated'
import type { RepeatStep } from '../../../part'

/** Does again along the axis what earlier steps did. */
export function repeat(step: RepeatStep, context: StepContext): Result<Outcome> {
  const count = wholeCount(context, step.count, 'number')
  if (!count.ok) return count
  const pitch = context.number(step.pitch, 'length', 'pitch')
  if (!pitch.ok) return pitch
  if (pitch.value === 0) {
    return fail('repeat.pitch', 'The pitch is nought.', 'Type a length; negative goes to the left.')
  }
  if (step.steps.length === 0) {
    return fail('repeat.none', 'No step is chosen to repeat.', 'Choose one in the step card.')
  }
  const sections = new Map<string, Section>()
  const plans = new Map<string, SolidPlan>()
  const { ids, sources } = repeatedSteps(step.steps, context)
  for (const id of ids) {
    const { tool, work } = context.outcomeOf(id) ?? {}
    const again = { step: step.id, sources }
    const copies = work && copiesAlong(work.ops, again, count.value, pitch.value)
    if (work && copies) {
      const plan = plans.get(work.body) ?? planSoFar(context, work.body)
      plans.set(work.body, { base: plan.base, ops: [...plan.ops, ...copies] })
      continue
    }
    if (!tool) {
      return fail(
        'repeat.step',
        'A step to repeat is gone, failed, or does nothing that can be repeated.',
        'Choose profiles, walls, grooves, bores, holes, flats or slots before this step, and with solid ones the rounds and bevels of their edges.',
        { involves: [id] },
      )
    }
    let here = sections.get(tool.body) ?? context.sectionOf(tool.body)
    for (let n = 2; n <= count.value; n++) {
      const copy = movedAlong(tool.section, (n - 1) * pitch.value, asCopy(step.id, n))
      const next = combine(here, copy, tool.effect)
      if (!next) return notSound
      here = next
    }
    sections.set(tool.body, here)
  }
  const notes = [...sections].flatMap(([body, after]) => {
    const before = context.sectionOf(body)
    const done = changed(context, body, before, after)
    return done.ok ? done.value.notes : []
  })
  return succeed({ sections, notes, plans })
}

/** All copies of solid work along the axis; undefined where some of it cannot be done again. */
function copiesAlong(
  ops: readonly SolidOp[],
  again: Pick<Again, 'step' | 'sources'>,
  count: number,
  pitch: number,
): SolidOp[] | undefined {
  const copies = Array.from({ length: count - 1 }, (_, i) => {
    const marked = { ...again, mark: copyMark(again.step, i + 2) }
    return ops.map((op) => repeatedOp(op, marked, byLength((i + 1) * pitch)))
  }).flat()
  const known = copies.filter((c) => c !== undefined)
  return known.length === copies.length ? known : undefined
}
