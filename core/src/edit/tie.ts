import { fail, succeed, type Result } from '../result'
import {
  AXIS_ID,
  ORIGIN_ID,
  describeItem,
  endsOf,
  locator,
  roundOf,
  type Constraint,
  type Entity,
  type Sketch,
} from '../sketch'
import { disagreementProblem } from '../route'
import { withTie } from './draft'
import { type NewConstraint } from './ends'
import type { Command } from './command'
import type { Picks } from './offers'
import type { Part } from '../part'

export type ConstraintKind = Exclude<Constraint['kind'], 'repeat' | 'linked'>

/** How one kind of constraint is put on picks. */
interface ConstraintOffer {
  readonly kind: ConstraintKind
  /** The constraints the picks would get; none when they do not fit. */
  readonly make: (sketch: Sketch, picks: Picks) => readonly NewConstraint[]
  /** What must be picked, as a sentence. */
  readonly needs: string
}

const isPoint = (sketch: Sketch, id: string): boolean =>
  id === ORIGIN_ID || sketch.points.some((p) => p.id === id)

const entityOf = (sketch: Sketch, id: string): Entity | undefined =>
  sketch.entities.find((e) => e.id === id)

const isLine = (sketch: Sketch, id: string): boolean => entityOf(sketch, id)?.kind === 'line'

const isRound = (sketch: Sketch, id: string): boolean => roundOf(entityOf(sketch, id)) !== undefined

const isFree = (sketch: Sketch, id: string): boolean => entityOf(sketch, id)?.kind === 'curve'

/** Whether one of two that share an end is a free curve, which can leave it in any direction. */
function goOnFreely(sketch: Sketch, a: string, b: string): boolean {
  const ends = new Set(endsIn(sketch, a))
  return (isFree(sketch, a) || isFree(sketch, b)) && endsIn(sketch, b).some((end) => ends.has(end))
}

const linesIn = (sketch: Sketch, picks: Picks): string[] => picks.filter((id) => isLine(sketch, id))

const ownPointsIn = (sketch: Sketch, picks: Picks): string[] =>
  picks.filter((id) => sketch.points.some((p) => p.id === id))

const endsIn = (sketch: Sketch, id: string): readonly string[] => {
  const entity = entityOf(sketch, id)
  return entity ? endsOf(entity) : []
}

/** A constraint from the first line picked to every other. */
const betweenLines =
  (kind: 'parallel' | 'perpendicular') =>
  (sketch: Sketch, picks: Picks): NewConstraint[] => {
    const [to, ...rest] = picks
    if (to === undefined || rest.length === 0) return []
    if (!picks.every((id) => isLine(sketch, id))) return []
    return rest.map((line) => ({ kind, line, to }))
  }

/** A constraint from the first curve picked to every other, if all are of a kind that has it. */
const betweenCurves =
  (kind: 'equal' | 'concentric', fits: (sketch: Sketch, id: string) => boolean) =>
  (sketch: Sketch, picks: Picks): NewConstraint[] => {
    const [to, ...rest] = picks
    if (to === undefined || rest.length === 0 || !picks.every((id) => fits(sketch, id))) return []
    return rest.map((curve) => ({ kind, curve, to }))
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
    kind: 'pointOn',
    make: pointOn,
    needs: 'Pick a curve or the axis, and points or other lines to lie on it.',
  },
  {
    kind: 'fixed',
    make: (sketch, picks) => {
      const points = ownPointsIn(sketch, picks)
      if (points.length !== picks.length) return []
      const locate = locator(sketch)
      return points.map((point) => {
        const { x, y } = locate(point)
        return { kind: 'fixed', point, x, y }
      })
    },
    needs: 'Pick one point or several.',
  },
  { kind: 'inLine', make: inLine, needs: 'Pick two points or more.' },
  { kind: 'parallel', make: betweenLines('parallel'), needs: 'Pick two lines or more.' },
  { kind: 'perpendicular', make: betweenLines('perpendicular'), needs: 'Pick two lines.' },
  {
    kind: 'tangent',
    make: (sketch, picks) => {
      const [to, ...rest] = picks
      if (to === undefined || rest.length === 0) return []
      const curves = picks.every((id) => id === AXIS_ID || entityOf(sketch, id) !== undefined)
      const round = rest.every(
        (id) =>
          goOnFreely(sketch, id, to) ||
          (!isFree(sketch, id) &&
            !isFree(sketch, to) &&
            (isRound(sketch, id) || isRound(sketch, to))),
      )
      return curves && round ? rest.map((curve) => ({ kind: 'tangent', curve, to })) : []
    },
    needs: 'Pick a curve, and arcs or lines to go on from it smoothly.',
  },
  {
    kind: 'concentric',
    make: betweenCurves('concentric', isRound),
    needs: 'Pick two arcs or circles, or more.',
  },
  {
    kind: 'equal',
    make: (sketch, picks) => [
      ...betweenCurves('equal', isLine)(sketch, picks),
      ...betweenCurves('equal', isRound)(sketch, picks),
    ],
    needs: 'Pick two lines or more, or two arcs or more.',
  },
  {
    kind: 'midpoint',
    make: (sketch, picks) => {
      const [line, ...lines] = linesIn(sketch, picks)
      const [point, ...points] = ownPointsIn(sketch, picks)
      if (line === undefined || point === undefined || lines.length + points.length > 0) return []
      if (picks.length !== 2 || endsIn(sketch, line).includes(point)) return []
      return [{ kind: 'midpoint', point, line }]
    },
    needs: 'Pick a point and a line.',
  },
  {
    kind: 'symmetric',
    make: symmetric,
    needs: 'Pick two points, or two curves alike, and then the line or point between them.',
  },
]

function pointOn(sketch: Sketch, picks: Picks): NewConstraint[] {
  const [curve, ...others] = picks.filter(
    (id) => id === AXIS_ID || entityOf(sketch, id) !== undefined,
  )
  const points = ownPointsIn(sketch, picks)
  if (curve === undefined || picks.length < 2) return []
  if (points.length + 1 + others.length !== picks.length) return []
  if (others.some((id) => !isLine(sketch, id) || isRound(sketch, curve))) return []
  // Lines put onto a line become collinear with it: both their ends lie on it.
  const own = new Set(endsIn(sketch, curve))
  const ends = others.flatMap((id) => endsIn(sketch, id)).filter((id) => !own.has(id))
  return [...new Set([...points, ...ends])].map((point) => ({ kind: 'pointOn', point, curve }))
}

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

/** Two points, or two lines, arcs or circles, mirror one another about the last pick. */
function symmetric(sketch: Sketch, picks: Picks): NewConstraint[] {
  const [one, two, three, more] = picks
  if (one === undefined || two === undefined || three === undefined || more !== undefined) return []
  const points = ownPointsIn(sketch, picks)
  const [p, q] = points
  // Two points and a line fit in any order.
  if (points.length === 2 && p !== undefined && q !== undefined) {
    const about = picks.find((id) => id !== p && id !== q) ?? ''
    if (about === AXIS_ID || isLine(sketch, about))
      return [{ kind: 'symmetric', a: p, b: q, about }]
  }
  if (!(three === AXIS_ID || isLine(sketch, three) || isPoint(sketch, three))) return []
  if (points.length === 3 || (points.length === 2 && three === ORIGIN_ID)) {
    return [{ kind: 'symmetric', a: one, b: two, about: three }]
  }
  const [first, second] = [entityOf(sketch, one), entityOf(sketch, two)]
  return first && second ? symmetricEntities(sketch, first, second, three) : []
}

/** What makes one entity the mirror image of another; nothing when they are not of one kind. */
export function symmetricEntities(
  sketch: Sketch,
  first: Entity,
  second: Entity,
  about: string,
): NewConstraint[] {
  const pair = (a: string, b: string): NewConstraint[] =>
    a === b ? [] : [{ kind: 'symmetric', a, b, about }]
  const radii: NewConstraint = { kind: 'equal', curve: second.id, to: first.id }
  if (first.kind === 'circle' && second.kind === 'circle') {
    return [...pair(first.centre, second.centre), radii]
  }
  if (first.kind === 'circle' || second.kind === 'circle' || first.kind !== second.kind) return []
  // Ends are paired so that they lie across from one another.
  const locate = locator(sketch)
  const [a, b, c, d] = [first.from, first.to, second.from, second.to].map(locate)
  const apart = (p = { x: 0, y: 0 }, q = p): number => Math.hypot(p.x - q.x, p.y - q.y)
  const straight = apart(a, c) + apart(b, d) <= apart(a, d) + apart(b, c)
  const pairs = straight
    ? [...pair(first.from, second.from), ...pair(first.to, second.to)]
    : [...pair(first.from, second.to), ...pair(first.to, second.from)]
  if (first.kind === 'curve' && second.kind === 'curve') {
    const [one, two] = straight
      ? [second.fromHandle, second.toHandle]
      : [second.toHandle, second.fromHandle]
    return [...pairs, ...pair(first.fromHandle, one), ...pair(first.toHandle, two)]
  }
  return first.kind === 'arc' ? [...pairs, radii] : pairs
}

/** The kinds that fit what is picked. */
export function fittingConstraints(sketch: Sketch, picks: Picks): ConstraintKind[] {
  return CONSTRAINT_OFFERS.filter((o) => o.make(sketch, picks).length > 0).map((o) => o.kind)
}

/**
 * Puts a constraint on picks. It is refused, with the names of those against it, when it cannot
 * hold, or when all of it is said by others already; of many picks, those that hold are passed over.
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
      let here = part
      let passedOver: Result<Part> | undefined
      for (const constraint of wanted) {
        const next = putOn(here, sketchId, constraint)
        if (next.ok) here = next.value
        else if (next.problem.code === ALREADY) passedOver ??= next
        else return next
      }
      return here === part && passedOver ? passedOver : succeed(here)
    },
  }
}

const ALREADY = 'constraint.redundant'

function putOn(part: Part, sketchId: string, constraint: NewConstraint): Result<Part> {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  if (!sketch) return succeed(part)
  const { part: next, id, against } = withTie(part, sketchId, constraint)
  if (!against) return succeed(next)
  const others = { ...against, members: against.members.filter((m) => m !== id) }
  const problem = disagreementProblem(sketch, others)
  const what = describeNew(sketch, constraint)
  const message =
    against.kind === 'conflict'
      ? `${what} cannot be put on. ${problem.message}`
      : `${what} holds already, by other constraints.`
  const code = against.kind === 'conflict' ? problem.code : ALREADY
  return { ok: false, problem: { ...problem, code, message, involves: others.members } }
}

function describeNew(sketch: Sketch, constraint: NewConstraint): string {
  return `“${describeItem(sketch, { ...constraint, id: '' } as Constraint)}”`
}
