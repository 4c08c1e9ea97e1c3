import { AXIS_ID, ORIGIN_ID, locator, type Entity, type Sketch, type Symmetric } from '../../sketch'
import {
  advance,
  levelOf,
  middle,
  offset,
  sumEquation,
  weightedEquation,
  type Equation,
  type Reducible,
} from '../../equations'
import { x, y, type ConstraintKind, type NewConstraint, type Picks } from '../kind'
import { entityOf, isLine, isPoint, ownPointsIn } from '../picks'

export const symmetric: ConstraintKind<Symmetric> = {
  fields: { a: 'id', b: 'id', about: 'id' },
  words: (c, { name }) => `${name(c.a)} and ${name(c.b)} symmetric about ${name(c.about)}`,
  demands: ({ index, entities, line }, c) => {
    const [a, b] = [index(c.a), index(c.b)]
    if (c.about === AXIS_ID || entities.has(c.about)) return [mirror(c.id, a, b, line(c.about))]
    const m = index(c.about)
    return [x, y].map((axis) => middle(c.id, axis(m), axis(a), axis(b)))
  },
  offer: {
    make: onPicks,
    needs: 'Pick two points, or two curves alike, and then the line or point between them.',
  },
}

/** Two points mirror one another about a line. */
function mirror(owner: string, a: number, b: number, [c, d]: readonly [number, number]): Reducible {
  let along: number | undefined
  const whole = (): Equation[] => [
    sumEquation(owner, [
      [1, offset(a, c, d)],
      [1, offset(b, c, d)],
    ]),
    sumEquation(owner, [[1, advance(a, b, c, d)]]),
  ]
  return {
    owner,
    reduce: (ties) => {
      // About an axial or radial line one coordinate is shared, and the other has its middle there.
      const level = levelOf(ties, c, d)
      if (level && along === undefined) {
        along = level.across
        ties.tie(2 * a + 1 - along, 2 * b + 1 - along, 0, owner, level.support)
      }
      return false
    },
    equations: whole,
    left: () => {
      if (along === undefined) return whole()
      return [
        weightedEquation(owner, [
          [2 * c + along, 2],
          [2 * a + along, -1],
          [2 * b + along, -1],
        ]),
      ]
    },
  }
}

/** Two points, or two lines, arcs or circles, mirror one another about the last pick. */
function onPicks(sketch: Sketch, picks: Picks): NewConstraint[] {
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
  if (first.kind === 'parallel') return []
  // Ends are paired so that they lie across from one another.
  const locate = locator(sketch)
  const [a, b, c, d] = [first.from, first.to, second.from, second.to].map(locate)
  const apart = (p = { x: 0, y: 0 }, q = p): number => Math.hypot(p.x - q.x, p.y - q.y)
  const straight = apart(a, c) + apart(b, d) <= apart(a, d) + apart(b, c)
  const pairs = straight
    ? [...pair(first.from, second.from), ...pair(first.to, second.to)]
    : [...pair(first.from, second.to), ...pair(first.to, second.from)]
  if (first.kind === 'spline' && second.kind === 'spline') {
    if (first.by.length !== second.by.length || first.way !== second.way) return []
    const others = straight ? second.by : [...second.by].reverse()
    const inner = first.by.flatMap((p, i) => pair(p, others[i] ?? p))
    const [one, two] = straight
      ? [second.fromHandle, second.toHandle]
      : [second.toHandle, second.fromHandle]
    const handle = (a: string, b: string): NewConstraint[] =>
      a === '' || b === '' ? [] : pair(a, b)
    return [...pairs, ...inner, ...handle(first.fromHandle, one), ...handle(first.toHandle, two)]
  }
  if (first.kind === 'curve' && second.kind === 'curve') {
    const [one, two] = straight
      ? [second.fromHandle, second.toHandle]
      : [second.toHandle, second.fromHandle]
    return [...pairs, ...pair(first.fromHandle, one), ...pair(first.toHandle, two)]
  }
  return first.kind === 'arc' ? [...pairs, radii] : pairs
}
