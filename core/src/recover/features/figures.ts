import { unitScale, type Measure, type UnitSettings } from '../../units'
import type { Host } from './types'

/** Directions nearer than this are one, in radians. */
export const PARALLEL = 1e-6

/** What a file tells is good to so many places of a mm, and of a degree. */
const PLACES = 6

/**
 * A value in mm or radians as the formula of a size or step.
 * @param more places than a figure that someone typed would have
 */
export function figureOf(value: number, measure: Measure, units: UnitSettings, more = 0): string {
  const unit = unitScale(measure, units)
  const places = PLACES + more + Math.max(0, Math.ceil(Math.log10(unit)))
  return String(Number((value / unit).toFixed(places)) + 0)
}

const TURN = 2 * Math.PI

/** An angle between 0 and a whole turn, or another period; what is next to the end is 0. */
export function wrapped(angle: number, period = TURN): number {
  const own = ((angle % period) + period) % period
  return period - own < 1e-7 ? 0 : own
}

/** Things of one kind, evenly round the axis: the angle of the first, and the range of a part of the turn. */
export interface Spread<T> {
  readonly start: number
  /** From the first to the last; undefined for evenly round the whole period. */
  readonly range: number | undefined
  readonly items: readonly T[]
}

/** Angles within this of one another are one, in radians. */
const ANGLE = 1e-6

/**
 * Items parted into those that lie evenly round the axis.
 * @param period after how much of a turn they come again, in radians
 */
export function spreadsOf<T extends { readonly angle: number }>(
  items: readonly T[],
  period = TURN,
): Spread<T>[] {
  const sorted = items
    .map((item) => ({ item, angle: wrapped(item.angle, period) }))
    .sort((a, b) => a.angle - b.angle)
  const [first] = sorted
  if (!first) return []
  const one = (from: number, range: number | undefined): Spread<T> => ({
    ...{ start: from, range, items: sorted.map((s) => s.item) },
  })
  const count = sorted.length
  if (count === 1) return [one(first.angle, undefined)]
  const gaps = sorted.map(({ angle }, i) => {
    const next = sorted[(i + 1) % count]?.angle ?? 0
    return i + 1 < count ? next - angle : next + period - angle
  })
  const isEven = (some: readonly number[]): boolean =>
    some.every((g) => Math.abs(g - (some[0] ?? 0)) < ANGLE * count)
  if (isEven(gaps)) return [one(first.angle, undefined)]
  // All but the widest gap are alike: they lie over a part of the turn.
  const widest = gaps.indexOf(Math.max(...gaps))
  const others = gaps.filter((_, i) => i !== widest)
  const begin = sorted[(widest + 1) % count]?.angle ?? 0
  if (isEven(others)) return [one(begin, (others[0] ?? 0) * (count - 1))]
  return sorted.map(({ item, angle }) => ({ start: angle, range: undefined, items: [item] }))
}

/** Things parted by what is alike in them, in the order in which they first come. */
export function alike<T>(items: readonly T[], isAlike: (a: T, b: T) => boolean): T[][] {
  const groups: T[][] = []
  for (const item of items) {
    const known = groups.find(([first]) => first !== undefined && isAlike(first, item))
    if (known) known.push(item)
    else groups.push([item])
  }
  return groups
}

/** Whether lengths are one, or both are left out. */
export const isOne = (a: number | undefined, b: number | undefined, { near }: Host): boolean =>
  a === undefined || b === undefined ? a === b : Math.abs(a - b) <= near
