import { stretch } from './change'
import { cubicAt, parameterWhere, turningPoints, type CubicPiece } from './cubic'
import { parameterOfDirection, pointAt, radiusOf, type Piece } from './piece'
import { add, type Vec } from './vector'

/** A coordinate of the section plane: along the axis, or the radius. */
export type Coordinate = 'x' | 'y'

export const otherOf = (c: Coordinate): Coordinate => (c === 'x' ? 'y' : 'x')

/** The piece in parts along each of which a coordinate only grows or only falls. */
export function monotoneIn(piece: Piece, coordinate: Coordinate): Piece[] {
  if (piece.kind === 'line') return [piece]
  if (piece.kind === 'cubic') return monotoneCubic(piece, coordinate)
  const r = radiusOf(piece)
  const cuts = [1, -1]
    .map((sign) => {
      const direction = coordinate === 'x' ? { x: sign * r, y: 0 } : { x: 0, y: sign * r }
      return { t: parameterOfDirection(piece, direction), at: add(piece.centre, direction) }
    })
    .filter((c) => c.t !== undefined && c.t > 1e-12 && c.t < 1 - 1e-12)
    .sort((a, b) => (a.t ?? 0) - (b.t ?? 0))
  const places = [piece.from, ...cuts.map((c) => c.at), piece.to]
  return places.slice(1).map((to, i) => stretch(piece, places[i] ?? piece.from, to))
}

function monotoneCubic(piece: CubicPiece, coordinate: Coordinate): Piece[] {
  const { on, start, end } = piece
  const turns = [...turningPoints(on, coordinate, start, end)]
  if (end < start) turns.reverse()
  const stops = [start, ...turns, end]
  const places = [piece.from, ...turns.map((s) => cubicAt(on, s)), piece.to]
  return stops.slice(1).map((next, i): CubicPiece => {
    const ends = { from: places[i] ?? piece.from, to: places[i + 1] ?? piece.to }
    return { ...piece, ...ends, start: stops[i] ?? start, end: next }
  })
}

/**
 * A part of a piece along which a coordinate only grows or only falls, as a function of that
 * coordinate between two values.
 */
export interface Course {
  readonly piece: Piece
  readonly low: number
  readonly high: number
  /** +1 where the piece runs towards growing values, −1 else. */
  readonly way: 1 | -1
  /** The other coordinate at a value between low and high, in mm. */
  readonly at: (value: number) => number
}

/** The parts of a piece as functions of a coordinate; those along which it does not change are none. */
export function coursesOf(piece: Piece, coordinate: Coordinate): Course[] {
  return monotoneIn(piece, coordinate).flatMap((part) => {
    const [a, b] = [part.from[coordinate], part.to[coordinate]]
    if (a === b) return []
    const low = Math.min(a, b)
    const high = Math.max(a, b)
    return [{ piece: part, low, high, way: a < b ? 1 : -1, at: functionOf(part, coordinate) }]
  })
}

function functionOf(piece: Piece, coordinate: Coordinate): (value: number) => number {
  const other = otherOf(coordinate)
  const { from, to } = piece
  if (piece.kind === 'line') {
    const slope = (to[other] - from[other]) / (to[coordinate] - from[coordinate])
    return (value) => {
      // From the nearer end, so that ends come out to the last digit.
      const end = Math.abs(value - from[coordinate]) < Math.abs(value - to[coordinate]) ? from : to
      return end[other] + slope * (value - end[coordinate])
    }
  }
  if (piece.kind === 'cubic') {
    return (value) => {
      if (value === from[coordinate]) return from[other]
      if (value === to[coordinate]) return to[other]
      return cubicAt(piece.on, parameterWhere(piece, coordinate, value))[other]
    }
  }
  const centre = piece.centre
  const r = radiusOf(piece)
  const side = Math.sign(pointAt(piece, 0.5)[other] - centre[other]) || 1
  return (value) => {
    const across = value - centre[coordinate]
    return centre[other] + side * Math.sqrt(Math.max(0, (r - across) * (r + across)))
  }
}

/** The part of a course below a value, run through in the piece's own direction. */
export function courseUpTo(course: Course, coordinate: Coordinate, value: number): Piece {
  const { piece, way } = course
  const cut: Vec =
    coordinate === 'x' ? { x: value, y: course.at(value) } : { x: course.at(value), y: value }
  return way > 0 ? stretch(piece, piece.from, cut) : stretch(piece, cut, piece.to)
}
