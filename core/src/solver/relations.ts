import {
  offLine,
  roundOf,
  signedAngle,
  type CurvePair,
  type Entities,
  type LinePair,
  type Locate,
  type Repeat,
} from '../sketch'
import {
  advance,
  angleEquation,
  offset,
  separation,
  sumEquation,
  weightedEquation,
  type Equation,
} from './equations'
import type { Reducible, Ties } from './reduce'

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

/** Parallel to a straight line of the axes' directions is a tie; else the angle is held. */
export function direction(
  { line, entities, locate, extent, side }: Setting,
  c: LinePair,
): Reducible {
  const [first, second] = [line(c.line), line(c.to)]
  const now = signedAngle({ ...c, reversed: false }, entities, locate)
  const turned = c.kind === 'perpendicular' ? 1 : 0
  return {
    owner: c.id,
    reduce: (ties) => {
      for (const [known, other] of [
        [second, first],
        [first, second],
      ] as const) {
        const straight = straightOf(ties, ...known)
        if (!straight) continue
        const across = turned === 1 ? 1 - straight.across : straight.across
        ties.tie(2 * other[0] + across, 2 * other[1] + across, 0, c.id, straight.support)
        return true
      }
      return false
    },
    // Lines are made parallel or square by the angle that is nearest to the one they have.
    equations: () => {
      const angle =
        turned === 1
          ? (side(c.id, Math.sin(now), 1, extent) * Math.PI) / 2
          : side(c.id, Math.cos(now), 1, extent) > 0
            ? 0
            : Math.PI
      return [angleEquation(c.id, first, second, angle, extent, false)]
    },
  }
}

export function equal(setting: Setting, c: CurvePair): Equation {
  const [a, b] = [c.curve, c.to].map((id) => {
    const span = roundPoints(setting, id) ?? setting.line(id)
    return separation(span[0], span[1])
  })
  return sumEquation(
    c.id,
    a && b
      ? [
          [1, a],
          [-1, b],
        ]
      : [],
  )
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

/** Two points mirror one another about a line. */
export function mirror(
  owner: string,
  a: number,
  b: number,
  [c, d]: readonly [number, number],
): Reducible {
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

/** Every point of a copy lies one pitch from its like in the copy before. */
export function repeated({ index, line, ties }: Setting, c: Repeat): Demand[] {
  const rows = [c.points, ...c.copies].map((row) => row.map(index))
  const [first = [], second = []] = rows
  const [a, b] = [first[0] ?? 0, second[0] ?? 0]
  const demands: Demand[] = []
  const straight = c.along === 'axial' ? 1 : c.along === 'radial' ? 0 : undefined
  if (straight !== undefined) ties.tie(2 * a + straight, 2 * b + straight, 0, c.id)
  else {
    const [p, q] = line(c.along)
    demands.push(
      sumEquation(c.id, [
        [1, offset(b, p, q)],
        [-1, offset(a, p, q)],
      ]),
    )
  }
  // A point that two copies share is said once: it ends the one and begins the other.
  const said = new Set([`${a} ${b}`])
  rows.slice(1).forEach((row, k) => {
    row.forEach((point, j) => {
      const before = rows[k]?.[j] ?? 0
      if (said.has(`${before} ${point}`)) return
      said.add(`${before} ${point}`)
      for (const axis of [0, 1]) {
        const [from, to] = [2 * before + axis, 2 * point + axis]
        const [base, next] = [2 * a + axis, 2 * b + axis]
        if (axis === straight) ties.tie(from, to, 0, c.id)
        else demands.push(samePitch(c.id, [base, next], [from, to]))
      }
    })
  })
  return demands
}

/** One coordinate goes on from another as a second pair does: a tie once that pair is tied. */
function samePitch(
  owner: string,
  [base, next]: readonly [number, number],
  [from, to]: readonly [number, number],
): Reducible {
  return {
    owner,
    reduce: (ties) => {
      for (const [[a, b], [p, q]] of [
        [
          [base, next],
          [from, to],
        ],
        [
          [from, to],
          [base, next],
        ],
      ] as const) {
        const pitch = ties.between(a, b)
        if (pitch === undefined) continue
        ties.tie(p, q, pitch, owner, [a, b])
        return true
      }
      return false
    },
    equations: () => [
      weightedEquation(owner, [
        [to, 1],
        [from, -1],
        [next, -1],
        [base, 1],
      ]),
    ],
  }
}
