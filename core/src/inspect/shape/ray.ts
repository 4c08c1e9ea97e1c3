import {
  add,
  boundsOf,
  distance,
  line,
  meetingsOf,
  scale,
  type Box,
  type Piece,
  type Vec,
} from '../../geometry'
import { liesOnAxis, loopsOf, type Section } from '../../section'
import { VERTEX_TOLERANCE } from '../../tolerances'

/** A piece that a straight way may meet. */
interface Wall {
  readonly piece: Piece
  readonly box: Box
}

export type Walls = readonly Wall[]

/** The edges of a section that are faces, as pieces. */
export const facesOf = (section: Section): readonly Piece[] =>
  loopsOf(section)
    .flat()
    .filter((e) => !liesOnAxis(e))
    .map((e) => e.piece)

export const wallsOf = (pieces: readonly Piece[]): Walls =>
  pieces.map((piece) => ({ piece, box: boundsOf(piece) }))

/**
 * How far it is from a place in a direction to the next wall, in mm; what touches the place itself is none.
 * @param way of length 1
 * @param reach what is told where there is none as near as that
 */
export function wayTo(walls: Walls, at: Vec, way: Vec, reach: number): number {
  let least = reach
  for (const { piece, box } of walls) {
    if (misses(box, at, way)) continue
    const ray = line(at, add(at, scale(way, least)))
    for (const m of meetingsOf(ray, piece, VERTEX_TOLERANCE)) {
      const far = distance(m.at, at)
      if (far > 2 * VERTEX_TOLERANCE) least = Math.min(least, far)
    }
  }
  return least
}

/** Whether a box lies all on one side of a ray, or behind it. */
function misses({ min, max }: Box, at: Vec, way: Vec): boolean {
  const [left, right, low, high] = [min.x - at.x, max.x - at.x, min.y - at.y, max.y - at.y]
  const across = [left, right].flatMap((x) => [low, high].map((y) => way.x * y - way.y * x))
  const isBeside =
    across.every((v) => v > VERTEX_TOLERANCE) || across.every((v) => v < -VERTEX_TOLERANCE)
  const along = Math.max(way.x * left, way.x * right) + Math.max(way.y * low, way.y * high)
  return isBeside || along < -VERTEX_TOLERANCE
}
