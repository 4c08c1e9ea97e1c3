import { derivativeOf, product, sum, valueAt, zerosOf, type Bernstein } from './bernstein'
import {
  controlOf,
  cubicAt,
  cubicBend,
  cubicPointAt,
  cubicSlope,
  nearestOnCubic,
  type Cubic,
  type CubicPiece,
} from './cubic'
import { alongOneAnother, runClose } from './closeCubics'
import { parameterNear, type Meeting } from './lying'
import { radiusOf, type ArcPiece, type LinePiece } from './piece'
import { cross, distance, dot, mix, norm, subtract, unit, type Vec } from './vector'

/**
 * Where a cubic crosses or touches a line or an arc: the zeros of its distance from it, which along
 * the cubic is a polynomial (that from a circle as the difference of squares). Where the two come
 * within the tolerance they meet once.
 */
export function cubicWithRound(
  a: CubicPiece,
  b: LinePiece | ArcPiece,
  tolerance: number,
): Meeting[] {
  const off = offCurve(controlOf(a), b)
  const stops = [0, ...zerosOf(derivativeOf(off)), 1]
  const touches = stops.filter((t) => Math.abs(valueAt(off, t)) <= tolerance)
  // Between two stops the distance only grows or falls: from one that touches it is one meeting.
  const isOfTouch = (t: number): boolean => {
    const before = stops.findLast((s) => s <= t) ?? 0
    const after = stops.find((s) => s >= t) ?? 1
    return touches.includes(before) || touches.includes(after)
  }
  const crossings = zerosOf(off).filter((t) => !isOfTouch(t))
  return [...touches, ...crossings].flatMap((t) => {
    const at = cubicPointAt(a, t)
    const u = parameterNear(b, at, tolerance)
    return u === undefined ? [] : [{ at, t, u }]
  })
}

/** Whether a cubic surely keeps clear of the line or circle that another piece lies on. */
export function isClearOf(a: CubicPiece, b: LinePiece | ArcPiece, tolerance: number): boolean {
  const off = offCurve(controlOf(a), b)
  return off.every((d) => d > 1.5 * tolerance) || off.every((d) => d < -1.5 * tolerance)
}

/** The signed distance of a curve from a line, or nearly that from a circle, as a polynomial. */
function offCurve(control: Cubic, b: LinePiece | ArcPiece): Bernstein {
  if (b.kind === 'line') {
    const along = unit(subtract(b.to, b.from))
    return control.map((p) => cross(along, subtract(p, b.from)))
  }
  const [x, y] = [control.map((p) => p.x - b.centre.x), control.map((p) => p.y - b.centre.y)]
  const r = radiusOf(b)
  return sum(product(x, x), product(y, y)).map((square) => (square - r * r) / (2 * r))
}

/** A stretch of each of two cubics that may still meet, by control points and parameters. */
interface Pair {
  readonly a: Cubic
  readonly b: Cubic
  readonly t: readonly [number, number]
  readonly u: readonly [number, number]
}

/** A place where two cubics run so close that they cannot be told apart. */
interface Close {
  readonly t: number
  readonly u: number
  readonly at: Vec
}

/** Stretches that turn less than this, in radians, are near enough to straight for Newton's steps. */
const NEARLY_STRAIGHT = 0.25

/** Newton's steps have ended on a crossing when both places are this near, in mm. */
const MET = 1e-9

/** Curves that turn one way have far fewer places where they may meet; more would hold everything up. */
const MOST_PAIRS = 4_000

/**
 * Where two cubics that turn one way only cross or touch: both are halved until their hulls are
 * apart, or their directions are, when Newton's steps find the one crossing; what stays is a touch.
 * @param ends the meetings at ends, which are known
 */
export function cubicWithCubic(
  a: CubicPiece,
  b: CubicPiece,
  ends: readonly Meeting[],
  tolerance: number,
): Meeting[] {
  if (areOfOneRun(a, b)) return []
  const [own, other] = [controlOf(a), controlOf(b)]
  if (goOn(own, other, ends, tolerance) || runTogether(a, b, ends, tolerance)) return []
  const crossings: Meeting[] = []
  const close: Close[] = []
  const stack: Pair[] = [{ a: own, b: other, t: [0, 1], u: [0, 1] }]
  for (let n = 0; n < MOST_PAIRS; n++) {
    const pair = stack.pop()
    if (!pair) break
    if (areApart(pair.a, pair.b, tolerance)) continue
    const isStraight = turnOf(pair.a) < NEARLY_STRAIGHT && turnOf(pair.b) < NEARLY_STRAIGHT
    const cross = isStraight && directionsDiffer(pair.a, pair.b)
    const found = cross ? crossingOf(pair) : undefined
    if (found) {
      const [t, u] = [at(pair.t, found.t), at(pair.u, found.u)]
      crossings.push({ t, u, at: cubicPointAt(a, t) })
      continue
    }
    const along =
      isStraight && !cross && runClose(pair) ? alongOneAnother(pair, tolerance) : undefined
    if (along) {
      for (const { t, u } of along.crossings) {
        const [own, other] = [at(pair.t, t), at(pair.u, u)]
        crossings.push({ t: own, u: other, at: cubicPointAt(a, own) })
      }
      for (const { t, u } of along.close) {
        close.push({ t: at(pair.t, t), u: at(pair.u, u), at: cubicAt(pair.a, t) })
      }
      continue
    }
    // Steps that lead out of a pair do not show that nothing is in it: its halves tell.
    if (isFlat(pair.a, tolerance) && isFlat(pair.b, tolerance)) {
      if (cross) continue
      close.push({ t: at(pair.t, 0.5), u: at(pair.u, 0.5), at: cubicAt(pair.a, 0.5) })
      continue
    }
    stack.push(...halved(pair))
  }
  return [...crossings, ...touchesOf(a, b, close, [...ends, ...crossings], tolerance)]
}

const at = ([low, high]: readonly [number, number], share: number): number =>
  low + (high - low) * share

/** Simple parts of one curve that follow one another, or share a stretch, meet in ends only. */
function areOfOneRun(a: CubicPiece, b: CubicPiece): boolean {
  if (a.on !== b.on) return false
  const [low, high] = [Math.min(a.start, a.end), Math.max(a.start, a.end)]
  return Math.min(b.start, b.end) <= high && Math.max(b.start, b.end) >= low
}

/** Whether two cubics are one between ends that lie on the other. */
function runTogether(
  a: CubicPiece,
  b: CubicPiece,
  ends: readonly Meeting[],
  tolerance: number,
): boolean {
  const ts = ends.map((m) => m.t)
  const [low, high] = [Math.min(...ts), Math.max(...ts)]
  if (!(high > low)) return false
  return [0.25, 0.5, 0.75].every((share) => {
    const p = cubicPointAt(a, low + (high - low) * share)
    return nearestOnCubic(b, p).distance <= tolerance
  })
}

const legsOf = ([a, b, c, d]: Cubic): Vec[] =>
  [subtract(b, a), subtract(c, b), subtract(d, c)].filter((v) => v.x !== 0 || v.y !== 0)

/** How far the control polygon turns from its chord, to both sides together, in radians. */
function turnOf(control: Cubic): number {
  const [low, high] = anglesFrom(subtract(control[3], control[0]), control)
  return high - low
}

function anglesFrom(way: Vec, control: Cubic): readonly [number, number] {
  const angles = legsOf(control).map((v) => Math.atan2(cross(way, v), dot(way, v)))
  return [Math.min(0, ...angles), Math.max(0, ...angles)]
}

/** Whether no direction of one, taken as a line, is one of the other: then they cross at most once. */
function directionsDiffer(a: Cubic, b: Cubic): boolean {
  const [chord, other] = [subtract(a[3], a[0]), subtract(b[3], b[0])]
  const [low, high] = anglesFrom(chord, a)
  const between = Math.atan2(cross(chord, other), dot(chord, other))
  const [otherLow, otherHigh] = anglesFrom(other, b)
  return [-Math.PI, 0, Math.PI].every(
    (half) => between + half + otherLow > high || between + half + otherHigh < low,
  )
}

/** Whether the hulls of two control polygons are further apart than the tolerance. */
const areApart = (a: Cubic, b: Cubic, tolerance: number): boolean =>
  isClearAlong(a, b, 1, 0, tolerance) ||
  isClearAlong(a, b, 0, 1, tolerance) ||
  isBeside(a, b, tolerance) ||
  isBeside(b, a, tolerance)

/** Whether one lies wholly to one side of the other's hull, across the other's chord. */
function isBeside(a: Cubic, b: Cubic, tolerance: number): boolean {
  const [dx, dy] = [a[3].x - a[0].x, a[3].y - a[0].y]
  const length = Math.hypot(dx, dy) || 1
  return isClearAlong(a, b, -dy / length, dx / length, tolerance)
}

/** Whether two hulls are apart in a direction. Asked for at every halving: nothing is made for it. */
function isClearAlong(a: Cubic, b: Cubic, x: number, y: number, tolerance: number): boolean {
  let [low, high] = [Infinity, -Infinity]
  let [otherLow, otherHigh] = [Infinity, -Infinity]
  for (let i = 0; i < 4; i++) {
    const [p, q] = [a[i as 0], b[i as 0]]
    const [own, other] = [p.x * x + p.y * y, q.x * x + q.y * y]
    if (own < low) low = own
    if (own > high) high = own
    if (other < otherLow) otherLow = other
    if (other > otherHigh) otherHigh = other
  }
  return otherLow > high + tolerance || otherHigh < low - tolerance
}

/**
 * Whether one goes on from the end of the other and neither turns back beyond it: then they meet there alone. Places
 * that are one vertex count as one.
 */
function goOn(a: Cubic, b: Cubic, ends: readonly Meeting[], tolerance: number): boolean {
  const [joint] = ends
  // The end of either tells of it.
  const isOne = ends.every(({ t, u }) => t === joint?.t && u === joint.u)
  if (!joint || !isOne || (joint.t !== 0 && joint.t !== 1) || (joint.u !== 0 && joint.u !== 1)) {
    return false
  }
  const [end, start] = [3 * joint.t, 3 * joint.u]
  const at = a[end as 0]
  const before = a[(joint.t === 1 ? 2 : 1) as 0]
  const length = Math.hypot(at.x - before.x, at.y - before.y)
  if (length === 0) return false
  const [x, y] = [(at.x - before.x) / length, (at.y - before.y) / length]
  const clear = 2 * tolerance
  for (let i = 0; i < 4; i++) {
    const [p, q] = [a[i as 0], b[i as 0]]
    if (i !== end && (p.x - at.x) * x + (p.y - at.y) * y > -clear) return false
    if (i !== start && (q.x - at.x) * x + (q.y - at.y) * y < clear) return false
  }
  return true
}

function isFlat(control: Cubic, tolerance: number): boolean {
  const along = unit(subtract(control[3], control[0]))
  return control.every((p) => Math.abs(cross(along, subtract(p, control[0]))) <= tolerance / 4)
}

function halved({ a, b, t, u }: Pair): Pair[] {
  const isLonger = distance(a[0], a[3]) >= distance(b[0], b[3])
  const [low, high] = isLonger ? t : u
  const middle = (low + high) / 2
  return split(isLonger ? a : b).map((half, i): Pair => {
    const range: readonly [number, number] = i === 0 ? [low, middle] : [middle, high]
    return isLonger ? { a: half, b, t: range, u } : { a, b: half, t, u: range }
  })
}

function split([a, b, c, d]: Cubic): readonly [Cubic, Cubic] {
  const [e, f, g] = [mix(a, b, 0.5), mix(b, c, 0.5), mix(c, d, 0.5)]
  const [h, i] = [mix(e, f, 0.5), mix(f, g, 0.5)]
  const m = mix(h, i, 0.5)
  return [
    [a, e, h, m],
    [m, i, g, d],
  ]
}

/** The crossing of two nearly straight cubics, as shares of both; undefined when it lies beyond an end. */
function crossingOf({ a, b }: Pair): { readonly t: number; readonly u: number } | undefined {
  const [d, e] = [subtract(a[3], a[0]), subtract(b[3], b[0])]
  const across = cross(d, e)
  const gap = subtract(b[0], a[0])
  let t = across === 0 ? 0.5 : cross(gap, e) / across
  let u = across === 0 ? 0.5 : cross(gap, d) / across
  for (let i = 0; i < 20; i++) {
    const off = subtract(cubicAt(b, u), cubicAt(a, t))
    const [v, w] = [cubicSlope(a, t), cubicSlope(b, u)]
    const turn = cross(v, w)
    if (turn === 0) return undefined
    const [dt, du] = [cross(off, w) / turn, cross(off, v) / turn]
    t = Math.max(-1, Math.min(2, t + dt))
    u = Math.max(-1, Math.min(2, u + du))
    if (Math.abs(dt) + Math.abs(du) < 1e-15) break
  }
  const isWithin = (s: number): boolean => s >= -1e-9 && s <= 1 + 1e-9
  const isMet = distance(cubicAt(a, t), cubicAt(b, u)) <= MET
  return isMet && isWithin(t) && isWithin(u) ? { t, u } : undefined
}

/** What is close in one run is one touch; where an end or a crossing lies there, it is that. */
function touchesOf(
  a: CubicPiece,
  b: CubicPiece,
  close: readonly Close[],
  known: readonly Meeting[],
  tolerance: number,
): Meeting[] {
  const runs: Close[][] = []
  // Flat stretches are no longer than this where they bend by a millimetre or more.
  const reach = Math.sqrt(64 * tolerance)
  for (const next of [...close].sort((p, q) => p.t - q.t)) {
    const last = runs.at(-1)
    const before = last?.at(-1)
    if (before && distance(before.at, next.at) <= reach) last?.push(next)
    else runs.push([next])
  }
  return runs.flatMap((run): Meeting[] => {
    if (run.some((c) => known.some((m) => distance(m.at, c.at) <= reach))) return []
    const middle = run[Math.floor(run.length / 2)]
    if (!middle) return []
    const found = straightAcross(a, b, middle) ?? middle
    const p = cubicPointAt(a, found.t)
    const nearest = nearestOnCubic(b, p)
    return nearest.distance <= tolerance ? [{ at: p, t: found.t, u: nearest.t }] : []
  })
}

/** Where two cubics next to a place run in one direction, straight across from one another. */
export function straightAcross(
  a: CubicPiece,
  b: CubicPiece,
  start: { readonly t: number; readonly u: number },
): { readonly t: number; readonly u: number } | undefined {
  const [p, q] = [controlOf(a), controlOf(b)]
  let { t, u } = start
  for (let i = 0; i < 20; i++) {
    const gap = subtract(cubicAt(p, t), cubicAt(q, u))
    const [v, w] = [cubicSlope(p, t), cubicSlope(q, u)]
    const [x, y] = [cubicBend(p, t), cubicBend(q, u)]
    const [f, g] = [dot(gap, v), cross(v, w)]
    const [ft, fu] = [dot(v, v) + dot(gap, x), -dot(w, v)]
    const [gt, gu] = [cross(x, w), cross(v, y)]
    const determinant = ft * gu - fu * gt
    if (determinant === 0) return undefined
    const [dt, du] = [(f * gu - g * fu) / determinant, (ft * g - gt * f) / determinant]
    t -= dt
    u -= du
    if (!(Math.abs(t - start.t) < 0.1 && Math.abs(u - start.u) < 0.1)) return undefined
    if (Math.abs(dt) + Math.abs(du) < 1e-14) break
  }
  return t >= 0 && t <= 1 && u >= 0 && u <= 1 && norm(cubicSlope(p, t)) > 0 ? { t, u } : undefined
}
