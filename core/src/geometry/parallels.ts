import { fewFor } from '../once'
import { beside, simplePieces } from './change'
import {
  controlOf,
  cubic,
  cubicAt,
  cubicBend,
  cubicSlope,
  isSamePiece,
  parameterAt,
  type Cubic,
  type CubicPiece,
} from './cubic'
import { radiusOf, type Piece } from './piece'
import { add, cross, distance, dot, norm, scale, subtract, unit, type Vec } from './vector'
import { VERTEX_TOLERANCE } from '../tolerances'

/** What lies beside a stretch of a piece. */
export interface Parallel {
  /** The stretch itself. */
  readonly of: Piece
  readonly piece: Piece
  /** Whether the stretch turns so tightly to that side that what lies beside it runs backwards. */
  readonly tight: boolean
}

/** How far what lies beside a cubic may be off its true place, in mm: a tenth of one vertex. */
export const PARALLEL_TOLERANCE = 0.1 * VERTEX_TOLERANCE

/** Halvings at most, which only the sharp end of what lies beside a tight turn needs. */
const MOST_HALVINGS = 8

/**
 * What lies beside a simple piece at a distance to its left, stretch after stretch. What lies beside
 * a line or an arc is one; that beside a cubic is no cubic, and is matched by as many as keep to the
 * tolerance.
 * @param by in mm, negative to the right
 */
export function parallelsTo(piece: Piece, by: number): readonly Parallel[] {
  if (piece.kind === 'line') return [{ of: piece, piece: beside(piece, by), tight: false }]
  if (piece.kind === 'arc') {
    const left = piece.counterClockwise ? by : -by
    const tight = left > 0 && radiusOf(piece) <= left + VERTEX_TOLERANCE
    return [{ of: piece, piece: beside(piece, by), tight }]
  }
  return besideCubic(piece.on, { piece, by })
}

interface Asked {
  readonly piece: CubicPiece
  readonly by: number
}

/** Matching is most of the work of a wall, and most of a curve stays as it was while a place of it is pushed. */
const besideCubic = fewFor(
  (one: Asked, other: Asked) => one.by === other.by && isSamePiece(one.piece, other.piece),
  (_: Cubic, { piece, by }): readonly Parallel[] =>
    turnsBeside(piece, by).flatMap(({ of: run, tight }) => {
      const own = controlOf(run)
      return fitted(own, by, 0, 1, tight, 0).map(({ from, to, fit }): Parallel => {
        const of = partOf(run, own, from, to)
        return { of, piece: fit, tight }
      })
    }),
)

/** What lies beside pieces that go on from one another, end to end, at a distance to their left in mm. */
export const parallelRun = (pieces: readonly Piece[], by: number): readonly Piece[] =>
  pieces.flatMap(simplePieces).flatMap((p) => parallelsTo(p, by).map(({ piece }) => piece))

/** The stretches of a simple cubic that turn too tightly to a side for a distance, and the others. */
export function turnsBeside(
  piece: CubicPiece,
  by: number,
): readonly { readonly of: CubicPiece; readonly tight: boolean }[] {
  const own = controlOf(piece)
  if (isSurelyFree(own, by)) return [{ of: piece, tight: false }]
  const stops = [0, ...tightChanges(own, by), 1]
  return stops.slice(1).map((high, i) => {
    const low = stops[i] ?? 0
    return {
      of: partOf(piece, own, low, high),
      tight: freeAt(own, by, (low + high) / 2) < 0,
    }
  })
}

/** 1 less the share of the radius of curvature that the distance takes: below 0 it is too tight. */
function freeAt(own: Cubic, by: number, t: number): number {
  const slope = cubicSlope(own, t)
  const free = 1 - (by * cross(slope, cubicBend(own, t))) / norm(slope) ** 3
  // Where the curve stands still its bend has no number.
  return Number.isFinite(free) ? free : 1
}

/** What is surely free takes less than this share of any radius of curvature, by bounds that are no tighter. */
const SURELY = 0.9

/**
 * Whether a cubic nowhere turns too tightly for a distance, by what its control points say: its speed is nowhere less
 * than its legs along their mean way, its curvature no more than the greatest leg times the greatest second difference
 * over the cube of that.
 */
function isSurelyFree([a, b, c, d]: Cubic, by: number): boolean {
  const legs = [subtract(b, a), subtract(c, b), subtract(d, c)] as const
  const way = unit(subtract(d, a))
  const slowest = 3 * Math.min(...legs.map((leg) => dot(leg, way)))
  if (!(slowest > 0)) return false
  const fastest = 3 * Math.max(...legs.map(norm))
  const bend = 6 * Math.max(norm(subtract(legs[1], legs[0])), norm(subtract(legs[2], legs[1])))
  return Math.abs(by) * fastest * bend < SURELY * slowest ** 3
}

/** Places looked at for a change between free and tight. */
const LOOKS = 48

function tightChanges(own: Cubic, by: number): number[] {
  const found: number[] = []
  for (let i = 0; i < LOOKS; i++) {
    let [low, high] = [i / LOOKS, (i + 1) / LOOKS]
    const isTight = freeAt(own, by, low) < 0
    if (isTight === freeAt(own, by, high) < 0) continue
    for (let n = 0; n < 50; n++) {
      const middle = (low + high) / 2
      if (freeAt(own, by, middle) < 0 === isTight) low = middle
      else high = middle
    }
    if (low > 1e-9 && high < 1 - 1e-9) found.push((low + high) / 2)
  }
  return found
}

function partOf(piece: CubicPiece, own: Cubic, low: number, high: number): CubicPiece {
  return {
    ...piece,
    from: low === 0 ? piece.from : cubicAt(own, low),
    to: high === 1 ? piece.to : cubicAt(own, high),
    start: parameterAt(piece, low),
    end: parameterAt(piece, high),
  }
}

interface Fit {
  readonly from: number
  readonly to: number
  readonly fit: Piece
}

/** Matches one cubic, or two to the halves when it is off by more than the tolerance. */
function fitted(
  own: Cubic,
  by: number,
  low: number,
  high: number,
  tight: boolean,
  depth: number,
): Fit[] {
  const fit = soundMatch(matched(own, by, low, high, tight), depth)
  if (fit) return [{ from: low, to: high, fit }]
  const middle = (low + high) / 2
  return [
    ...fitted(own, by, low, middle, tight, depth + 1),
    ...fitted(own, by, middle, high, tight, depth + 1),
  ]
}

/** A match that is near enough and simple; at the last halving, or next to nothing, as it is. */
function soundMatch({ on, off }: Match, depth: number): Piece | undefined {
  const [a, , , d] = on
  const isLast = depth >= MOST_HALVINGS
  if (!isLast && off > PARALLEL_TOLERANCE && distance(a, d) > 8 * VERTEX_TOLERANCE) return undefined
  const [only, more] = simplePieces(cubic(...on))
  if (only && !more) return only
  // One that is not simple is so by rounding, where it is next to straight.
  return isLast ? { kind: 'line', from: a, to: d } : undefined
}

/** A cubic, and by how much it is off what it is to match, in mm. */
interface Match {
  readonly on: Cubic
  readonly off: number
}

/**
 * The cubic that shares ends and directions with what lies beside a stretch, and its places at two
 * thirds; and by how much it is off elsewhere, in mm.
 */
function matched(own: Cubic, by: number, low: number, high: number, tight: boolean): Match {
  const end = (t: number): { readonly at: Vec; readonly way: Vec; readonly lead: number } => {
    const way = directionAt(own, t, low, high)
    const lead = (Math.abs(freeAt(own, by, t)) * norm(cubicSlope(own, t)) * (high - low)) / 3
    return { at: add(cubicAt(own, t), leftOf(way, by)), way: scale(way, tight ? -1 : 1), lead }
  }
  const [first, last] = [end(low), end(high)]
  const curve = (p: number, q: number): Cubic => [
    first.at,
    add(first.at, scale(first.way, p)),
    subtract(last.at, scale(last.way, q)),
    last.at,
  ]
  const offAt = (on: Cubic, share: number) => offBeside(own, by, low, high, on, share)
  const told = (on: Cubic): Match => {
    const offs = [1 / 6, 1 / 3, 1 / 2, 2 / 3, 5 / 6].map((s) => Math.abs(offAt(on, s).off))
    return { on, off: Math.max(...offs) }
  }
  let [p, q] = [first.lead, last.lead]
  let best = told(curve(p, q))
  for (let i = 0; i < 5 && best.off > PARALLEL_TOLERANCE; i++) {
    const on = curve(p, q)
    const [one, two] = [offAt(on, 1 / 3), offAt(on, 2 / 3)]
    const [a, b] = [4 / 9, -2 / 9].map((w, k) => w * dot(k ? last.way : first.way, one.normal))
    const [c, d] = [2 / 9, -4 / 9].map((w, k) => w * dot(k ? last.way : first.way, two.normal))
    const [dp, dq] = damped(a ?? 0, b ?? 0, c ?? 0, d ?? 0, one.off, two.off)
    p -= dp
    q -= dq
    if (!(p > 0 && q > 0)) break
    const next = told(curve(p, q))
    if (next.off < best.off) best = next
  }
  return best
}

/** How strongly steps are held back where directions hardly differ and lengths say little. */
const DAMPING = 1e-5

/** Solves [a b; c d] s = (u, v) by least squares with a little damping. */
function damped(
  a: number,
  b: number,
  c: number,
  d: number,
  u: number,
  v: number,
): readonly [number, number] {
  const hold = DAMPING * (a * a + b * b + c * c + d * d)
  const [pp, pq, qq] = [a * a + c * c + hold, a * b + c * d, b * b + d * d + hold]
  const [f, g] = [a * u + c * v, b * u + d * v]
  const determinant = pp * qq - pq * pq
  if (determinant === 0) return [0, 0]
  return [(f * qq - g * pq) / determinant, (pp * g - pq * f) / determinant]
}

const leftOf = (way: Vec, by: number): Vec => ({ x: -way.y * by, y: way.x * by })

function directionAt(own: Cubic, t: number, low: number, high: number): Vec {
  const slope = cubicSlope(own, t)
  if (norm(slope) > 1e-9 * distance(own[0], own[3])) return unit(slope)
  return unit(scale(cubicBend(own, t), t < (low + high) / 2 ? 1 : -1))
}

/** The distance is flat about its foot: a foot this near to its place, as a share, tells it to the last digit. */
const FOOT = 1e-9

/** How far a place of a match is from lying at the distance, along the normal there. */
function offBeside(
  own: Cubic,
  by: number,
  low: number,
  high: number,
  fit: Cubic,
  share: number,
): { readonly off: number; readonly normal: Vec } {
  const place = cubicAt(fit, share)
  // In plain numbers: most of the time that a wall takes goes by here.
  const [a, b, c, d] = own
  const [ax, ay] = [3 * (b.x - a.x), 3 * (b.y - a.y)]
  const [legX, legY] = [3 * (c.x - b.x), 3 * (c.y - b.y)]
  const [cx, cy] = [3 * (d.x - c.x), 3 * (d.y - c.y)]
  let t = low + (high - low) * share
  for (let i = 0; i < 12; i++) {
    const r = 1 - t
    const [rr, rt, tt] = [r * r, r * t, t * t]
    const gapX = rr * (r * a.x + 3 * t * b.x) + tt * (3 * r * c.x + t * d.x) - place.x
    const gapY = rr * (r * a.y + 3 * t * b.y) + tt * (3 * r * c.y + t * d.y) - place.y
    const slopeX = rr * ax + 2 * rt * legX + tt * cx
    const slopeY = rr * ay + 2 * rt * legY + tt * cy
    const bendX = 2 * (r * (legX - ax) + t * (cx - legX))
    const bendY = 2 * (r * (legY - ay) + t * (cy - legY))
    const change = slopeX * slopeX + slopeY * slopeY + gapX * bendX + gapY * bendY
    if (change === 0) break
    const step = (gapX * slopeX + gapY * slopeY) / change
    const next = Math.min(high, Math.max(low, t - step))
    const isDone = Math.abs(next - t) < FOOT
    t = next
    if (isDone) break
  }
  const normal = leftOf(directionAt(own, t, low, high), 1)
  return { off: dot(subtract(place, cubicAt(own, t)), normal) - by, normal }
}
