import {
  AXIS_ID,
  offLine,
  type CurvePair,
  type Sketch,
  isFree,
  legAt,
  type FreeCurve,
} from '../../sketch'
import {
  advance,
  levelOf,
  offset,
  onLine,
  roundPoints,
  separation,
  straightOf,
  sumEquation,
  type Demand,
  type Reducible,
  type Setting,
} from '../../equations'
import { span, type ConstraintKind, type NewConstraint } from '../kind'
import { endsIn, entityOf, fromFirst, isRound } from '../picks'
import { areOne, sharedEnd } from '../shared'

export const tangent: ConstraintKind<CurvePair> = {
  fields: { curve: 'id', to: 'id' },
  words: (c, { name }) => `${name(c.curve)} tangent to ${name(c.to)}`,
  demands: (setting, c) => [touching(setting, c)],
  offer: {
    make: (sketch, picks) => {
      const pairs = fromFirst(sketch, picks, isCurve)
      const fit = pairs.every(([to, id]) => {
        if (goOnFreely(sketch, id, to)) return true
        if (isFreeIn(sketch, id) || isFreeIn(sketch, to)) return false
        return isRound(sketch, id) || isRound(sketch, to)
      })
      if (!fit) return []
      return pairs.map(([to, curve]): NewConstraint => ({ kind: 'tangent', curve, to }))
    },
    needs: 'Pick a curve, and arcs or lines to go on from it smoothly.',
  },
}

const isFreeIn = (sketch: Sketch, id: string): boolean => {
  const found = entityOf(sketch, id)
  return found !== undefined && isFree(found)
}

/** What lies beside a curve goes on as that does: nothing is asked of it. */
function isCurve(sketch: Sketch, id: string): boolean {
  const found = entityOf(sketch, id)
  return id === AXIS_ID || (found !== undefined && found.kind !== 'parallel')
}

/** Whether one of two that share an end is a free curve, which can leave it in any direction. */
function goOnFreely(sketch: Sketch, a: string, b: string): boolean {
  return endsIn(sketch, b).some((end) => [a, b].some((id) => hasLeg(sketch, id, end, a, b)))
}

/** Whether a free curve ends at a point both share, and a point of its own tells its direction there. */
function hasLeg(sketch: Sketch, id: string, end: string, a: string, b: string): boolean {
  const found = entityOf(sketch, id)
  const shared = endsIn(sketch, a).includes(end) && endsIn(sketch, b).includes(end)
  return shared && found !== undefined && isFree(found) && legAt(found, end === found.from) !== ''
}

/** Two curves touch without a corner: where they share an end, there; else somewhere. */
function touching(setting: Setting, c: CurvePair): Demand {
  const { entities, line, locate, ties, side } = setting
  const [one, two] = [entities.get(c.curve), entities.get(c.to)]
  const rounds = [roundPoints(setting, c.curve), roundPoints(setting, c.to)] as const
  const shared = sharedEnd(setting, one, two)
  const [first, second] = rounds
  if (one && isFree(one)) return smoothCurve(setting, c.id, shared, one, c.to)
  if (two && isFree(two)) return smoothCurve(setting, c.id, shared, two, c.curve)
  if (first && second) {
    if (shared !== undefined) return throughCentres(c.id, shared, first[0], second[0])
    const [p, q] = [ties.place(first[0]), ties.place(second[0])]
    const gap = span(p, q)
    const [r, s] = rounds.map((round) => {
      const [m, n] = (round ?? []).map((i) => ties.place(i))
      return m && n ? span(m, n) : 0
    })
    const greater = Math.max(r ?? 0, s ?? 0)
    const outside = side(c.id, gap - greater, Math.min(r ?? 0, s ?? 0)) > 0
    const larger = (r ?? 0) >= (s ?? 0) ? 1 : -1
    return sumEquation(c.id, [
      [1, separation(first[0], second[0])],
      [outside ? -1 : -larger, separation(...first)],
      [outside ? -1 : larger, separation(...second)],
    ])
  }
  const round = first ?? second
  if (!round) return sumEquation(c.id, [])
  const lineId = first ? c.to : c.curve
  const ends = line(lineId)
  if (shared !== undefined) return squareToRadius(c.id, shared, round[0], ends)
  const off = offLine(entities, locate, ties.place(round[0]), lineId)
  const [centre, rim] = round.map((i) => ties.place(i))
  const radius = centre && rim ? span(centre, rim) : 0
  return sumEquation(c.id, [
    [side(c.id, off, radius), offset(round[0], ...ends)],
    [-1, separation(...round)],
  ])
}

/** A free curve goes on smoothly from an end it shares: its handle there lies in the other's way. */
function smoothCurve(
  setting: Setting,
  owner: string,
  shared: number | undefined,
  curve: FreeCurve,
  otherId: string,
): Demand {
  const { entities, index, ties } = setting
  /** The point that tells a curve's direction where both end; the end itself where none does. */
  const legOf = (e: FreeCurve, end: number): number => {
    const leg = legAt(e, areOne(ties, index(e.from), end))
    return leg === '' ? end : index(leg)
  }
  const handle = shared === undefined ? undefined : legOf(curve, shared)
  if (shared === undefined || handle === undefined || handle === shared) {
    return sumEquation(owner, [])
  }
  const other = entities.get(otherId)
  if (other && isFree(other)) {
    const second = legOf(other, shared)
    return second === shared
      ? sumEquation(owner, [])
      : throughCentres(owner, shared, handle, second)
  }
  const round = roundPoints(setting, otherId)
  if (round) return squareToRadius(owner, shared, round[0], [shared, handle])
  return onLine(owner, handle, setting.line(otherId))
}

/** The radius to an end is square to the line: a tie when the line is axial or radial. */
function squareToRadius(
  owner: string,
  p: number,
  centre: number,
  [a, b]: readonly [number, number],
): Reducible {
  return {
    owner,
    reduce: (ties) => {
      const straight = straightOf(ties, a, b)
      if (!straight) return false
      const along = 1 - straight.across
      ties.tie(2 * p + along, 2 * centre + along, 0, owner, straight.support)
      return true
    },
    equations: () => [sumEquation(owner, [[1, advance(centre, p, a, b)]])],
  }
}

/** Two arcs go on smoothly at a point: it is in line with both their centres. */
function throughCentres(owner: string, p: number, a: number, b: number): Reducible {
  return {
    owner,
    reduce: (ties) => {
      for (const [known, other] of [
        [a, b],
        [b, a],
      ] as const) {
        const level = levelOf(ties, p, known)
        if (!level) continue
        const { across, support } = level
        ties.tie(2 * p + across, 2 * other + across, 0, owner, support)
        return true
      }
      return false
    },
    equations: () => [sumEquation(owner, [[1, offset(p, a, b)]])],
  }
}
