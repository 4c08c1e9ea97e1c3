import {
  LEAST_PART,
  breaksOf,
  cubicAt,
  parameterAt,
  parameterNearPiece,
  stopsOf,
  type Cubic,
  type CubicPiece,
} from './cubic'
import { arc, line, reversed, tangentAt, type ArcPiece, type LinePiece, type Piece } from './piece'
import { add, cross, distance, isSameVec, scale, subtract, type Vec } from './vector'
import { VERTEX_TOLERANCE } from '../tolerances'

/** The stretch of a piece between two of its places, from one to the other in its own direction. */
export function stretch(piece: Piece, from: Vec, to: Vec): Piece {
  switch (piece.kind) {
    case 'line':
      return line(from, to)
    case 'arc':
      return { ...piece, from, to }
    case 'cubic': {
      const [begins, ends] = [isSameVec(from, piece.from), isSameVec(to, piece.to)]
      if (begins && ends) return piece
      const start = begins ? piece.start : parameterNearPiece(piece, from)
      return { ...piece, from, to, start, end: ends ? piece.end : parameterNearPiece(piece, to) }
    }
  }
}

/** The left normal of a piece at t: where a section's material lies beside its outline. */
export function leftNormal(piece: Piece, t: number): Vec {
  const tangent = tangentAt(piece, t)
  return { x: -tangent.y, y: tangent.x }
}

/**
 * A piece in parts that turn one way only and along which neither coordinate turns back, as sections
 * are made of. Lines and arcs are such by themselves; a cubic that is straight becomes lines.
 */
export function simplePieces(piece: Piece): Piece[] {
  if (piece.kind !== 'cubic') return [piece]
  const { on, start } = piece
  const stops = stopsOf(piece)
  if (stops.length === 2) return [isStraight(piece) ? line(piece.from, piece.to) : piece]
  const parts: Piece[] = []
  let from = piece.from
  stops.slice(1).forEach((end, i) => {
    const isLast = i === stops.length - 2
    const to = isLast ? piece.to : cubicAt(on, end)
    const length = distance(from, to)
    // What turns back within a vertex is a corner there.
    const before = parts.at(-1)
    if (length <= VERTEX_TOLERANCE) {
      if (isLast && before) parts[parts.length - 1] = { ...before, to }
      return
    }
    const part: CubicPiece = { ...piece, from, to, start: stops[i] ?? start, end }
    parts.push(length <= LEAST_PART || isStraight(part) ? line(from, to) : part)
    from = to
  })
  return parts
}

/** How far a curve that counts as straight may lie off its chord, in mm. */
const STRAIGHT = 1e-9

function isStraight(piece: CubicPiece): boolean {
  const chord = subtract(piece.to, piece.from)
  return [0.25, 0.5, 0.75].every((t) => {
    const off = subtract(cubicAt(piece.on, parameterAt(piece, t)), piece.from)
    return Math.abs(cross(chord, off)) <= STRAIGHT * Math.hypot(chord.x, chord.y)
  })
}

/**
 * The line or arc beside another, at a distance to its left. An arc whose radius is less than the
 * distance comes out on the far side of its centre, run through the same way round. What lies beside
 * a cubic is told by `parallelsTo`.
 * @param by in mm, negative to the right
 */
export function beside<P extends LinePiece | ArcPiece>(piece: P, by: number): P {
  const from = add(piece.from, scale(leftNormal(piece, 0), by))
  const to = add(piece.to, scale(leftNormal(piece, 1), by))
  return { ...piece, from, to }
}

export function translated(piece: Piece, by: Vec): Piece {
  return mapped(piece, (p) => add(p, by), false)
}

/** The piece mirrored in the axis, run through from end to start. */
export function mirroredInAxis(piece: Piece): Piece {
  return reversed(mapped(piece, (p) => ({ x: p.x, y: -p.y }), true))
}

/** The piece mirrored about the plane square to the axis at x, run through from end to start. */
export function mirroredAcross(piece: Piece, x: number): Piece {
  return reversed(mapped(piece, (p) => ({ x: 2 * x - p.x, y: p.y }), true))
}

/**
 * The image of a piece under a motion or a scaling of the plane.
 * @param mirrors whether the motion turns left into right
 */
export function mapped(piece: Piece, image: (p: Vec) => Vec, mirrors: boolean): Piece {
  const [from, to] = [image(piece.from), image(piece.to)]
  switch (piece.kind) {
    case 'line':
      return line(from, to)
    case 'arc':
      return arc(from, to, image(piece.centre), piece.counterClockwise !== mirrors)
    case 'cubic': {
      const [a, b, c, d] = piece.on
      return { ...piece, from, to, on: [image(a), image(b), image(c), image(d)] }
    }
  }
}

/** Whether two pieces lie on one curve, the second going on where the first ends. */
export function goesOn(a: CubicPiece, b: CubicPiece, tolerance: number): boolean {
  const way = Math.sign(a.end - a.start)
  if (way !== Math.sign(b.end - b.start) || Math.abs(a.end - b.start) > 1e-6) return false
  const isSame = (p: Cubic, q: Cubic): boolean =>
    p === q || p.every((v, i) => distance(v, q[i] ?? v) <= tolerance)
  // Where a curve is taken apart it stays so, that its parts stay simple.
  return isSame(a.on, b.on) && !breaksOf(a.on).some((s) => Math.abs(s - a.end) < 1e-6)
}
