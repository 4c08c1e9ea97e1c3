import { fail, succeed, type Result } from '../../../result'
import { line, vec, type Piece, type Vec } from '../../../geometry'
import { combine, extentOf, withLoops, type Section, type SectionEdge } from '../../../section'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import {
  changed,
  material,
  notSound,
  positive,
  told,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import type { LengthStep } from '../../../part'

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
