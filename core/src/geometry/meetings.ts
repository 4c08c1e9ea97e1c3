import { orient2d } from 'robust-predicates'
import { cubicWithCubic, cubicWithRound, isClearOf } from './cubicMeetings'
import { parameterNear, type Meeting } from './lying'
import {
  parameterOfDirection,
  pointAt,
  radiusOf,
  type ArcPiece,
  type LinePiece,
  type Piece,
} from './piece'
import { add, cross, distance, dot, norm, scale, subtract, type Vec } from './vector'

/**
 * All isolated places where two pieces cross or touch, and both ends of each stretch they share.
 * @param tolerance distance in mm within which places count as one
 */
export function meetingsOf(a: Piece, b: Piece, tolerance: number): Meeting[] {
  if (a.kind === 'line' && b.kind === 'line' && endsAreClear(a, b, tolerance)) return lineLine(a, b)
  if (a.kind === 'cubic' && b.kind !== 'cubic' && isClearOf(a, b, tolerance)) return []
  if (b.kind === 'cubic' && a.kind !== 'cubic' && isClearOf(b, a, tolerance)) return []
  const ends = endMeetings(a, b, tolerance)
  const found = [...ends, ...crossings(a, b, ends, tolerance)]
  const kept: Meeting[] = []
  for (const m of found) {
    if (!kept.some((k) => distance(k.at, m.at) <= tolerance)) kept.push(m)
  }
  return kept
}

/** Whether no end of two lines comes near the other line or its extension. */
function endsAreClear(a: LinePiece, b: LinePiece, tolerance: number): boolean {
  return (
    isOff(a.from, b, tolerance) &&
    isOff(a.to, b, tolerance) &&
    isOff(b.from, a, tolerance) &&
    isOff(b.to, a, tolerance)
  )
}

function isOff(p: Vec, { from, to }: LinePiece, tolerance: number): boolean {
  const dx = to.x - from.x
  const dy = to.y - from.y
  return (
    Math.abs(dx * (p.y - from.y) - dy * (p.x - from.x)) >
    1.5 * tolerance * (Math.abs(dx) + Math.abs(dy))
  )
}

/** Ends of one piece that lie on the other. Shared stretches of any kind begin and end at such. */
function endMeetings(a: Piece, b: Piece, tolerance: number): Meeting[] {
  const found: Meeting[] = []
  for (const t of [0, 1]) {
    const at = pointAt(a, t)
    const u = parameterNear(b, at, tolerance)
    if (u !== undefined) found.push({ at, t, u })
  }
  for (const u of [0, 1]) {
    const at = pointAt(b, u)
    const t = parameterNear(a, at, tolerance)
    if (t !== undefined) found.push({ at, t, u })
  }
  return found
}

/** Whether two lines surely do not meet: one lies wholly to one side of the other. */
export function areApart(a: Piece, b: Piece, tolerance: number): boolean {
  return (
    a.kind === 'line' && b.kind === 'line' && (beyond(a, b, tolerance) || beyond(b, a, tolerance))
  )
}

function beyond(
  { from: p, to: q }: LinePiece,
  { from, to }: LinePiece,
  tolerance: number,
): boolean {
  const dx = to.x - from.x
  const dy = to.y - from.y
  const one = dx * (p.y - from.y) - dy * (p.x - from.x)
  const two = dx * (q.y - from.y) - dy * (q.x - from.x)
  // Half as much again as the tolerance, so that rounding decides nothing here.
  const margin = 1.5 * tolerance * (Math.abs(dx) + Math.abs(dy))
  return (one > margin && two > margin) || (one < -margin && two < -margin)
}

/**
 * Whether two pieces surely meet at an end they share and nowhere else: lines that run in different
 * directions, and a line that leaves an arc's circle there or has left it when it comes back to it.
 */
export function meetOnlyAtEnd(a: Piece, b: Piece, tolerance: number): boolean {
  if (a.kind === 'arc' && b.kind === 'line') return leavesAtEnd(b, a, tolerance)
  if (a.kind === 'line' && b.kind === 'arc') return leavesAtEnd(a, b, tolerance)
  if (a.kind !== 'line' || b.kind !== 'line') return false
  const shared = [a.from, a.to].some(
    (p) => (p.x === b.from.x && p.y === b.from.y) || (p.x === b.to.x && p.y === b.to.y),
  )
  if (!shared) return false
  const [u, v] = [subtract(a.to, a.from), subtract(b.to, b.from)]
  return Math.abs(cross(u, v)) > 1e-6 * Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)
}

function leavesAtEnd(line: LinePiece, arc: ArcPiece, tolerance: number): boolean {
  const same = (p: Vec, q: Vec): boolean => p.x === q.x && p.y === q.y
  const [shared, end] =
    same(line.from, arc.from) || same(line.from, arc.to)
      ? [line.from, line.to]
      : [line.to, line.from]
  const atStart = same(shared, arc.from)
  if (!atStart && !same(shared, arc.to)) return false
  const other = atStart ? arc.to : arc.from
  const margin = 1.5 * tolerance
  const length = distance(shared, end)
  const [dx, dy] = [(end.x - shared.x) / length, (end.y - shared.y) / length]
  // Where the line meets the circle once more: behind its start, or there where it is tangent.
  const again = 2 * (dx * (arc.centre.x - shared.x) + dy * (arc.centre.y - shared.y))
  return (
    (again <= tolerance || again >= length + margin) &&
    Math.abs(distance(end, arc.centre) - radiusOf(arc)) > margin &&
    Math.abs(dx * (other.y - shared.y) - dy * (other.x - shared.x)) > margin
  )
}

function crossings(
  a: Piece,
  b: Piece,
  ends: readonly Meeting[],
  tolerance: number,
): readonly Meeting[] {
  if (a.kind === 'line' && b.kind === 'line') return lineLine(a, b)
  if (a.kind === 'line' && b.kind === 'arc') return lineArc(a, b, tolerance)
  if (a.kind === 'arc' && b.kind === 'line') return swapped(lineArc(b, a, tolerance))
  if (a.kind === 'arc' && b.kind === 'arc') return arcArc(a, b, tolerance)
  if (a.kind === 'cubic' && b.kind === 'cubic') {
    // Beside an end that lies on the other one a crossing may be seen from one of the two alone: always the same is asked.
    return goesFirst(a, b)
      ? cubicWithCubic(a, b, ends, tolerance)
      : swapped(cubicWithCubic(b, a, swapped(ends), tolerance))
  }
  if (a.kind === 'cubic' && b.kind !== 'cubic') return cubicWithRound(a, b, tolerance)
  if (b.kind === 'cubic' && a.kind !== 'cubic') return swapped(cubicWithRound(b, a, tolerance))
  return []
}

/** An order of two pieces by their places, whichever is told first. */
function goesFirst(a: Piece, b: Piece): boolean {
  const [one, other] = [a, b].map(({ from, to }) => [from.x, from.y, to.x, to.y])
  const at = one?.findIndex((v, i) => v !== other?.[i]) ?? -1
  return at < 0 || (one?.[at] ?? 0) < (other?.[at] ?? 0)
}

const swapped = (meetings: readonly Meeting[]): Meeting[] =>
  meetings.map(({ at, t, u }) => ({ at, t: u, u: t }))

/** A proper crossing of two lines; whether there is one is decided by exact orientations. */
function lineLine(a: LinePiece, b: LinePiece): Meeting[] {
  const turn = (p: Vec, q: Vec, r: Vec): number => Math.sign(orient2d(p.x, p.y, q.x, q.y, r.x, r.y))
  const acrossB = turn(b.from, b.to, a.from) * turn(b.from, b.to, a.to)
  const acrossA = turn(a.from, a.to, b.from) * turn(a.from, a.to, b.to)
  if (acrossB >= 0 || acrossA >= 0) return []
  const d = subtract(a.to, a.from)
  const e = subtract(b.to, b.from)
  const gap = subtract(b.from, a.from)
  const determinant = cross(d, e)
  if (determinant === 0) return []
  const t = cross(gap, e) / determinant
  const u = cross(gap, d) / determinant
  return [{ at: pointAt(a, t), t, u }]
}

/** Where they come within the tolerance of touching, they meet once. */
function lineArc(a: LinePiece, b: ArcPiece, tolerance: number): Meeting[] {
  const d = subtract(a.to, a.from)
  const length = norm(d)
  if (length === 0) return []
  const along = scale(d, 1 / length)
  const toCentre = subtract(b.centre, a.from)
  const foot = dot(toCentre, along)
  const height = cross(along, toCentre)
  const r = radiusOf(b)
  const half = (r - height) * (r + height)
  const touches = Math.abs(r - Math.abs(height)) <= tolerance
  if (half < 0 && !touches) return []
  const reach = touches ? 0 : Math.sqrt(half)
  return (touches ? [foot] : [foot - reach, foot + reach]).flatMap((s) => {
    const t = s / length
    const at = add(a.from, scale(along, s))
    const u = parameterOfDirection(b, subtract(at, b.centre))
    return t >= 0 && t <= 1 && u !== undefined ? [{ at, t, u }] : []
  })
}

function arcArc(a: ArcPiece, b: ArcPiece, tolerance: number): Meeting[] {
  const between = subtract(b.centre, a.centre)
  const d = norm(between)
  if (d <= tolerance) return []
  const ra = radiusOf(a)
  const rb = radiusOf(b)
  const along = (d * d + (ra - rb) * (ra + rb)) / (2 * d)
  const half = (ra - along) * (ra + along)
  const touches = Math.abs(d - ra - rb) <= tolerance || Math.abs(d - Math.abs(ra - rb)) <= tolerance
  if (half < 0 && !touches) return []
  const axis = scale(between, 1 / d)
  const side = { x: -axis.y, y: axis.x }
  const foot = add(a.centre, scale(axis, touches ? Math.sign(along) * ra : along))
  return (touches ? [0] : [-Math.sqrt(half), Math.sqrt(half)]).flatMap((h) => {
    const at = add(foot, scale(side, h))
    const t = parameterOfDirection(a, subtract(at, a.centre))
    const u = parameterOfDirection(b, subtract(at, b.centre))
    return t !== undefined && u !== undefined ? [{ at, t, u }] : []
  })
}
