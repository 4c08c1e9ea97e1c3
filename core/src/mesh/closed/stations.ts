import type { Strip } from '../lathe'
import { endsOf, openingsAt, type Cut, type Spot, type Surface } from './cuts'

/** Stations nearer to one another than this are one, in mm. */
export const NEAR = 1e-7
/** So often a stretch is halved at most. */
const MOST_HALVED = 14

/**
 * Places along the axis between which no tool begins or ends in any surface, and edges of what is open stay within a
 * tolerance of their chords.
 */
export function stationsOf(
  surfaces: readonly Surface[],
  strips: readonly Strip[],
  cuts: readonly Cut[],
  tolerance: number,
): number[] {
  // Rows of the full turn come first: other faces meet there.
  const rows = surfaces.flatMap((s) => (strips[s.strip]?.points ?? []).map((p) => p.x))
  const met = surfaces.flatMap((s) =>
    s.cuts.flatMap((cut) => [
      ...cut.samples.filter((u) => u > s.from && u < s.to),
      ...levelsOf(cut)
        .flatMap(s.whereIs)
        .filter((u) => u > s.from && u < s.to),
    ]),
  )
  const found: number[] = []
  for (const x of [...rows, ...cuts.flatMap((c) => [c.from, c.to]), ...met]) {
    const near = found.some((y) => Math.abs(x - y) < NEAR)
    if (!near) found.push(x)
  }
  found.sort((a, b) => a - b)
  return found.flatMap((x, i) => {
    const next = found[i + 1]
    return next === undefined ? [x] : [x, ...between(surfaces, [x, next], tolerance, MOST_HALVED)]
  })
}

/** Radii at which a floor or a wall along the axis comes out of a surface. */
const levelsOf = ({ floor, sides }: Cut): number[] => [
  floor,
  ...sides.flatMap((s) => (s.level === undefined ? [] : [Math.hypot(floor, s.level)])),
]

function between(
  surfaces: readonly Surface[],
  [from, to]: readonly [number, number],
  tolerance: number,
  halvings: number,
): number[] {
  const middle = (from + to) / 2
  const isFar = surfaces.some((s) => {
    if (middle < s.from || middle > s.to) return false
    return openingsAt(s.cuts, middle, s.radiusAt(middle)).some((opening) => {
      const [a, m, b] = [from, middle, to].map((u) =>
        endsOf(opening, u, s.radiusAt(u)).map((spot) => ({ ...spot, u })),
      )
      if (!a || !m || !b) return false
      return [0, 1].some((end) => {
        const [p, q, r] = [a[end], m[end], b[end]]
        return p && q && r && offChord(p, q, r) > tolerance
      })
    })
  })
  if (!isFar || halvings === 0) return []
  return [
    ...between(surfaces, [from, middle], tolerance, halvings - 1),
    middle,
    ...between(surfaces, [middle, to], tolerance, halvings - 1),
  ]
}

interface Point extends Spot {
  readonly u: number
}

/** How far a point lies from the straight line between two others. */
function offChord(a: Point, p: Point, b: Point): number {
  const [u, t, w] = [b.u - a.u, b.t - a.t, b.w - a.w]
  const share = ((p.u - a.u) * u + (p.t - a.t) * t + (p.w - a.w) * w) / (u * u + t * t + w * w)
  return Math.hypot(p.u - a.u - share * u, p.t - a.t - share * t, p.w - a.w - share * w)
}
