import { derivativeOf, product, sum, valueAt, zerosOf, type Bernstein } from './bernstein'
import { adaptiveGauss } from './gauss'
import {
  cross,
  distance,
  dot,
  mix,
  isSameVec,
  norm,
  scale,
  subtract,
  unit,
  type Vec,
} from './vector'
import { once } from '../once'

/** A cubic Bézier curve by its four control points, in mm. */
export type Cubic = readonly [Vec, Vec, Vec, Vec]

/** A stretch of a cubic curve between two of its parameters, run through from start to end. */
export interface CubicPiece {
  readonly kind: 'cubic'
  /** Where it begins and ends; its curve comes there within the vertex tolerance. */
  readonly from: Vec
  readonly to: Vec
  readonly on: Cubic
  readonly start: number
  readonly end: number
}

/** A whole cubic curve as one piece. */
export const cubic = (from: Vec, fromHandle: Vec, toHandle: Vec, to: Vec): CubicPiece =>
  cubicOn([from, fromHandle, toHandle, to])

/** All of a cubic curve as one piece. */
export const cubicOn = (on: Cubic): CubicPiece => ({
  ...{ kind: 'cubic', from: on[0], to: on[3], on },
  ...{ start: 0, end: 1 },
})

/** Whether two pieces of one and the same curve are the same piece. */
export const isSamePiece = (one: CubicPiece, other: CubicPiece): boolean =>
  one.start === other.start &&
  one.end === other.end &&
  isSameVec(one.from, other.from) &&
  isSameVec(one.to, other.to)

/** The two coordinates of a curve as polynomials of its parameter. */
const xs = (c: Cubic): Bernstein => c.map((p) => p.x)
const ys = (c: Cubic): Bernstein => c.map((p) => p.y)

/** The curve's parameter at t of a piece. */
export const parameterAt = ({ start, end }: CubicPiece, t: number): number =>
  start + (end - start) * t

/** The place on a curve at a parameter. */
export function cubicAt([a, b, c, d]: Cubic, s: number): Vec {
  const r = 1 - s
  const [i, j, k, l] = [r * r * r, 3 * r * r * s, 3 * r * s * s, s * s * s]
  return {
    x: i * a.x + j * b.x + k * c.x + l * d.x,
    y: i * a.y + j * b.y + k * c.y + l * d.y,
  }
}

/** The first derivative of a curve by its parameter. */
export function cubicSlope([a, b, c, d]: Cubic, s: number): Vec {
  const r = 1 - s
  const [i, j, k] = [3 * r * r, 6 * r * s, 3 * s * s]
  return {
    x: i * (b.x - a.x) + j * (c.x - b.x) + k * (d.x - c.x),
    y: i * (b.y - a.y) + j * (c.y - b.y) + k * (d.y - c.y),
  }
}

/** The second derivative of a curve by its parameter. */
export function cubicBend([a, b, c, d]: Cubic, s: number): Vec {
  const [i, j] = [6 * (1 - s), 6 * s]
  return {
    x: i * (c.x - 2 * b.x + a.x) + j * (d.x - 2 * c.x + b.x),
    y: i * (c.y - 2 * b.y + a.y) + j * (d.y - 2 * c.y + b.y),
  }
}

/** The place at t of a piece, in mm. */
export function cubicPointAt(piece: CubicPiece, t: number): Vec {
  if (t === 0) return piece.from
  if (t === 1) return piece.to
  return cubicAt(piece.on, parameterAt(piece, t))
}

/** Shares of a curve's size below which a derivative counts as nought. */
const STANDSTILL = 1e-9

/** The length of the control polygon in mm. */
const sizeOf = ([a, b, c, d]: Cubic): number => distance(a, b) + distance(b, c) + distance(c, d)

/** The unit tangent at t of a piece. Where the curve stands still, the way it comes from or goes to. */
export function cubicTangentAt(piece: CubicPiece, t: number): Vec {
  const { on } = piece
  const s = parameterAt(piece, t)
  const way = piece.end >= piece.start ? 1 : -1
  const slope = cubicSlope(on, s)
  if (norm(slope) > STANDSTILL * sizeOf(on)) return unit(scale(slope, way))
  // At the end of a piece the curve has come from there, else it goes on from there.
  const bend = scale(cubicBend(on, s), t < 0.5 ? 1 : -1)
  if (norm(bend) > STANDSTILL * sizeOf(on)) return unit(bend)
  return unit(subtract(piece.to, piece.from))
}

/** The signed curvature at t of a piece in 1/mm, positive where it turns counter-clockwise. */
export function cubicCurvatureAt(piece: CubicPiece, t: number): number {
  const way = piece.end >= piece.start ? 1 : -1
  return way * curvatureOn(piece.on, parameterAt(piece, t))
}

/** The signed curvature of a curve at a parameter in 1/mm; nought where it stands still. */
export function curvatureOn(on: Cubic, s: number): number {
  const slope = cubicSlope(on, s)
  const curvature = cross(slope, cubicBend(on, s)) / norm(slope) ** 3
  return Number.isFinite(curvature) ? curvature : 0
}

/** The length of a piece in mm, to 1e-13 of itself. */
export const cubicLength = (piece: CubicPiece): number => alongCubic(piece, () => 1)

/** The integral of what is told of a place along the length of a piece. */
export function alongCubic(piece: CubicPiece, of: (x: number, y: number) => number): number {
  const { on } = piece
  const [a, b, c, d] = on
  const [ax, bx, cx] = [3 * (b.x - a.x), 3 * (c.x - b.x), 3 * (d.x - c.x)]
  const [ay, by, cy] = [3 * (b.y - a.y), 3 * (c.y - b.y), 3 * (d.y - c.y)]
  const f = (s: number): number => {
    const r = 1 - s
    const [rr, rs, ss] = [r * r, 2 * r * s, s * s]
    const [x, y] = [rr * ax + rs * bx + ss * cx, rr * ay + rs * by + ss * cy]
    const [i, j, k, l] = [rr * r, 3 * rr * s, 3 * r * ss, ss * s]
    const at = of(i * a.x + j * b.x + k * c.x + l * d.x, i * a.y + j * b.y + k * c.y + l * d.y)
    return Math.sqrt(x * x + y * y) * at
  }
  // Where a curve turns back sharply its speed does so too, so that it is taken apart there.
  const stops = stopsOf(piece)
  // A small curve far out has no more digits than its places.
  const reach = Math.max(...on.flatMap((p) => [Math.abs(p.x), Math.abs(p.y)]))
  const rounding = 8e-15 * reach * Math.max(...on.map((p) => Math.abs(of(p.x, p.y))))
  const sum = stops
    .slice(1)
    .reduce((total, s, i) => total + adaptiveGauss(f, stops[i] ?? s, s, rounding), 0)
  return piece.end < piece.start ? -sum : sum
}

/** The parameters of a piece's ends and of its breaks between them, as it is run through. */
export function stopsOf({ on, start, end }: CubicPiece): readonly number[] {
  const [low, high] = [Math.min(start, end), Math.max(start, end)]
  const inner = breaksOf(on).filter((s) => s > low && s < high)
  return [start, ...(end < start ? [...inner].reverse() : inner), end]
}

/** The control points of a piece by itself. */
export function controlOf({ on, start, end }: CubicPiece): Cubic {
  if (start === 0 && end === 1) return on
  return [
    cubicAt(on, start),
    blossom(on, start, start, end),
    blossom(on, start, end, end),
    cubicAt(on, end),
  ]
}

/** The polar form of a curve: its control points over [u, w] are those of u u u, u u w, u w w, w w w. */
function blossom([a, b, c, d]: Cubic, u: number, v: number, w: number): Vec {
  const [e, f, g] = [mix(a, b, u), mix(b, c, u), mix(c, d, u)]
  return mix(mix(e, f, v), mix(f, g, v), w)
}

/** Parameters of a curve at which a piece begins or ends are no breaks within it. */
const inside = (s: number, low: number, high: number): boolean => s > low + 1e-9 && s < high - 1e-9

/** Where a coordinate of a curve turns back, in order, strictly between two parameters. */
export function turningPoints(
  on: Cubic,
  coordinate: 'x' | 'y',
  start = 0,
  end = 1,
): readonly number[] {
  const [low, high] = [Math.min(start, end), Math.max(start, end)]
  const places = allTurningPoints(on)[coordinate]
  return places.length === 0 ? places : places.filter((s) => inside(s, low, high))
}

const allTurningPoints = once((on: Cubic) => ({ x: turnsOf(xs(on)), y: turnsOf(ys(on)) }))

/** Where a coordinate turns back: surely nowhere while its control points only rise, or only fall. */
function turnsOf(places: Bernstein): readonly number[] {
  const [a = 0, b = 0, c = 0, d = 0] = places
  if ((a < b && b < c && c < d) || (a > b && b > c && c > d)) return NOWHERE
  return zerosOf(derivativeOf(places))
}

const NOWHERE: readonly number[] = []

/** Where a curve's turn changes its way. */
function inflections(on: Cubic): readonly number[] {
  const [dx, dy] = [derivativeOf(xs(on)), derivativeOf(ys(on))]
  const turn = sum(product(dx, derivativeOf(dy)), product(dy, derivativeOf(dx)), -1)
  const flat = STANDSTILL * sizeOf(on) ** 2
  return turn.every((c) => Math.abs(c) <= flat) ? [] : zerosOf(turn)
}

const WHOLE: readonly number[] = [0, 1]

/**
 * Whether the legs of a curve's control polygon lie in one quadrant and turn one way: then so does the curve, as its
 * slope is a mean of theirs, and its turn one of theirs crossed.
 */
function isSurelySimple([a, b, c, d]: Cubic): boolean {
  const [x, y] = [b.x - a.x, b.y - a.y]
  const [u, v] = [c.x - b.x, c.y - b.y]
  const [p, q] = [d.x - c.x, d.y - c.y]
  if (!((x > 0 && u > 0 && p > 0) || (x < 0 && u < 0 && p < 0))) return false
  if (!((y > 0 && v > 0 && q > 0) || (y < 0 && v < 0 && q < 0))) return false
  const [one, two] = [x * v - y * u, u * q - v * p]
  // What is next to straight has turns of rounding alone, which are looked at with care.
  const least = 1e-9 * (x * x + y * y + u * u + v * v + p * p + q * q)
  return (one > least && two > least) || (one < -least && two < -least)
}

/** The closest that two places of a curve where it is taken apart may be, in mm. */
export const LEAST_PART = 1e-5

/** Directions that differ by more than this, in radians, are no matter of rounding. */
const TURNED = 0.5

/** Whether a curve's direction at two parameters is told by its slope, and differs. */
function turnsBetween(on: Cubic, s: number, t: number): boolean {
  const [p, q] = [cubicSlope(on, s), cubicSlope(on, t)]
  const least = 1e-6 * sizeOf(on)
  if (norm(p) < least || norm(q) < least) return false
  return Math.abs(Math.atan2(cross(p, q), p.x * q.x + p.y * q.y)) > TURNED
}

/**
 * The parameters at which a curve is taken apart, ends included: between them neither coordinate
 * turns back and the curve turns one way only.
 */
export const breaksOf = once((on: Cubic): readonly number[] => {
  if (isSurelySimple(on)) return WHOLE
  const all = [...turningPoints(on, 'x'), ...turningPoints(on, 'y'), ...inflections(on)]
  const kept = [0]
  for (const s of all.sort((a, b) => a - b)) {
    // Next to a cusp a curve turns back within next to nothing: its parts before and behind it are none the less two.
    const apart = (t: number): boolean =>
      distance(cubicAt(on, s), cubicAt(on, t)) > LEAST_PART || turnsBetween(on, s, t)
    if (inside(s, kept.at(-1) ?? 0, 1) && apart(kept.at(-1) ?? 0) && apart(1)) kept.push(s)
  }
  kept.push(1)
  return kept
})

/** Parameters of the places of a curve that are nearest to a place, or farthest, or ends. */
export function cubicFeet(on: Cubic, p: Vec): readonly number[] {
  const [x, y] = [xs(on).map((v) => v - p.x), ys(on).map((v) => v - p.y)]
  const square = sum(product(x, derivativeOf(x)), product(y, derivativeOf(y)))
  return zerosOf(square)
}

/** The t of the place of a piece that is nearest to p, ends included, and how far it is in mm. */
export function nearestOnCubic(
  piece: CubicPiece,
  p: Vec,
): { readonly distance: number; readonly t: number } {
  const { start, end } = piece
  let best = { t: 0, distance: distance(p, piece.from) }
  const offer = (t: number, d: number): void => {
    if (d < best.distance) best = { t, distance: d }
  }
  offer(1, distance(p, piece.to))
  for (const s of cubicFeet(piece.on, p)) {
    const t = (s - start) / (end - start)
    if (t > 0 && t < 1) offer(t, distance(p, cubicAt(piece.on, s)))
  }
  return best
}

/** Places this near to an end of a piece are that end, in mm: a thousandth of a vertex. */
const AT_END = 1e-9

/** The curve's parameter at a place that lies on it, near a piece of it. */
export function parameterNearPiece(piece: CubicPiece, p: Vec): number {
  const { on, start, end } = piece
  if (distance(p, piece.from) <= AT_END) return start
  if (distance(p, piece.to) <= AT_END) return end
  let best = start
  let least = distance(p, cubicAt(on, start))
  const reach = 1e-3 * Math.abs(end - start)
  const [low, high] = [Math.min(start, end) - reach, Math.max(start, end) + reach]
  for (const s of [end, ...cubicFeet(on, p)]) {
    const far = distance(p, cubicAt(on, s))
    if (s >= low && s <= high && far < least) [best, least] = [s, far]
  }
  return best
}

/** A value of a coordinate of a piece along which it only grows or falls, as the curve's parameter. */
export function parameterWhere(
  { on, start, end }: CubicPiece,
  coordinate: 'x' | 'y',
  value: number,
): number {
  const of = coordinate === 'x' ? xs(on) : ys(on)
  const slope = derivativeOf(of)
  let [low, high] = [start, end]
  const way = Math.sign(valueAt(of, end) - valueAt(of, start)) || 1
  let s = (start + end) / 2
  for (let i = 0; i < 60; i++) {
    const off = valueAt(of, s) - value
    if (off === 0) break
    if (off * way < 0) low = s
    else high = s
    const next = s - off / valueAt(slope, s)
    const within = next > Math.min(low, high) && next < Math.max(low, high)
    const kept = within ? next : (low + high) / 2
    if (Math.abs(kept - s) < 1e-16) break
    s = kept
  }
  return s
}

/** Points along a piece whose chords stay within a distance of it: the bend bounds what lies between. */
export function cubicPointsAlong(piece: CubicPiece, chordTolerance: number): Vec[] {
  const [a, b, c, d] = controlOf(piece)
  const second = (p: Vec, q: Vec, r: Vec): number =>
    6 * norm({ x: p.x - 2 * q.x + r.x, y: p.y - 2 * q.y + r.y })
  const bend = Math.max(second(a, b, c), second(b, c, d))
  const turn = Math.acos(
    Math.max(-1, Math.min(1, dot(cubicTangentAt(piece, 0), cubicTangentAt(piece, 1)))),
  )
  const count = Math.max(
    1,
    Math.ceil(Math.sqrt(bend / (8 * chordTolerance)) - 1e-9),
    Math.ceil(turn / (Math.PI / 6) - 1e-9),
  )
  return Array.from({ length: count + 1 }, (_, i) => cubicPointAt(piece, i / count))
}
