import { place, type Place } from '../../geometry'
import type { SolidProperties } from '../../section'
import type { LiftedProperties } from '../lifted'

/** What is nearer to something else than this is left to the kernel, in mm. */
export const APART = 1e-4
/** Places that differ by less are one, in mm; others nearer than `NEAR` are left to the kernel. */
export const SAME = 1e-9
export const NEAR = 1e-5

/** Integrals over what a tool takes, in the part's directions: ∫dV, ∫x, ∫y, ∫z, ∫x², ∫y², ∫z² and ∫xy. */
export interface Sums {
  readonly volume: number
  readonly x: number
  readonly y: number
  readonly z: number
  readonly xx: number
  readonly yy: number
  readonly zz: number
  readonly xy: number
}

const NAMES = ['volume', 'x', 'y', 'z', 'xx', 'yy', 'zz', 'xy'] as const

export const NOTHING: Sums = { volume: 0, x: 0, y: 0, z: 0, xx: 0, yy: 0, zz: 0, xy: 0 }

/** One with so many times another. */
export function plus(one: Sums, other: Sums, times = 1): Sums {
  const sum = { ...one } as { -readonly [K in keyof Sums]: number }
  for (const name of NAMES) sum[name] += times * other[name]
  return sum
}

/** Where a tool takes something: along the axis, out from it, and round it by half an angle either way. */
export interface Reach {
  readonly from: number
  readonly to: number
  readonly low: number
  readonly high: number
  readonly angle: number
  readonly half: number
  /** How much of that it takes of the surfaces it breaks, where that is less: through what is solid all angles meet. */
  readonly broken?: number
  /** The circle about an axis of its own that holds all of it, where it has one along the part's. */
  readonly round?: { readonly x: number; readonly y: number; readonly radius: number }
}

/** What a tool takes away: its integrals, how much surface there is more after it, in mm², and where that is. */
export interface Taken {
  readonly sums: Sums
  readonly area: number
  readonly reach: Reach
}

/** Whether nothing of what a tool takes touches anything that another takes. */
export const allApart = (tools: readonly (readonly Taken[])[]): boolean =>
  tools.every((one, i) =>
    tools
      .slice(i + 1)
      .every((other) => one.every((a) => other.every((b) => isApart(a.reach, b.reach)))),
  )

function isApart(a: Reach, b: Reach): boolean {
  if (a.from > b.to + APART || b.from > a.to + APART) return true
  if (a.low > b.high + APART || b.low > a.high + APART) return true
  const turn = Math.abs(Math.atan2(Math.sin(a.angle - b.angle), Math.cos(a.angle - b.angle)))
  const low = Math.min(a.low, b.low)
  if (low > 0 && turn > a.half + b.half + APART / low) return true
  if (!a.round || !b.round) return false
  const between = Math.hypot(a.round.x - b.round.x, a.round.y - b.round.y)
  return between > a.round.radius + b.round.radius + APART
}

/** Of a full turn about an axis of its own along the part's. @param at its centre of volume */
export function turnedSums({ volume, inertiaAxis, inertiaAcross }: SolidProperties, at: Place) {
  const round = inertiaAxis / 2
  return {
    ...{ volume, x: volume * at.x, y: volume * at.y, z: volume * at.z },
    xx: round + volume * at.x ** 2,
    yy: round + volume * at.y ** 2,
    zz: inertiaAcross - round + volume * at.z ** 2,
    xy: volume * at.x * at.y,
  }
}

/** What is left of a full turn. */
export function left(whole: SolidProperties, taken: readonly Taken[]): LiftedProperties {
  // About its own middle, so that what is far along the axis loses no digits.
  const middle = whole.centreX
  const start: Sums = turnedSums(whole, place(0, 0, 0))
  const sums = taken.reduce((sum, t) => plus(sum, broughtTo(t.sums, middle), -1), start)
  const { volume } = sums
  const [x, y, z] = [sums.x / volume, sums.y / volume, sums.z / volume]
  const spread = {
    ...{ xx: sums.xx - volume * x * x, yy: sums.yy - volume * y * y },
    ...{ zz: sums.zz - volume * z * z, xy: sums.xy - volume * x * y },
  }
  // About the lines through the centre square to the axis: the greatest of all (Mohr's circle).
  const [across, other] = [spread.yy + spread.zz, spread.xx + spread.zz]
  return {
    ...{ volume, centre: place(x, y, middle + z), pieces: 1, centreX: middle + z },
    area: taken.reduce((sum, t) => sum + t.area, whole.area),
    inertiaAxis: sums.xx + sums.yy,
    inertiaAcross: (across + other) / 2 + Math.hypot((across - other) / 2, spread.xy),
    ...{ from: whole.from, to: whole.to, radius: whole.radius },
  }
}

/** The same integrals with lengths along the axis told from another place. */
const broughtTo = (sums: Sums, middle: number): Sums => ({
  ...sums,
  z: sums.z - middle * sums.volume,
  zz: sums.zz - 2 * middle * sums.z + middle * middle * sums.volume,
})
