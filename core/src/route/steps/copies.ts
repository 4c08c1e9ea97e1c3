import { fail, succeed, type Result } from '../../result'
import { line, vec, type Piece, type Vec } from '../../geometry'
import {
  asCopy,
  combine,
  extentOf,
  movedAlong,
  withLoops,
  type Section,
  type SectionEdge,
} from '../../section'
import { byLength, repeatedOp, type Again, type SolidOp, type SolidPlan } from '../../solid'
import { VERTEX_TOLERANCE } from '../../tolerances'
import {
  changed,
  material,
  notSound,
  planSoFar,
  positive,
  told,
  wholeCount,
  type Outcome,
  type StepContext,
} from './context'
import { repeatedSteps } from './repeated'
import type { LengthStep, RepeatStep } from '../../part'

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
    const marked = { ...again, mark: `@${again.step}.${i + 2}` }
    return ops.map((op) => repeatedOp(op, marked, byLength((i + 1) * pitch)))
  }).flat()
  const known = copies.filter((c) => c !== undefined)
  return known.length === copies.length ? known : undefined
}

/** Cuts an end back, or draws it out, to an overall length. */
export function overallLength(step: LengthStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const length = positive(context, step.length, 'length', 'length')
  if (!length.ok) return length
  const [from, to] = extentOf(before.value)
  const end = step.end === 'left' ? from : to
  const wanted = step.end === 'left' ? to - length.value : from + length.value
  if (Math.abs(wanted - end) <= VERTEX_TOLERANCE) {
    const done = changed(context, step.body, before.value, before.value)
    return done.ok ? succeed({ ...done.value, notes: ['It has this length already.'] }) : done
  }
  const longer = length.value > to - from
  const after = longer
    ? drawnOut(before.value, end, wanted)
    : cutBack(before.value, step.id, end, wanted)
  if (after) return changed(context, step.body, before.value, after)
  return longer
    ? fail(
        'length.face',
        'This end cannot be drawn out: it is no flat face on cylinders.',
        `Type a length under ${told(context, to - from)}, or draw the new end as a profile.`,
      )
    : notSound
}

/** Moves the flat end face along the cylinders beside it. */
function drawnOut(section: Section, end: number, wanted: number): Section | undefined {
  const isAt = (p: Vec): boolean => Math.abs(p.x - end) <= VERTEX_TOLERANCE
  let sound = true
  const moved = (p: Vec): Vec => (isAt(p) ? vec(wanted, p.y) : p)
  const change = (piece: Piece): Piece => {
    const [a, b] = [isAt(piece.from), isAt(piece.to)]
    if (!a && !b) return piece
    const isFace = a && b && piece.kind === 'line'
    const isCylinder =
      piece.kind === 'line' && Math.abs(piece.from.y - piece.to.y) <= VERTEX_TOLERANCE
    if (!isFace && !isCylinder) sound = false
    return piece.kind === 'line' ? line(moved(piece.from), moved(piece.to)) : piece
  }
  const out = withLoops(section, (loop) => loop.map((e) => ({ ...e, piece: change(e.piece) })))
  return sound ? out : undefined
}

function cutBack(section: Section, step: string, end: number, wanted: number): Section | undefined {
  const far = end + Math.sign(end - wanted)
  const top = 1 + Math.max(...section.regions.flatMap((r) => r.outer.map((e) => reachOf(e.piece))))
  const corners = [vec(wanted, 0), vec(far, 0), vec(far, top), vec(wanted, top)]
  const ordered = far > wanted ? corners : [...corners].reverse()
  const name: SectionEdge['name'] = { step, entity: 'end', role: 'made' }
  const outer = ordered.map((p, i) => ({ piece: line(p, ordered[(i + 1) % 4] ?? p), name }))
  return combine(section, { regions: [{ outer, holes: [] }] }, 'cut')
}

/** A height that a piece stays below. */
function reachOf(piece: Piece): number {
  const ends = Math.max(piece.from.y, piece.to.y)
  if (piece.kind === 'line') return ends
  if (piece.kind === 'cubic') return Math.max(...piece.on.map((p) => p.y))
  return piece.centre.y + Math.hypot(piece.from.x - piece.centre.x, piece.from.y - piece.centre.y)
}
