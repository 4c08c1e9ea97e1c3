import { arc, line, pointAt, tangentAt, type Piece } from './piece'
import { add, scale, type Vec } from './vector'

/** The stretch of a piece between two of its places, from one to the other in its own direction. */
export function stretch(piece: Piece, from: Vec, to: Vec): Piece {
  return piece.kind === 'line' ? line(from, to) : { ...piece, from, to }
}

/** The left normal of a piece at t: where a section's material lies beside its outline. */
export function leftNormal(piece: Piece, t: number): Vec {
  const tangent = tangentAt(piece, t)
  return { x: -tangent.y, y: tangent.x }
}

/**
 * The curve beside a piece, at a distance to its left. An arc whose radius is less than the distance
 * comes out on the far side of its centre, run through the same way round.
 * @param by in mm, negative to the right
 */
export function beside(piece: Piece, by: number): Piece {
  const from = add(piece.from, scale(leftNormal(piece, 0), by))
  const to = add(pointAt(piece, 1), scale(leftNormal(piece, 1), by))
  return piece.kind === 'line' ? line(from, to) : { ...piece, from, to }
}

export function translated(piece: Piece, by: Vec): Piece {
  const from = add(piece.from, by)
  const to = add(piece.to, by)
  if (piece.kind === 'line') return line(from, to)
  return { ...piece, from, to, centre: add(piece.centre, by) }
}

/** The piece mirrored about the plane square to the axis at x, run through from end to start. */
export function mirroredAcross(piece: Piece, x: number): Piece {
  const image = (p: Vec): Vec => ({ x: 2 * x - p.x, y: p.y })
  if (piece.kind === 'line') return line(image(piece.to), image(piece.from))
  // Mirroring turns the direction of travel round, and running backwards turns it back.
  return arc(image(piece.to), image(piece.from), image(piece.centre), piece.counterClockwise)
}
