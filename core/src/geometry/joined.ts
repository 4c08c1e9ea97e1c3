import type { Cubic } from './cubic'
import { cubicsOver, frameOver, polarOf, type Spline } from './spline'
import { distance, norm, scale, subtract, add, type Vec } from './vector'

/** Some cubics end to end that are one curve over a frame, and how many they are. */
export interface Joined {
  readonly frame: Spline
  readonly count: number
}

/** A cubic, and how many of those that were given it is. */
interface Whole {
  readonly on: Cubic
  readonly count: number
}

/**
 * Cubics, end to end, as as few curves over frames as go on without a jump of curvature: the cubics of each are those
 * that were given, to a tolerance in mm. Parts of one cubic count as that.
 */
export function joinedCubics(cubics: readonly Cubic[], tolerance: number): readonly Joined[] {
  const whole = wholeCubics(cubics, tolerance)
  // Most are one curve: then nothing is tried piece by piece.
  const all = asOne(
    whole.map((w) => w.on),
    tolerance,
  )
  if (all && whole.length > 0) return [{ frame: all, count: cubics.length }]
  const found: Joined[] = []
  let first = 0
  while (first < whole.length) {
    let best: Joined | undefined
    let taken = 0
    for (let last = first + 1; last <= whole.length; last++) {
      const run = whole.slice(first, last)
      const frame = asOne(
        run.map((w) => w.on),
        tolerance,
      )
      if (!frame) break
      best = { frame, count: run.reduce((sum, w) => sum + w.count, 0) }
      taken = run.length
    }
    if (!best) return found
    found.push(best)
    first += taken
  }
  return found
}

/** Cubics that go on as one polynomial are one. */
function wholeCubics(cubics: readonly Cubic[], tolerance: number): readonly Whole[] {
  const whole: Whole[] = []
  for (const next of cubics) {
    const last = whole.at(-1)
    const on = last && throughBoth(last.on, next, tolerance)
    if (last && on) whole[whole.length - 1] = { on, count: last.count + 1 }
    else whole.push({ on: next, count: 1 })
  }
  return whole
}

/** The cubic of which two are the first and the second part, if they are. */
function throughBoth(a: Cubic, b: Cubic, tolerance: number): Cubic | undefined {
  const share = norm(subtract(b[1], b[0])) / norm(subtract(a[3], a[2]))
  if (!(share > 0 && Number.isFinite(share))) return undefined
  const end = 1 + share
  const goesOn = stretchOf(a, 1, end)
  const isSame = goesOn.every((p, i) => distance(p, b[i] ?? NOWHERE) <= tolerance)
  if (!isSame) return undefined
  const [p, q, r] = stretchOf(a, 0, end)
  return [p, q, r, b[3]]
}

/** A stretch of a cubic, or of what it goes on as, from one parameter to another. */
const stretchOf = (on: Cubic, from: number, to: number): Cubic => [
  polarOf(on, from, from, from),
  polarOf(on, from, from, to),
  polarOf(on, from, to, to),
  polarOf(on, to, to, to),
]

/** The curve over a frame that some cubics are, if they are one. */
function asOne(cubics: readonly Cubic[], tolerance: number): Spline | undefined {
  const spans = [1]
  for (const [i, next] of cubics.slice(1).entries()) {
    const before = cubics[i]
    if (!before) return undefined
    // The speed goes on without a jump: that tells how long the next one runs.
    const [comes, leaves] = [subtract(before[3], before[2]), subtract(next[1], next[0])]
    const ratio = norm(leaves) / norm(comes)
    if (!(ratio > 0 && Number.isFinite(ratio))) return undefined
    const [p, q] = [bendOf(before[1], before[2], before[3]), bendOf(next[0], next[1], next[2])]
    const jump = norm(subtract(scale(p, ratio ** 2), q))
    const apart = distance(before[3], next[0])
    if (jump > ROOM * tolerance * Math.max(1, ratio ** 2) || apart > tolerance) return undefined
    spans.push((spans[i] ?? 1) * ratio)
  }
  const frame = frameOver(cubics.map((on, i) => ({ on, length: spans[i] ?? 1 })))
  const again = cubicsOver(frame)
  const isSame = cubics.every((on, i) =>
    on.every((p, k) => distance(p, again[i]?.[k] ?? NOWHERE) <= tolerance),
  )
  return isSame ? frame : undefined
}

/** A second difference may be off by so many times as much as its three places; what is taken is proved by its places. */
const ROOM = 100

const NOWHERE: Vec = { x: Infinity, y: 0 }

/** The second difference of three control points. */
const bendOf = (a: Vec, b: Vec, c: Vec): Vec => add(subtract(a, scale(b, 2)), c)
