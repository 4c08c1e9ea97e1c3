import {
  cubicAt,
  cubicCurvatureAt,
  cubicLength,
  cubicPointAt,
  cubicPointsAlong,
  cubicSlope,
  cubicTangentAt,
  nearestOnCubic,
  parameterAt,
  turningPoints,
  type CubicPiece,
} from './cubic'
import {
  cross,
  distance,
  dot,
  mix,
  norm,
  rotate,
  subtract,
  unit,
  type Box,
  type Vec,
} from './vector'

/** A straight piece. */
export interface LinePiece {
  readonly kind: 'line'
  readonly from: Vec
  readonly to: Vec
}

/** A circular piece from one point to another about a centre; turn is counter-clockwise or not. */
export interface ArcPiece {
  readonly kind: 'arc'
  readonly from: Vec
  readonly to: Vec
  readonly centre: Vec
  readonly counterClockwise: boolean
}

/**
 * One smooth piece of a section's outline, run through by t from 0 to 1. Within a section a cubic
 * piece turns one way only and neither of its coordinates turns back: see `simplePieces`.
 */
export type Piece = LinePiece | ArcPiece | CubicPiece

export const line = (from: Vec, to: Vec): LinePiece => ({ kind: 'line', from, to })

export const arc = (from: Vec, to: Vec, centre: Vec, counterClockwise: boolean): ArcPiece => ({
  kind: 'arc',
  from,
  to,
  centre,
  counterClockwise,
})

/** The radius of an arc in mm. */
export const radiusOf = (a: ArcPiece): number => distance(a.from, a.centre)

/**
 * The angle an arc turns through in radians, positive counter-clockwise, in (0, 2π] by size.
 * Ends that coincide make a full circle.
 */
export function sweepOf(a: ArcPiece): number {
  const u = subtract(a.from, a.centre)
  const v = subtract(a.to, a.centre)
  const angle = Math.atan2(cross(u, v), dot(u, v))
  if (a.counterClockwise) return angle > 0 ? angle : angle + 2 * Math.PI
  return angle < 0 ? angle : angle - 2 * Math.PI
}

/** The point at t in mm. Stable for flat arcs of large radius: it is reckoned from the start. */
export function pointAt(piece: Piece, t: number): Vec {
  switch (piece.kind) {
    case 'line':
      return mix(piece.from, piece.to, t)
    case 'arc':
      return alongBow(piece, bowOf(piece), t)
    case 'cubic':
      return cubicPointAt(piece, t)
  }
}

/** What the places along an arc are reckoned from: found once for many of them. */
export interface Bow {
  /** the angle turned through in radians, as of `sweepOf` */
  readonly sweep: number
  /** in mm */
  readonly radius: number
  /** the direction of travel at the start */
  readonly tangent: Vec
}

export const bowOf = (arc: ArcPiece): Bow => ({
  sweep: sweepOf(arc),
  radius: radiusOf(arc),
  tangent: tangentAt(arc, 0),
})

/** The point of an arc at t in mm. */
export function alongBow({ from, to }: ArcPiece, { sweep, radius, tangent }: Bow, t: number): Vec {
  if (t === 0) return from
  if (t === 1) return to
  const half = (sweep * t) / 2
  const c = Math.cos(half)
  const s = Math.sin(half)
  const chord = 2 * radius * Math.abs(s)
  return {
    x: from.x + chord * (c * tangent.x - s * tangent.y),
    y: from.y + chord * (s * tangent.x + c * tangent.y),
  }
}

/** The unit tangent at t, in the direction of travel. */
export function tangentAt(piece: Piece, t: number): Vec {
  switch (piece.kind) {
    case 'line':
      return unit(subtract(piece.to, piece.from))
    case 'arc': {
      const outward = unit(subtract(piece.from, piece.centre))
      const start = piece.counterClockwise
        ? { x: -outward.y, y: outward.x }
        : { x: outward.y, y: -outward.x }
      return t === 0 ? start : rotate(start, sweepOf(piece) * t)
    }
    case 'cubic':
      return cubicTangentAt(piece, t)
  }
}

/** How fast a place moves along a piece as t grows, in mm. */
export function speedAt(piece: Piece, t: number): number {
  if (piece.kind !== 'cubic') return lengthOf(piece)
  return norm(cubicSlope(piece.on, parameterAt(piece, t))) * Math.abs(piece.end - piece.start)
}

/** The signed curvature at t in 1/mm, positive when the piece turns counter-clockwise. */
export function curvatureAt(piece: Piece, t: number): number {
  switch (piece.kind) {
    case 'line':
      return 0
    case 'arc':
      return (piece.counterClockwise ? 1 : -1) / radiusOf(piece)
    case 'cubic':
      return cubicCurvatureAt(piece, t)
  }
}

/** The tightest that a piece bends as a radius in mm; a line's is without end. */
export function leastRadius(piece: Piece): number {
  if (piece.kind === 'line') return Infinity
  if (piece.kind === 'arc') return radiusOf(piece)
  // The bend of a cubic has no closed form: it is looked at along it, finely enough for a warning.
  const bends = Array.from({ length: 101 }, (_, i) => Math.abs(cubicCurvatureAt(piece, i / 100)))
  return 1 / Math.max(...bends)
}

export function lengthOf(piece: Piece): number {
  switch (piece.kind) {
    case 'line':
      return distance(piece.from, piece.to)
    case 'arc':
      return Math.abs(sweepOf(piece)) * radiusOf(piece)
    case 'cubic':
      return cubicLength(piece)
  }
}

/**
 * The t of the first place of a piece whose distance from its start is a chord of this length in mm;
 * undefined when its end is nearer. A cubic must be simple, a line or an arc any.
 */
export function parameterAtChord(piece: Piece, chord: number): number | undefined {
  const reach = distance(piece.from, piece.to)
  switch (piece.kind) {
    case 'line':
      return within(chord / reach)
    case 'arc': {
      const half = chord / 2 / radiusOf(piece)
      return half > 1 ? undefined : within((2 * Math.asin(half)) / Math.abs(sweepOf(piece)))
    }
    case 'cubic': {
      if (chord >= reach) return within(chord / reach)
      let [low, high] = [0, 1]
      for (let i = 0; i < 52; i++) {
        const t = (low + high) / 2
        if (distance(piece.from, pointAt(piece, t)) < chord) low = t
        else high = t
      }
      return high
    }
  }
}

/** A share of a piece, that of its end by rounding too. */
const within = (t: number): number | undefined => (t <= 1 + 1e-6 ? Math.min(1, t) : undefined)

/** The same piece run through the other way. */
export function reversed<P extends Piece>(piece: P): P {
  const { from: to, to: from } = piece
  switch (piece.kind) {
    case 'line':
      return { ...piece, from, to }
    case 'arc':
      return { ...piece, from, to, counterClockwise: !piece.counterClockwise }
    case 'cubic':
      return { ...piece, from, to, start: piece.end, end: piece.start }
  }
}

/** The smallest box around a piece, exact at the extremes of curves. */
export function boundsOf(piece: Piece): Box {
  if (piece.kind === 'line') {
    const { from, to } = piece
    return {
      min: { x: Math.min(from.x, to.x), y: Math.min(from.y, to.y) },
      max: { x: Math.max(from.x, to.x), y: Math.max(from.y, to.y) },
    }
  }
  const box = [0, 0, 0, 0]
  boundsInto(box, 0, piece)
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = box
  return { min: { x: x0, y: y0 }, max: { x: x1, y: y1 } }
}

/** Puts left, low, right and high of a piece in mm into a row of numbers, from a place on. */
export function boundsInto(row: number[] | Float64Array, at: number, piece: Piece): void {
  const { from, to } = piece
  row[at] = Math.min(from.x, to.x)
  row[at + 1] = Math.min(from.y, to.y)
  row[at + 2] = Math.max(from.x, to.x)
  row[at + 3] = Math.max(from.y, to.y)
  if (piece.kind === 'line') return
  if (piece.kind === 'cubic') {
    const { on, start, end } = piece
    for (const s of turningPoints(on, 'x', start, end)) widen(row, at, cubicAt(on, s))
    for (const s of turningPoints(on, 'y', start, end)) widen(row, at, cubicAt(on, s))
    return
  }
  const r = radiusOf(piece)
  const { x, y } = piece.centre
  // An arc reaches to a side of its circle where it passes it.
  const passes = sidesPassed(piece)
  if ((passes & 1) !== 0) row[at + 2] = Math.max(row[at + 2] ?? 0, x + r)
  if ((passes & 2) !== 0) row[at + 3] = Math.max(row[at + 3] ?? 0, y + r)
  if ((passes & 4) !== 0) row[at] = Math.min(row[at] ?? 0, x - r)
  if ((passes & 8) !== 0) row[at + 1] = Math.min(row[at + 1] ?? 0, y - r)
}

function widen(row: number[] | Float64Array, at: number, p: Vec): void {
  row[at] = Math.min(row[at] ?? 0, p.x)
  row[at + 1] = Math.min(row[at + 1] ?? 0, p.y)
  row[at + 2] = Math.max(row[at + 2] ?? 0, p.x)
  row[at + 3] = Math.max(row[at + 3] ?? 0, p.y)
}

/** Which of right, high, left and low of its circle an arc passes: the bits 1, 2, 4 and 8. */
function sidesPassed({ from, to, centre, counterClockwise }: ArcPiece): number {
  // Counter-clockwise from a start to an end.
  const [a, b] = counterClockwise ? [from, to] : [to, from]
  const first = quarterOf(a.x - centre.x, a.y - centre.y)
  const last = quarterOf(b.x - centre.x, b.y - centre.y)
  const turn = (a.x - centre.x) * (b.y - centre.y) - (a.y - centre.y) * (b.x - centre.x)
  // Where the end does not lie behind the start in the same quarter, the arc goes all the way round.
  const wraps = first === last && turn <= 0
  const count = wraps ? 4 : (last - first + 4) % 4
  let sides = 0
  for (let i = 1; i <= count; i++) sides |= 1 << ((first + i) % 4)
  return sides
}

/** The quarter of the plane a direction lies in, counter-clockwise from right; its first side counts. */
function quarterOf(x: number, y: number): number {
  if (y >= 0) return x > 0 ? 0 : y > 0 ? 1 : 2
  return x < 0 ? 2 : 3
}

/** The parameter where an arc passes the ray from its centre in a direction, if it does. */
export function parameterOfDirection(piece: ArcPiece, direction: Vec): number | undefined {
  const sweep = sweepOf(piece)
  const u = subtract(piece.from, piece.centre)
  const angle = Math.atan2(cross(u, direction), dot(u, direction))
  const turn =
    sweep > 0 ? (angle + 2 * Math.PI) % (2 * Math.PI) : (angle - 2 * Math.PI) % (2 * Math.PI)
  const t = turn / sweep
  return t >= 0 && t <= 1 ? t : undefined
}

/** The distance in mm from a point to the nearest point of a piece, and that point's parameter. */
export function nearestOn(piece: Piece, p: Vec): { readonly distance: number; readonly t: number } {
  if (piece.kind === 'cubic') return nearestOnCubic(piece, p)
  const ends = [0, 1].map((t) => ({ t, distance: distance(p, t === 0 ? piece.from : piece.to) }))
  const t = interiorFoot(piece, p)
  const candidates =
    t === undefined ? ends : [...ends, { t, distance: distance(p, pointAt(piece, t)) }]
  return candidates.reduce((best, c) => (c.distance < best.distance ? c : best))
}

function interiorFoot(piece: LinePiece | ArcPiece, p: Vec): number | undefined {
  switch (piece.kind) {
    case 'line': {
      const d = subtract(piece.to, piece.from)
      const square = dot(d, d)
      if (square === 0) return undefined
      const t = dot(subtract(p, piece.from), d) / square
      return t > 0 && t < 1 ? t : undefined
    }
    case 'arc': {
      const d = subtract(p, piece.centre)
      return norm(d) > 0 ? parameterOfDirection(piece, d) : undefined
    }
  }
}

/**
 * Points along a piece, both ends included, whose chords stay within a distance of the curve.
 * @param chordTolerance largest distance between curve and chord in mm
 */
export function pointsAlong(piece: Piece, chordTolerance: number): Vec[] {
  if (piece.kind === 'line') return [piece.from, piece.to]
  if (piece.kind === 'cubic') return cubicPointsAlong(piece, chordTolerance)
  const bow = bowOf(piece)
  const step = chordAngle(bow.radius, chordTolerance)
  const count = Math.max(1, Math.ceil(Math.abs(bow.sweep) / step - 1e-9))
  return Array.from({ length: count + 1 }, (_, i) => alongBow(piece, bow, i / count))
}

/** The largest angle in radians between points on a circle whose chord stays within a tolerance. */
export function chordAngle(radius: number, chordTolerance: number): number {
  const ratio = Math.min(1, chordTolerance / Math.max(radius, 1e-12))
  return Math.min(Math.PI / 6, 2 * Math.acos(1 - ratio))
}
