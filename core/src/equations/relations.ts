import { offLine, roundOf, type Entities, type Locate } from '../sketch'
import { offset, separation, sumEquation, weightedEquation, type Equation } from './equations'
import type { Reducible, Ties } from './ties'

/** What constraints and sizes are told in: points as numbers, and what is drawn between them. */
export interface Setting {
  readonly entities: Entities
  readonly locate: Locate
  /** The number of a point. */
  readonly index: (pointId: string) => number
  /** The ends of a line, the axis included, as numbers. */
  readonly line: (id: string) => readonly [number, number]
  readonly ties: Ties
  /**
   * The side on which something is measured: 1 where `now` is not negative, −1 where it is.
   * @param now what is measured at the start
   * @param target what it is to be on its side, by size
   * @param arm length in mm by which angles are multiplied
   */
  readonly side: (owner: string, now: number, target: number, arm?: number) => 1 | -1
  /** The extent of the sketch in mm. */
  readonly extent: number
}

/** What remains to be met when a constraint or size has been read: ties are put on at once. */
export type Demand = Equation | Reducible

/** Two points that stand in line by ties: the coordinate they share, and the pair that is tied. */
interface Level {
  readonly across: number
  readonly support: readonly [number, number]
}

export function levelOf(ties: Ties, a: number, b: number): Level | undefined {
  for (const across of [0, 1]) {
    const support = [2 * a + across, 2 * b + across] as const
    if (ties.together(...support)) return { across, support }
  }
  return undefined
}

/** The same of a line's ends, which are not one point: the line is axial or radial. */
export function straightOf(ties: Ties, a: number, b: number): Level | undefined {
  const level = levelOf(ties, a, b)
  const along = level && 1 - level.across
  return along === undefined || ties.together(2 * a + along, 2 * b + along) ? undefined : level
}

/** The centre and a point of the rim of an arc or circle, as numbers. */
export function roundPoints(
  { entities, index }: Setting,
  id: string,
): [number, number] | undefined {
  const round = roundOf(entities.get(id))
  return round && [index(round.centre), index(round.rim)]
}

/** Two points are a length apart: a tie when they stand in line by other ties. */
export function apart(
  { side }: Setting,
  owner: string,
  a: number,
  b: number,
  length: number,
): Reducible {
  return {
    owner,
    reduce: (ties) => {
      const straight = straightOf(ties, a, b)
      if (!straight) return false
      const along = 1 - straight.across
      const [p, q] = [2 * a + along, 2 * b + along]
      ties.tie(p, q, side(owner, ties.gap(p, q), length) * length, owner, straight.support)
      return true
    },
    equations: () => [sumEquation(owner, [[1, separation(a, b)]], length)],
  }
}

/** A point lies on a line: a tie when the line is axial or radial. */
export function onLine(owner: string, p: number, [a, b]: readonly [number, number]): Reducible {
  return {
    owner,
    reduce: (ties) => {
      const straight = straightOf(ties, a, b)
      if (!straight) return false
      const { across, support } = straight
      ties.tie(2 * a + across, 2 * p + across, 0, owner, support)
      return true
    },
    equations: () => [sumEquation(owner, [[1, offset(p, a, b)]])],
  }
}

/** A point lies at a distance from a line, on the side where it is. */
export function besides(
  { line, entities, locate, ties, side: sideOf }: Setting,
  owner: string,
  p: number,
  lineId: string,
  target: number,
): Reducible {
  const [a, b] = line(lineId)
  const off = offLine(entities, locate, ties.place(p), lineId)
  return {
    owner,
    reduce: (ties) => {
      const level = levelOf(ties, a, b)
      if (!level) return false
      const [from, to] = [2 * a + level.across, 2 * p + level.across]
      ties.tie(from, to, sideOf(owner, ties.gap(from, to), target) * target, owner, level.support)
      return true
    },
    equations: () => [sumEquation(owner, [[sideOf(owner, off, target), offset(p, a, b)]], target)],
  }
}

/** A coordinate lies in the middle of two others. */
export function middle(owner: string, m: number, a: number, b: number): Reducible {
  return {
    owner,
    reduce: (ties) => {
      const gap = ties.between(a, b)
      if (gap === undefined) return false
      ties.tie(a, m, gap / 2, owner, [a, b])
      return true
    },
    equations: () => [
      weightedEquation(owner, [
        [m, 2],
        [a, -1],
        [b, -1],
      ]),
    ],
  }
}
