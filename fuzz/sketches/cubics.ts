/** What is read off a cubic, by looking at it in many places: apart from the model's own ways. */
import type { Place } from './places'

export type Control = readonly [Place, Place, Place, Place]

/** A cubic's place and its first two derivatives. */
function cubicPlace(c: Control, t: number): { p: Place; d: Place; dd: Place } {
  const r = 1 - t
  const sum = (weights: readonly number[], points: readonly Place[]): Place => ({
    x: weights.reduce((s, w, i) => s + w * (points[i]?.x ?? 0), 0),
    y: weights.reduce((s, w, i) => s + w * (points[i]?.y ?? 0), 0),
  })
  const steps = [1, 2, 3].map((i) => sum([-3, 3], [c[i - 1] ?? c[0], c[i] ?? c[0]]))
  const bends = [1, 2].map((i) => sum([-2, 2], [steps[i - 1] ?? c[0], steps[i] ?? c[0]]))
  return {
    p: sum([r ** 3, 3 * r * r * t, 3 * r * t * t, t ** 3], c),
    d: sum([r * r, 2 * r * t, t * t], steps),
    dd: sum([r, t], bends),
  }
}

const PARTS = 4000

/** By Simpson's rule. */
export function lengthOfCubic(c: Control): number {
  let sum = 0
  for (let i = 0; i <= PARTS; i++) {
    const { d } = cubicPlace(c, i / PARTS)
    sum += Math.hypot(d.x, d.y) * (i === 0 || i === PARTS ? 1 : i % 2 === 1 ? 4 : 2)
  }
  return sum / (3 * PARTS)
}

/** What is greatest or least on a cubic, by looking everywhere and between the best and its neighbours. */
export function readOff(c: Control, kind: FreeKind): number {
  const bend = (t: number): number => {
    const { d, dd } = cubicPlace(c, t)
    return Math.abs(d.x * dd.y - d.y * dd.x) / Math.hypot(d.x, d.y) ** 3
  }
  const sign = kind === 'leastDiameter' || kind === 'leastAt' ? -1 : 1
  const read = kind === 'leastRadius' ? bend : (t: number): number => sign * cubicPlace(c, t).p.y
  let best = 0
  for (let i = 1; i <= PARTS; i++) if (read(i / PARTS) > read(best / PARTS)) best = i
  let [low, high] = [Math.max(0, best - 1) / PARTS, Math.min(PARTS, best + 1) / PARTS]
  // Where it is flat its place is told by its slope, which changes sign there.
  const rises = (t: number): boolean => sign * cubicPlace(c, t).d.y > 0
  const isFlat = kind !== 'leastRadius' && rises(low) && !rises(high)
  for (let k = 0; k < 200; k++) {
    const [u, v] = [(2 * low + high) / 3, (low + 2 * high) / 3]
    if (isFlat ? !rises((low + high) / 2) : read(u) > read(v)) high = isFlat ? (low + high) / 2 : v
    else low = isFlat ? (low + high) / 2 : u
  }
  const t = (low + high) / 2
  if (kind === 'leastRadius') return 1 / read(t)
  return kind === 'greatestAt' || kind === 'leastAt' ? cubicPlace(c, t).p.x : 2 * sign * read(t)
}

type FreeKind = 'greatestDiameter' | 'leastDiameter' | 'greatestAt' | 'leastAt' | 'leastRadius'
