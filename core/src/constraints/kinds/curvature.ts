import { bendOf, isFree, type CurvePair, type Entity, type Sketch } from '../../sketch'
import {
  composed,
  offset,
  roundPoints,
  separation,
  sumEquation,
  type Demand,
  type Measure,
  type Setting,
} from '../../equations'
import { span, type ConstraintKind, type NewConstraint } from '../kind'
import { endsIn, entityOf, fromFirst } from '../picks'
import { areOne, sharedEnd } from '../shared'

/**
 * A free curve bends at an end as what it goes on from does. That it goes on without a corner is a constraint of its
 * own (tangent): with both the curvature has no jump (G² continuity).
 */
export const curvature: ConstraintKind<CurvePair> = {
  fields: { curve: 'id', to: 'id' },
  words: (c, { name }) => `${name(c.curve)} bends on from ${name(c.to)}`,
  demands: (setting, c) => [bendingOn(setting, c)],
  offer: {
    make: (sketch, picks) =>
      fromFirst(sketch, picks, (s, id) => entityOf(s, id) !== undefined).flatMap(
        ([to, curve]): NewConstraint[] => {
          const [own, other] = [bendsIn(sketch, curve, to), bendsIn(sketch, to, curve)]
          if (own) return [{ kind: 'curvature', curve, to }]
          return other ? [{ kind: 'curvature', curve: to, to: curve }] : []
        },
      ),
    needs: 'Pick a piece, and a free curve over a frame that ends where it does.',
  },
}

/** Whether points of a free curve tell how it bends where it meets another piece. */
function bendsIn(sketch: Sketch, id: string, toId: string): boolean {
  const [own, to] = [entityOf(sketch, id), entityOf(sketch, toId)]
  const end = endsIn(sketch, id).find((p) => endsIn(sketch, toId).includes(p))
  if (!own || !to || end === undefined || !isFree(own)) return false
  return bendOf(own, own.from === end) !== undefined && knowsBend(to, end)
}

const knowsBend = (entity: Entity, end: string): boolean =>
  isFree(entity) ? bendOf(entity, entity.from === end) !== undefined : entity.kind !== 'parallel'

function bendingOn(setting: Setting, c: CurvePair): Demand {
  const { entities, index, ties } = setting
  const [own, to] = [entities.get(c.curve), entities.get(c.to)]
  const nothing = sumEquation(c.id, [])
  const p = sharedEnd(setting, own, to)
  if (!own || !to || !isFree(own) || to.kind === 'circle' || p === undefined) return nothing
  const bend = bendOf(own, areOne(ties, index(own.from), p))
  if (!bend) return nothing
  const [leg, next] = [index(bend.leg), index(bend.next)]
  // What is beside the leg bends the curve; where it goes on as a line nothing may be.
  if (to.kind === 'line') return sumEquation(c.id, [[1, offset(next, p, leg)]])
  // What is far off at first must not be made right by a leg of no length: the equation is of curvatures, times an area.
  const area = span(ties.place(p), ties.place(leg)) ** 2 || 1
  const ownBend = bends(bend.share, offset(next, p, leg), separation(p, leg))
  const round = roundPoints(setting, c.to)
  if (round) {
    const [centre] = round
    const otherBend = bends(1, offset(centre, p, leg), separation(centre, p))
    return sumEquation(c.id, [[1, alike(area, ownBend, otherBend, -1)]])
  }
  const other = isFree(to) ? bendOf(to, areOne(ties, index(to.from), p)) : undefined
  if (!other) return nothing
  const [q, r] = [index(other.leg), index(other.next)]
  const otherBend = bends(other.share, offset(r, p, q), separation(p, q))
  // The other curve leaves the other way: what is to its left is to the right of the first.
  return sumEquation(c.id, [[1, alike(area, ownBend, otherBend, 1)]])
}

/**
 * A curvature as a share k times h / a²: of a curve h is how far its next point lies beside its leg, and a the leg's
 * length; of a circle h is how far its centre lies beside the leg, which is its radius a where it goes on smoothly.
 */
interface Curvature {
  readonly share: number
  readonly off: Measure
  readonly reach: Measure
}

const bends = (share: number, off: Measure, reach: Measure): Curvature => ({ share, off, reach })

/** The first curvature and the second, with a sign, times an area come to nought. */
function alike(area: number, one: Curvature, two: Curvature, sign: 1 | -1): Measure {
  return composed([one.off, one.reach, two.off, two.reach], ([h = 0, a = 0, g = 0, b = 0]) => {
    const [first, second] = [area * one.share, sign * area * two.share]
    const [length, other] = [a || LEAST, b || LEAST]
    const [p, q] = [first / length ** 2, second / other ** 2]
    return {
      value: p * h + q * g,
      partial: [p, (-2 * p * h) / length, q, (-2 * q * g) / other],
    }
  })
}

/** Stands for a length of nought in a quotient, in mm. */
const LEAST = 1e-6
