import { cubicAt, cubicSlope, type Cubic } from './cubic'
import { cross, distance, dot, subtract, unit, type Vec } from './vector'

/** Two nearly straight stretches of cubics, by their control points. */
interface TwoCubics {
  readonly a: Cubic
  readonly b: Cubic
}

/** Nearly straight stretches that are nowhere further apart than this, in mm, are followed side by side. */
const CLOSE = 2e-3

/** A place on both of two stretches, as shares. */
interface Shares {
  readonly t: number
  readonly u: number
}

/** The share of a nearly straight stretch that a place lies straight across from; beyond its ends outside 0 to 1. */
function shareAcross(control: Cubic, place: Vec): number {
  const [from, , , to] = control
  const chord = subtract(to, from)
  const square = dot(chord, chord)
  if (square === 0) return 0.5
  let u = dot(subtract(place, from), chord) / square
  for (let i = 0; i < 40; i++) {
    const slope = cubicSlope(control, u)
    const size = dot(slope, slope)
    if (size === 0) break
    const by = dot(subtract(place, cubicAt(control, u)), slope) / size
    u = Math.max(-0.5, Math.min(1.5, u + by))
    if (Math.abs(by) < 1e-13) break
  }
  return u
}

/** How far a place lies off a nearly straight stretch, positive on its left, and where across from it. */
function offStretch(control: Cubic, place: Vec): { readonly off: number; readonly u: number } {
  const u = shareAcross(control, place)
  const way = unit(cubicSlope(control, u))
  return { off: cross(way, subtract(place, cubicAt(control, u))), u }
}

/** Whether two nearly straight stretches run along one another all the way that they have in common. */
export function runClose({ a, b }: TwoCubics): boolean {
  const shares = [0, 1].map((e) => shareAcross(a, b[e === 0 ? 0 : 3]))
  const low = Math.max(0, Math.min(...shares))
  const high = Math.min(1, Math.max(...shares))
  if (!(high > low)) return false
  return [0, 0.25, 0.5, 0.75, 1].every((share) => {
    const { off, u } = offStretch(b, cubicAt(a, low + (high - low) * share))
    return Math.abs(off) <= CLOSE && u > -0.1 && u < 1.1
  })
}

/** Places looked at along stretches that run close to one another. */
const LOOKS = 24

/**
 * Where two stretches that run close to one another cross or touch: how far the one is off the other is
 * followed along the way they have in common. Two crossings nearer to one another than the looks may be
 * missed; what lies between them is thinner than rounding then.
 * @returns undefined where places across from one another cannot be found
 */
export function alongOneAnother(
  { a, b }: TwoCubics,
  tolerance: number,
): { readonly crossings: Shares[]; readonly close: Shares[] } | undefined {
  const shares = [shareAcross(a, b[0]), shareAcross(a, b[3])]
  const low = Math.max(0, Math.min(...shares))
  const high = Math.min(1, Math.max(...shares))
  const crossings: Shares[] = []
  const close: Shares[] = []
  const look = (t: number): Shares & { readonly off: number } => ({
    t,
    ...offStretch(b, cubicAt(a, t)),
  })
  const looks = Array.from({ length: LOOKS + 1 }, (_, i) => look(low + ((high - low) * i) / LOOKS))
  looks.forEach((here, i) => {
    if (Math.abs(here.off) <= tolerance) close.push(here)
    const next = looks[i + 1]
    const after = looks[i + 2]
    if (!next) return
    if (here.off * next.off < 0) {
      let [from, to] = [here, next]
      for (let n = 0; n < 50 && to.t - from.t > 1e-15; n++) {
        const middle = look((from.t + to.t) / 2)
        if (middle.off * from.off > 0) from = middle
        else to = middle
        if (Math.abs(middle.off) < 1e-13) break
      }
      crossings.push(to)
    }
    // Nearest between two looks, where it comes near and goes off again.
    if (!after || here.off * after.off <= 0 || here.off * next.off <= 0) return
    const size = (l: { readonly off: number }): number => Math.abs(l.off)
    if (size(next) > size(here) || size(next) > size(after) || size(next) <= tolerance) return
    let [from, to] = [here.t, after.t]
    for (let n = 0; n < 40; n++) {
      const [one, two] = [look(from + (to - from) / 3), look(to - (to - from) / 3)]
      if (one.off * here.off < 0 || two.off * here.off < 0) break
      if (size(one) < size(two)) to = two.t
      else from = one.t
    }
    const nearest = look((from + to) / 2)
    if (size(nearest) <= tolerance) close.push(nearest)
  })
  // Where a stretch stands still, no place on it is straight across from another.
  const isSound = [...crossings, ...close].every(
    ({ t, u }) => distance(cubicAt(a, t), cubicAt(b, u)) <= tolerance,
  )
  return isSound ? { crossings, close } : undefined
}
