import { fail, succeed, type Result } from '../result'
import { AXIS_ID, ORIGIN_ID, describeItem, locator, type Constraint, type Sketch } from '../sketch'
import { disagreementProblem } from '../route'
import { disagreementWith } from './disagreement'
import { withConstraint } from './draw'
import { withSketch, type Command } from './command'
import type { Part } from '../part'

/** Ids of what is picked: points, lines, the axis, the datum point. */
export type Picks = readonly string[]

export type ConstraintKind = Constraint['kind']

/** How one kind of constraint is put on picks. */
interface ConstraintOffer {
  readonly kind: ConstraintKind
  /** The constraints the picks would get; none when they do not fit. */
  readonly make: (sketch: Sketch, picks: Picks) => readonly NewConstraint[]
  /** What must be picked, as a sentence. */
  readonly needs: string
}

type NewConstraint = Constraint extends infer C
  ? C extends Constraint
    ? Omit<C, 'id'>
    : never
  : never

const isPoint = (sketch: Sketch, id: string): boolean =>
  id === ORIGIN_ID || sketch.points.some((p) => p.id === id)

const linesIn = (sketch: Sketch, picks: Picks): string[] =>
  picks.filter((id) => sketch.entities.some((e) => e.id === id))

const ownPointsIn = (sketch: Sketch, picks: Picks): string[] =>
  picks.filter((id) => sketch.points.some((p) => p.id === id))

const endsOf = (sketch: Sketch, id: string): string[] =>
  sketch.entities.flatMap((e) => (e.id === id ? [e.from, e.to] : []))

/** A constraint from the first line picked to every other. */
const betweenLines =
  (kind: 'parallel' | 'perpendicular' | 'equal') =>
  (sketch: Sketch, picks: Picks): NewConstraint[] => {
    const [to, ...rest] = linesIn(sketch, picks)
    if (to === undefined || rest.length === 0 || rest.length + 1 !== picks.length) return []
    return rest.map((line) => ({ kind, line, to }))
  }

const onEveryLine =
  (kind: 'axial' | 'radial') =>
  (sketch: Sketch, picks: Picks): NewConstraint[] => {
    const lines = linesIn(sketch, picks)
    return lines.length === picks.length ? lines.map((line) => ({ kind, line })) : []
  }

/** Every constraint there is, and what it can be put on. */
export const CONSTRAINT_OFFERS: readonly ConstraintOffer[] = [
  { kind: 'axial', make: onEveryLine('axial'), needs: 'Pick one line or several.' },
  { kind: 'radial', make: onEveryLine('radial'), needs: 'Pick one line or several.' },
  {
    kind: 'coincident',
    make: (sketch, picks) => {
      const [first, ...rest] = [...picks].sort(
        (a, b) => Number(b === ORIGIN_ID) - Number(a === ORIGIN_ID),
      )
      if (first === undefined || rest.length === 0) return []
      if (!picks.every((id) => isPoint(sketch, id))) return []
      return rest.map((a) => ({ kind: 'coincident', a, b: first }))
    },
    needs: 'Pick two points or more.',
  },
  {
    kind: 'pointOnLine',
    make: (sketch, picks) => {
      const [line, ...others] = picks.filter(
        (id) => id === AXIS_ID || linesIn(sketch, [id]).length === 1,
      )
      const points = ownPointsIn(sketch, picks)
      if (line === undefined || picks.length < 2) return []
      if (points.length + 1 + others.length !== picks.length || others.includes(AXIS_ID)) return []
      // Lines put onto a line become collinear with it: both their ends lie on it.
      const own = new Set(endsOf(sketch, line))
      const ends = others.flatMap((id) => endsOf(sketch, id)).filter((id) => !own.has(id))
      return [...new Set([...points, ...ends])].map((point) => ({
        kind: 'pointOnLine',
        point,
        line,
      }))
    },
    needs: 'Pick a line or the axis, and points or other lines to lie on it.',
  },
  {
    kind: 'fixed',
    make: (sketch, picks) => {
      const points = ownPointsIn(sketch, picks)
      if (points.length !== picks.length) return []
      const locate = locator(sketch)
      return points.map((point) => ({ kind: 'fixed', point, ...onlyXY(locate(point)) }))
    },
    needs: 'Pick one point or several.',
  },
  { kind: 'inLine', make: inLine, needs: 'Pick two points or more.' },
  { kind: 'parallel', make: betweenLines('parallel'), needs: 'Pick two lines or more.' },
  { kind: 'perpendicular', make: betweenLines('perpendicular'), needs: 'Pick two lines.' },
  { kind: 'equal', make: betweenLines('equal'), needs: 'Pick two lines or more.' },
  {
    kind: 'midpoint',
    make: (sketch, picks) => {
      const [line, ...lines] = linesIn(sketch, picks)
      const [point, ...points] = ownPointsIn(sketch, picks)
      if (line === undefined || point === undefined || lines.length + points.length > 0) return []
      if (picks.length !== 2 || endsOf(sketch, line).includes(point)) return []
      return [{ kind: 'midpoint', point, line }]
    },
    needs: 'Pick a point and a line.',
  },
  {
    kind: 'symmetric',
    make: (sketch, picks) => {
      const [about, ...more] = picks.filter(
        (id) => id === AXIS_ID || linesIn(sketch, [id]).length === 1,
      )
      const [a, b, ...rest] = ownPointsIn(sketch, picks)
      if (about === undefined || a === undefined || b === undefined) return []
      if (more.length + rest.length > 0 || picks.length !== 3) return []
      return [{ kind: 'symmetric', a, b, about }]
    },
    needs: 'Pick two points and a centre line.',
  },
]

/** Points nearer to one radius go in line axially, others radially. */
function inLine(sketch: Sketch, picks: Picks): NewConstraint[] {
  const [a, ...rest] = picks
  if (a === undefined || rest.length === 0 || !picks.every((id) => isPoint(sketch, id))) return []
  const locate = locator(sketch)
  return rest.map((b): NewConstraint => {
    const [p, q] = [locate(a), locate(b)]
    const along = Math.abs(q.y - p.y) <= Math.abs(q.x - p.x) ? 'axial' : 'radial'
    return { kind: 'inLine', a, b, along }
  })
}

function onlyXY({ x, y }: { readonly x: number; readonly y: number }): { x: number; y: number } {
  return { x, y }
}

/** The kinds that fit what is picked. */
export function fittingConstraints(sketch: Sketch, picks: Picks): ConstraintKind[] {
  return CONSTRAINT_OFFERS.filter((o) => o.make(sketch, picks).length > 0).map((o) => o.kind)
}

/**
 * Puts a constraint on picks. It is refused, with the names of those against it, when it cannot
 * hold or says what others say already.
 */
export function constrain(sketchId: string, kind: ConstraintKind, picks: Picks): Command {
  return {
    label: `constrain: ${kind.replace(/([A-Z])/g, ' $1').toLowerCase()}`,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const offer = CONSTRAINT_OFFERS.find((o) => o.kind === kind)
      if (!sketch || !offer) return fail('sketch.gone', 'This profile is gone.', 'Choose another.')
      const wanted = offer.make(sketch, picks)
      if (wanted.length === 0) {
        return fail('constraint.picks', 'This constraint does not fit what is picked.', offer.needs)
      }
      return wanted.reduce<Result<Part>>(
        (result, constraint) => (result.ok ? putOn(result.value, sketchId, constraint) : result),
        succeed(part),
      )
    },
  }
}

function putOn(part: Part, sketchId: string, constraint: NewConstraint): Result<Part> {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return succeed(part)
  const { sketch: tied, id } = withConstraint(sketch, constraint)
  const next = withSketch(part, tied)
  const against = disagreementWith(next, sketchId, [id])
  if (!against) return succeed(next)
  const others = { ...against, members: against.members.filter((m) => m !== id) }
  const problem = disagreementProblem(tied, others)
  const what = describeNew(sketch, constraint)
  const message =
    against.kind === 'conflict'
      ? `${what} cannot be put on. ${problem.message}`
      : `${what} holds already, by other constraints.`
  return { ok: false, problem: { ...problem, message, involves: others.members } }
}

function describeNew(sketch: Sketch, constraint: NewConstraint): string {
  return `“${describeItem(sketch, { ...constraint, id: '' } as Constraint)}”`
}
