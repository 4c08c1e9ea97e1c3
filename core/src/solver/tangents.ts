import { offLine, type CurvePair, type Entity, type SketchCurve } from '../sketch'
import { advance, offset, separation, sumEquation } from './equations'
import type { Reducible, Ties } from './reduce'
import { levelOf, onLine, roundPoints, straightOf, type Demand, type Setting } from './relations'

/** Whether two points are one, by number or by ties of both coordinates. */
const areOne = (ties: Ties, p: number, q: number): boolean =>
  p === q || (ties.together(2 * p, 2 * q) && ties.together(2 * p + 1, 2 * q + 1))

/** Two curves touch without a corner: where they share an end, there; else somewhere. */
export function tangent(setting: Setting, c: CurvePair): Demand {
  const { entities, index, line, locate, ties, side } = setting
  const [one, two] = [entities.get(c.curve), entities.get(c.to)]
  const rounds = [roundPoints(setting, c.curve), roundPoints(setting, c.to)] as const
  const shared = sharedEnd(one, two)
  const [first, second] = rounds
  if (one?.kind === 'curve') return smoothCurve(setting, c.id, shared, one, c.to)
  if (two?.kind === 'curve') return smoothCurve(setting, c.id, shared, two, c.curve)
  if (first && second) {
    if (shared !== undefined) return throughCentres(c.id, shared, first[0], second[0])
    const [p, q] = [ties.place(first[0]), ties.place(second[0])]
    const gap = Math.hypot(q.x - p.x, q.y - p.y)
    const [r, s] = rounds.map((round) => {
      const [m, n] = (round ?? []).map((i) => ties.place(i))
      return m && n ? Math.hypot(n.x - m.x, n.y - m.y) : 0
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
  const radius = centre && rim ? Math.hypot(rim.x - centre.x, rim.y - centre.y) : 0
  return sumEquation(c.id, [
    [side(c.id, off, radius), offset(round[0], ...ends)],
    [-1, separation(...round)],
  ])

  function sharedEnd(a: Entity | undefined, b: Entity | undefined): number | undefined {
    const ends = (e: Entity | undefined): number[] =>
      e && e.kind !== 'circle' ? [index(e.from), index(e.to)] : []
    return ends(a).find((p) => ends(b).some((q) => areOne(ties, p, q)))
  }
}

/** A free curve goes on smoothly from an end it shares: its handle there lies in the other's way. */
function smoothCurve(
  setting: Setting,
  owner: string,
  shared: number | undefined,
  curve: SketchCurve,
  otherId: string,
): Demand {
  if (shared === undefined) return sumEquation(owner, [])
  const { entities, index, ties } = setting
  const handleOf = (e: SketchCurve): number =>
    index(areOne(ties, index(e.from), shared) ? e.fromHandle : e.toHandle)
  const other = entities.get(otherId)
  const handle = handleOf(curve)
  if (other?.kind === 'curve') return throughCentres(owner, shared, handle, handleOf(other))
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
