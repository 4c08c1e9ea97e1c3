import { nearestOn, pointAt, type Piece } from './piece'
import { norm, type Vec } from './vector'

/** Places of a stretch between which the greatest distance is looked for. */
const LOOKS = 32

/** How far two curves are apart at most, in mm, and where. */
export interface Departure {
  readonly by: number
  readonly at: Vec
}

/** The greatest distance of places of either curve from the other: never less than it is, and hardly more. */
export function departureOf(one: readonly Piece[], two: readonly Piece[]): Departure {
  const rounding = 1e-12 * Math.max(...[...one, ...two].map((p) => norm(p.from) + norm(p.to)))
  const [there, back] = [greatestOff(one, two), greatestOff(two, one)]
  const most = there.by >= back.by ? there : back
  return { by: 1.01 * most.by + rounding, at: most.at }
}

function greatestOff(of: readonly Piece[], from: readonly Piece[]): Departure {
  let most: Departure = { by: 0, at: of[0]?.from ?? { x: 0, y: 0 } }
  const off = distanceTo(from)
  for (const piece of of) {
    const offAt = (t: number): Departure => {
      const at = pointAt(piece, t)
      return { by: off(at), at }
    }
    const take = (next: Departure): void => {
      if (next.by > most.by) most = next
    }
    const values = Array.from({ length: LOOKS + 1 }, (_, i) => offAt(i / LOOKS))
    values.forEach((value, i) => {
      take(value)
      const [left, right] = [values[i - 1]?.by ?? -1, values[i + 1]?.by ?? -1]
      if (value.by < left || value.by < right || value.by < 0.9 * most.by) return
      take(peak(offAt, Math.max(0, i - 1) / LOOKS, Math.min(LOOKS, i + 1) / LOOKS))
    })
  }
  return most
}

const GOLDEN = (Math.sqrt(5) - 1) / 2

/** The greatest value between two places that have one peak between them, by the golden section. */
function peak(f: (t: number) => Departure, low: number, high: number): Departure {
  let [a, b] = [low, high]
  for (let i = 0; i < 20; i++) {
    const [p, q] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)]
    if (f(p).by > f(q).by) b = q
    else a = p
  }
  return f((a + b) / 2)
}

/** Distances of places from pieces. Places are asked for along a curve: the piece found last is tried first. */
function distanceTo(pieces: readonly Piece[]): (p: Vec) => number {
  let last = 0
  return (p) => {
    const known = pieces[last]
    let least = known ? nearestOn(known, p).distance : Infinity
    pieces.forEach((piece, i) => {
      if (i === last) return
      const off = nearestWithin(piece, p, least)
      if (off < least) [least, last] = [off, i]
    })
    return least
  }
}

/** The distance of a place from a piece, or anything greater than a limit where it is beyond that. */
function nearestWithin(piece: Piece, p: Vec, limit: number): number {
  if (piece.kind === 'arc') return nearestOn(piece, p).distance
  // A cubic lies within its control points.
  const control = piece.kind === 'cubic' ? piece.on : [piece.from, piece.to]
  const [xs, ys] = [control.map((c) => c.x), control.map((c) => c.y)]
  const dx = Math.max(Math.min(...xs) - p.x, p.x - Math.max(...xs), 0)
  const dy = Math.max(Math.min(...ys) - p.y, p.y - Math.max(...ys), 0)
  return dx * dx + dy * dy > limit * limit ? Infinity : nearestOn(piece, p).distance
}
