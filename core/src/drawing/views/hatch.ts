import { line, meetingsOf, pointsAlong, rotate, vec, type Piece } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'

/** How hatching of one body runs (ISO 128-3:2020): narrow lines, those of its neighbour another way or at another distance. */
export interface Hatching {
  /** From the axis, in radians. */
  readonly angle: number
  /** In mm of paper. */
  readonly apart: number
}

const EIGHTH = Math.PI / 4

/** The way of the n-th body. */
export const hatchingOf = (n: number, size: number): Hatching => ({
  angle: n % 2 === 0 ? EIGHTH : 3 * EIGHTH,
  // Wider where the area is large, and a little different for every other pair.
  apart: Math.max(1.6, Math.min(4, size / 40)) * (1 + 0.3 * (Math.floor(n / 2) % 3)),
})

/** More lines than this would be a grey area. */
const MOST_LINES = 1500

/** Lines across closed outlines; what an even number of them encloses is none. */
export function hatchLines(
  loops: readonly (readonly Piece[])[],
  { angle, apart }: Hatching,
): Piece[] {
  const pieces = loops.flat()
  if (pieces.length === 0) return []
  // Turned so that the lines lie level.
  const levels = pieces.map((piece) => {
    const heights = pointsAlong(piece, 0.05).map((p) => rotate(p, -angle).y)
    return { piece, low: Math.min(...heights) - 0.1, high: Math.max(...heights) + 0.1 }
  })
  const low = Math.min(...levels.map((l) => l.low))
  const high = Math.max(...levels.map((l) => l.high))
  const ends = pieces.flatMap((p) => [rotate(p.from, -angle).x, rotate(p.to, -angle).x])
  const size = Math.max(...ends) - Math.min(...ends) + high - low
  const [left, right] = [Math.min(...ends) - size, Math.max(...ends) + size]
  const step = Math.max(apart, (high - low) / MOST_LINES)
  const lines: Piece[] = []
  // From a place of its own, so that lines seldom run through corners.
  for (let v = Math.ceil(low / step) * step + 0.317 * step; v < high; v += step) {
    const ray = line(rotate(vec(left, v), angle), rotate(vec(right, v), angle))
    const stops = levels
      .filter((l) => l.low <= v && v <= l.high)
      .flatMap(({ piece }) => meetingsOf(ray, piece, VERTEX_TOLERANCE))
      .map((m) => rotate(m.at, -angle).x)
      .sort((a, b) => a - b)
    // Through a corner both its edges are met.
    const clean = stops.filter((s, i) => i === 0 || s - (stops[i - 1] ?? s) > 1e-7)
    if (clean.length % 2 === 1) continue
    for (let i = 0; i + 1 < clean.length; i += 2) {
      const [a, b] = [clean[i] ?? 0, clean[i + 1] ?? 0]
      lines.push(line(rotate(vec(a, v), angle), rotate(vec(b, v), angle)))
    }
  }
  return lines
}
