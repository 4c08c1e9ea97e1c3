import {
  arc,
  controlOf,
  cubic,
  integrate,
  line,
  nearestOn,
  pointAt,
  vec,
  type Piece,
  type Vec,
} from '../geometry'
import { areaOf, axisOf, reachOf } from './axis'
import { runOf, type Run } from './runs'
import type { ForeignSolid, Line } from './types'

/** The half-section of a solid as far as its faces are turned about a line. */
export interface RecoveredOutline {
  /** Along the line and out from it, in mm; whole circles are two halves. */
  readonly pieces: readonly Piece[]
  /** How many places were closed by a straight piece, where faces are cut off by what is not turned. */
  readonly mended: number
}

/** What goes round by less than this share is the floor of a hole or the side of a slot. */
const LEAST_TURN = 0.3
/** What is flat, ends by itself and goes round by less than this is the floor of slots. */
const MOST_FLOOR = 0.6
/** Ends nearer than this, as a share of the size, are one. */
const WELD = 1e-5

/** @param about the line to go by; the solid's own where none is told */
export function outlineOf(
  solid: ForeignSolid,
  about: Line | undefined = axisOf(solid),
): RecoveredOutline | undefined {
  if (!about) return undefined
  const size = reachOf(solid)
  const near = WELD * size
  const found = solid.faces.flatMap((f): Found[] => {
    const run = runOf(f, about, size)
    return run ? [{ run, area: areaOf(f) }] : []
  })
  const runs = merged(found, near).flatMap(({ run, area }) => {
    const share = area / fullArea(run)
    return share >= LEAST_TURN ? [{ run, share }] : []
  })
  if (runs.length === 0) return undefined
  const parts = new Map(runs.flatMap(({ run, share }) => piecesOf(run).map((p) => [p, share])))
  const welded = weld([...parts.keys()], near)
  const ends = endCounts(welded.map((w) => w.piece))
  // The floor of slots that cross lies flat between walls, and meets nothing that is turned.
  const isFloor = ({ piece, from }: Welded): boolean =>
    isNear(piece.from.x, piece.to.x, near) &&
    (parts.get(from) ?? 1) < MOST_FLOOR &&
    [piece.from, piece.to].some((p) => p.y > 0 && ends.get(p) === 1)
  const pieces = welded.filter((w) => !isFloor(w)).map((w) => w.piece)
  return mend(pieces, near)
}

interface Found {
  readonly run: Run
  /** Of all faces it was found on. */
  readonly area: number
}

/** Faces of one surface that lie over one another, or go on from one another, are one. */
function merged(found: readonly Found[], near: number): Found[] {
  const kept: Found[] = []
  for (const { run, area } of found) {
    const at = kept.findIndex((k) => overlaps(k.run, run, near))
    const other = kept[at]
    if (other) kept[at] = { run: together(other.run, run), area: other.area + area }
    else kept.push({ run, area })
  }
  return kept.length < found.length ? merged(kept, near) : kept
}

/** The area of a run when it is turned once (Guldin). */
function fullArea(run: Run): number {
  if (run.kind === 'line') {
    const { from, to } = run
    return Math.PI * (from.y + to.y) * Math.hypot(to.x - from.x, to.y - from.y)
  }
  if (run.kind === 'curve') {
    const along = run.pieces.reduce((sum, p) => sum + integrate(p, 0).yAlong, 0)
    return 2 * Math.PI * along
  }
  const { centre, radius, start, sweep } = run
  // The integral of the height over the arc.
  const height = centre.y * sweep + radius * (Math.cos(start) - Math.cos(start + sweep))
  return 2 * Math.PI * radius * Math.abs(height)
}

const isNear = (a: number, b: number, near: number): boolean => Math.abs(a - b) <= near

function overlaps(a: Run, b: Run, near: number): boolean {
  if (a.kind === 'curve' || b.kind === 'curve') {
    return a.kind === 'curve' && b.kind === 'curve' && isOneCurve(a.pieces, b.pieces, near)
  }
  if (a.kind === 'arc' || b.kind === 'arc') {
    return (
      a.kind === 'arc' &&
      b.kind === 'arc' &&
      isNear(a.radius, b.radius, near) &&
      isNear(a.centre.x, b.centre.x, near) &&
      isNear(a.centre.y, b.centre.y, near) &&
      (turn(b.start - a.start) <= a.sweep + 1e-6 || turn(a.start - b.start) <= b.sweep + 1e-6)
    )
  }
  if (a.side !== b.side) return false
  const along = vec(a.to.x - a.from.x, a.to.y - a.from.y)
  const length = Math.hypot(along.x, along.y) || 1
  const off = (p: Vec): number => ((p.x - a.from.x) * along.y - (p.y - a.from.y) * along.x) / length
  if (Math.abs(off(b.from)) > near || Math.abs(off(b.to)) > near) return false
  const place = (p: Vec): number =>
    ((p.x - a.from.x) * along.x + (p.y - a.from.y) * along.y) / length
  const [low, high] = [place(b.from), place(b.to)].sort((p, q) => p - q)
  return (low ?? 0) <= length + near && (high ?? 0) >= -near
}

/** Whether curves go over the same places: those of a face that was parted as it was turned. */
function isOneCurve(a: readonly Piece[], b: readonly Piece[], near: number): boolean {
  return a.every((p) =>
    [0, 0.5, 1].every((t) => b.some((q) => nearestOn(q, pointAt(p, t)).distance <= near)),
  )
}

const turn = (angle: number): number => ((angle % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)

function together(a: Run, b: Run): Run {
  if (a.kind === 'curve' || b.kind === 'curve') return a
  if (a.kind === 'arc') {
    if (b.kind !== 'arc') return a
    // From the start that the other goes over, to whichever end is farther.
    const [first, second] = turn(b.start - a.start) <= a.sweep + 1e-6 ? [a, b] : [b, a]
    const reach = turn(second.start - first.start) + second.sweep
    return { ...first, sweep: Math.min(2 * Math.PI, Math.max(first.sweep, reach)) }
  }
  if (b.kind === 'arc') return a
  const along = vec(a.to.x - a.from.x, a.to.y - a.from.y)
  const place = (p: Vec): number => p.x * along.x + p.y * along.y
  const ends = [a.from, a.to, b.from, b.to].sort((p, q) => place(p) - place(q))
  return { ...a, from: ends[0] ?? a.from, to: ends[3] ?? a.to }
}

function piecesOf(run: Run): Piece[] {
  if (run.kind === 'line') return [line(run.from, run.to)]
  if (run.kind === 'curve') return [...run.pieces]
  const { centre, radius, start, sweep } = run
  const at = (angle: number): Vec =>
    vec(centre.x + radius * Math.cos(angle), centre.y + radius * Math.sin(angle))
  const parts = sweep > 2 * Math.PI - 1e-9 ? 2 : 1
  return Array.from({ length: parts }, (_, i) =>
    arc(at(start + (i * sweep) / parts), at(start + ((i + 1) * sweep) / parts), centre, true),
  )
}

/** A piece with its ends made one with others’, and what it was before. */
interface Welded {
  readonly piece: Piece
  readonly from: Piece
}

/** Ends that are as good as one become one; what is on the axis lies on it. */
function weld(pieces: readonly Piece[], near: number): Welded[] {
  const places: Vec[] = []
  const one = (p: Vec): Vec => {
    const own = vec(p.x, p.y <= near ? 0 : p.y)
    const known = places.find((q) => Math.hypot(q.x - own.x, q.y - own.y) <= near)
    if (known) return known
    places.push(own)
    return own
  }
  return pieces
    .map((p): Welded => {
      const [from, to] = [one(p.from), one(p.to)]
      if (p.kind !== 'cubic') return { piece: { ...p, from, to }, from: p }
      const [, leave, come] = controlOf(p)
      return { piece: cubic(from, leave, come, to), from: p }
    })
    .filter(({ piece }) => piece.from !== piece.to)
}

/** How many pieces end at each place. */
function endCounts(pieces: readonly Piece[]): ReadonlyMap<Vec, number> {
  const counts = new Map<Vec, number>()
  for (const p of pieces) {
    for (const end of [p.from, p.to]) counts.set(end, (counts.get(end) ?? 0) + 1)
  }
  return counts
}

/** Points on a ball are no farther apart than this, in radians. */
const WIDEST_GAP = 0.9

/** Closes what is open: flat ends run on to the axis, and other ends are joined two and two. */
function mend(pieces: readonly Piece[], near: number): RecoveredOutline {
  const loose = (all: readonly Piece[]): Vec[] =>
    [...endCounts(all)].flatMap(([p, n]) => (n === 1 && p.y > 0 ? [p] : []))
  let mended = 0
  // A slot across the middle leaves a flat end without its middle.
  let here: Piece[] = [...pieces]
  for (const end of loose(here)) {
    const own = here.find((p) => p.from === end || p.to === end)
    if (own?.kind !== 'line' || !isNear(own.from.x, own.to.x, near)) continue
    const other = own.from === end ? own.to : own.from
    const between = here.some(
      (p) =>
        p !== own && [p.from, p.to].some((q) => isNear(q.x, end.x, near) && q.y < end.y - near),
    )
    if (other.y < end.y || between) continue
    const foot = vec(end.x, 0)
    here = here.map((p) => (p === own ? line(foot, other) : p))
    mended++
  }
  // Points on a ball stop short of its poles: an open arc about a centre on the axis goes on to the axis.
  for (const end of loose(here)) {
    const own = here.find((p) => p.from === end || p.to === end)
    if (own?.kind !== 'arc' || Math.abs(own.centre.y) > near) continue
    const radius = Math.hypot(end.x - own.centre.x, end.y - own.centre.y)
    if (Math.asin(Math.min(1, end.y / radius)) > WIDEST_GAP) continue
    const pole = vec(own.centre.x + Math.sign(end.x - own.centre.x) * radius, 0)
    const centre = vec(own.centre.x, 0)
    const [from, to] = own.from === end ? [pole, own.to] : [own.from, pole]
    here = here.map((p) => (p === own ? arc(from, to, centre, own.counterClockwise) : p))
    mended++
  }
  let rest = loose(here)
  while (rest.length > 1) {
    let pair: { readonly a: Vec; readonly b: Vec; readonly far: number } | undefined
    for (const [i, a] of rest.entries()) {
      for (const b of rest.slice(i + 1)) {
        // Straight along or across first: that is how turned parts go.
        const level = isNear(a.y, b.y, near) || isNear(a.x, b.x, near)
        const far = Math.hypot(b.x - a.x, b.y - a.y) * (level ? 1 : 4)
        if (!pair || far < pair.far) pair = { a, b, far }
      }
    }
    if (!pair) break
    const { a, b } = pair
    here = [...here, line(a, b)]
    mended++
    rest = rest.filter((p) => p !== a && p !== b)
  }
  // Of a flat end that a slot leaves no more than its corners of there is only what it ends.
  const [last] = rest
  if (last) {
    here = [...here, line(vec(last.x, 0), last)]
    mended++
  }
  return { pieces: here, mended }
}
