import { cubic, cubicAt, cubicBend, cubicSlope, curvatureOn, type Cubic } from './cubic'
import { nearestOn, tangentAt } from './piece'
import { gauss } from './gauss'
import type { ByControl } from './sway'
import { distance, dot, scale, subtract, type Vec } from './vector'

/** Something read off a curve of cubics: its value, where on it, and its derivatives by every control point. */
export interface Reading {
  readonly value: number
  readonly at: Vec
  /** Worked out when asked for. */
  readonly by: () => ByControl
}

const NOUGHT: Vec = { x: 0, y: 0 }

/** Shares of the four control points in a place of a cubic, and in its first two derivatives. */
const shares = (t: number): readonly number[] => {
  const r = 1 - t
  return [r * r * r, 3 * r * r * t, 3 * r * t * t, t * t * t]
}
const slopeShares = (t: number): readonly number[] => {
  const r = 1 - t
  return [-3 * r * r, 3 * r * r - 6 * r * t, 6 * r * t - 3 * t * t, 3 * t * t]
}
const bendShares = (t: number): readonly number[] => {
  const r = 1 - t
  return [6 * r, 6 * t - 12 * r, 6 * r - 12 * t, 6 * t]
}

/** The same told of one cubic of a curve, and nothing of the others. */
const only = (cubics: readonly Cubic[], which: number, told: readonly Vec[]): ByControl =>
  cubics.map((_, i) => (i === which ? told : []))

interface Spot {
  readonly index: number
  readonly t: number
  readonly at: Vec
  /** Whether the curve turns back there, so that the place moves along it. */
  readonly turns: boolean
}

/** Where the radius of a cubic turns back, strictly between its ends. */
function turnsOf(on: Cubic): readonly number[] {
  const [p, q, r] = [on[1].y - on[0].y, on[2].y - on[1].y, on[3].y - on[2].y]
  // p (1 − t)² + 2 q t (1 − t) + r t² is nought.
  const [a, b] = [p - 2 * q + r, q - p]
  const inside = b * b - a * p
  if (inside < 0) return []
  const half = -(b + (b < 0 ? -1 : 1) * Math.sqrt(inside))
  return [half / a, p / half].filter((t) => t > 0 && t < 1)
}

/** Where cubics are farthest out from the axis, or nearest to it. */
function outermost(cubics: readonly Cubic[], which: 'greatest' | 'least'): Spot | undefined {
  const sign = which === 'greatest' ? 1 : -1
  let best: Spot | undefined
  const offer = (spot: Spot): void => {
    if (!best || sign * spot.at.y > sign * best.at.y) best = spot
  }
  cubics.forEach((on, index) => {
    offer({ index, t: 0, at: on[0], turns: false })
    for (const t of turnsOf(on)) offer({ index, t, at: cubicAt(on, t), turns: true })
    offer({ index, t: 1, at: on[3], turns: false })
  })
  return best
}

/** The greatest or least distance of a curve from the axis. */
export function radiusRead(cubics: readonly Cubic[], which: 'greatest' | 'least'): Reading {
  const spot = outermost(cubics, which)
  if (!spot) return NOTHING
  return {
    ...{ value: spot.at.y, at: spot.at },
    by: () =>
      only(
        cubics,
        spot.index,
        shares(spot.t).map((y) => ({ x: 0, y })),
      ),
  }
}

/** Where along the axis a curve is farthest out or nearest in. */
export function placeRead(cubics: readonly Cubic[], which: 'greatest' | 'least'): Reading {
  const spot = outermost(cubics, which)
  const on = spot && cubics[spot.index]
  if (!spot || !on) return NOTHING
  const { t } = spot
  // The place moves along the curve to where the slope is nought again.
  const along = cubicSlope(on, t).x / (cubicBend(on, t).y || 1)
  const slopes = slopeShares(t)
  return {
    ...{ value: spot.at.x, at: spot.at },
    by: () =>
      only(
        cubics,
        spot.index,
        shares(t).map((x, k) => ({ x, y: spot.turns ? -along * (slopes[k] ?? 0) : 0 })),
      ),
  }
}

/** A cubic is measured in so many parts: a free curve has no sharp turns within one of its cubics. */
const PARTS = 4

/** The length of a curve. */
export function lengthRead(cubics: readonly Cubic[]): Reading {
  const eachPart = (visit: (t: number, weight: number) => void): void => {
    for (let i = 0; i < PARTS; i++) gauss(i / PARTS, (i + 1) / PARTS, visit)
  }
  let value = 0
  for (const on of cubics) {
    eachPart((t, weight) => {
      const { x, y } = cubicSlope(on, t)
      value += weight * Math.hypot(x, y)
    })
  }
  return {
    ...{ value, at: cubics[0]?.[0] ?? NOUGHT },
    by: () =>
      cubics.map((on) => {
        const told = [0, 1, 2, 3].map(() => ({ x: 0, y: 0 }))
        eachPart((t, weight) => {
          const { x, y } = cubicSlope(on, t)
          const times = weight / (Math.hypot(x, y) || 1)
          slopeShares(t).forEach((share, k) => {
            const own = told[k]
            if (!own) return
            own.x += times * share * x
            own.y += times * share * y
          })
        })
        return told
      }),
  }
}

/** A cubic is looked at in so many places before the sharpest is sought about its like. */
const LOOKS = 24

/** The golden section. */
const GOLDEN = (Math.sqrt(5) - 1) / 2

/** The curvature is flat where it is greatest: its place is known to the root of what its value is. */
const NEAR = 1e-9

function sharpestOn(on: Cubic): number {
  const bend = (t: number): number => Math.abs(curvatureOn(on, t))
  const looked = Array.from({ length: LOOKS + 1 }, (_, i) => bend(i / LOOKS))
  const most = Math.max(...looked)
  const peak = looked.indexOf(most)
  let [low, high] = [Math.max(0, peak - 1) / LOOKS, Math.min(LOOKS, peak + 1) / LOOKS]
  let [p, q] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)]
  let [atP, atQ] = [bend(p), bend(q)]
  while (high - low > NEAR) {
    if (atP > atQ) {
      ;[high, q, atQ] = [q, p, atP]
      p = high - GOLDEN * (high - low)
      atP = bend(p)
    } else {
      ;[low, p, atP] = [p, q, atQ]
      q = low + GOLDEN * (high - low)
      atQ = bend(q)
    }
  }
  const found = (low + high) / 2
  return bend(found) > most ? found : peak / LOOKS
}

/** The greatest curvature of a curve, whichever way it bends, in 1/mm. */
export function bendRead(cubics: readonly Cubic[]): Reading {
  let best: { readonly index: number; readonly t: number; readonly bend: number } | undefined
  cubics.forEach((on, index) => {
    const t = sharpestOn(on)
    const bend = Math.abs(curvatureOn(on, t))
    if (!best || bend > best.bend) best = { index, t, bend }
  })
  const found = best
  const on = found && cubics[found.index]
  if (!found || !on) return NOTHING
  const { t, index, bend } = found
  return {
    ...{ value: bend, at: cubicAt(on, t) },
    by: () => {
      const [d, e] = [cubicSlope(on, t), cubicBend(on, t)]
      const speed = Math.hypot(d.x, d.y) || 1
      const side = Math.sign(d.x * e.y - d.y * e.x) / speed ** 3
      const [slopes, bends] = [slopeShares(t), bendShares(t)]
      const fall = (3 * bend) / (speed * speed)
      return only(
        cubics,
        index,
        slopes.map((s, k) => {
          const b = bends[k] ?? 0
          return {
            x: side * (s * e.y - b * d.y) - fall * s * d.x,
            y: side * (b * d.x - s * e.x) - fall * s * d.y,
          }
        }),
      )
    },
  }
}

/**
 * How far a place lies on from one end of a curve in its direction there, or to the left of it.
 * @param end 0 for its start, 1 for its end
 */
export function endRead(
  cubics: readonly Cubic[],
  end: 0 | 1,
  place: Vec,
  what: 'along' | 'left',
): Reading {
  const index = end === 0 ? 0 : cubics.length - 1
  const on = cubics[index]
  if (!on) return NOTHING
  // The direction is that of the leg at the end; a leg of no length gives way to the next one.
  const order = end === 0 ? [0, 1, 2, 3] : [3, 2, 1, 0]
  const [at = 0, ...rest] = order
  const foot = on[at as 0]
  const leg = rest.find((k) => distance(on[k as 0], foot) > 0) ?? at
  const side = end === 0 ? 1 : -1
  const u = scale(subtract(on[leg as 0], foot), side)
  const size = Math.hypot(u.x, u.y) || 1
  const way = scale(u, 1 / size)
  const w = subtract(place, foot)
  const pull = what === 'along' ? w : { x: w.y, y: -w.x }
  const value = dot(way, pull)
  const byWay = scale(subtract(pull, scale(way, value)), side / size)
  const byFoot = what === 'along' ? scale(way, -1) : { x: way.y, y: -way.x }
  return {
    ...{ value, at: foot },
    by: () =>
      only(
        cubics,
        index,
        [0, 1, 2, 3].map((k) => {
          if (k === at) return subtract(byFoot, byWay)
          return k === leg ? byWay : NOUGHT
        }),
      ),
  }
}

/** How far a place lies from a curve, positive on the left of its direction. */
export function nearestRead(cubics: readonly Cubic[], place: Vec): Reading {
  let best: { readonly index: number; readonly t: number; readonly far: number } | undefined
  cubics.forEach((on, index) => {
    const { distance: far, t } = nearestOn(cubic(...on), place)
    if (!best || far < best.far) best = { index, t, far }
  })
  const found = best
  const on = found && cubics[found.index]
  if (!found || !on) return NOTHING
  const { t, index } = found
  const foot = cubicAt(on, t)
  const way = tangentAt(cubic(...on), t)
  const across = { x: -way.y, y: way.x }
  return {
    value: across.x * (place.x - foot.x) + across.y * (place.y - foot.y),
    at: foot,
    by: () =>
      only(
        cubics,
        index,
        shares(t).map((s) => ({ x: -s * across.x, y: -s * across.y })),
      ),
  }
}

const NOTHING: Reading = { value: 0, at: NOUGHT, by: () => [] }
