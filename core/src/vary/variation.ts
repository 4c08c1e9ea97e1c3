import { figureValue } from '../inspect'
import { once } from '../once'
import { valuesOf, type Figure, type Part } from '../part'
import { fail, succeed, type Result } from '../result'
import { evaluate, settle } from '../route'
import { createRandom, createVariation } from '../solver'
import { byPointsOf, type ByPoints } from './standing'
import { tolerancedIn, withValuesOff, type Toleranced } from './toleranced'

/** What one value does to a figure. */
export interface Contribution {
  readonly of: Toleranced
  /** By how much the figure grows when the value does by 1 mm or 1 radian. */
  readonly rate: number
  /** By how much it can change the figure, from one of its limits to the other. */
  readonly spread: number
  /** Its part of the spread in the worst case, from 0 to 1. */
  readonly share: number
}

/** Between which values a figure lies. */
export interface Span {
  readonly low: number
  readonly high: number
}

/** How far a figure can be off. */
export interface Variation {
  /** With every value at its nominal. */
  readonly nominal: number
  /** What changes it, the most first. */
  readonly contributions: readonly Contribution[]
  /** With every value at the limit that makes it least, and greatest: solved and worked out there. */
  readonly worst: Span
  /** By which each value is off then, by their ids. */
  readonly corners: {
    readonly low: ReadonlyMap<string, number>
    readonly high: ReadonlyMap<string, number>
  }
  /** By the root of the sum of squares about the middle: what hardly any part leaves. */
  readonly root: Span
  /** Whether its rates come from the equations of a profile; else from small changes to the whole part. */
  readonly exact: boolean
  /** What all of it hangs on, if the part is to be worked out many times. */
  readonly figure: Figure
}

/** Told as work goes on, from 0 to 1. */
export type Progress = (done: number) => void

/** A part that is made ready to be worked out with its values off. */
interface Model {
  readonly toleranced: readonly Toleranced[]
  readonly exact: boolean
  /** The figure with values off, by their numbers; no number where there is none. */
  readonly at: (off: Float64Array) => number
  readonly rates: (progress: Progress) => readonly number[]
}

/** What is worked out for the whole part, whatever the figure is. */
function wholeModel(part: Part, figure: Figure, toleranced: readonly Toleranced[]): Model {
  const at = (off: Float64Array): number => {
    const here = withValuesOff(part, new Map(toleranced.map((t, i) => [t.id, off[i] ?? 0])))
    const found = figureValue(figure, here, evaluate(here).bodies)
    return found.ok ? found.value.value : Number.NaN
  }
  return {
    ...{ toleranced, exact: false, at },
    rates: (progress) =>
      toleranced.map((t, i) => {
        const alone = (by: number): number => {
          const off = new Float64Array(toleranced.length)
          off[i] = by
          return at(off)
        }
        const step = Math.max(t.upper - t.lower, 1e-4) / 4
        // Four places, so that what is left goes with the fourth power of the step.
        const near = alone(step) - alone(-step)
        const far = alone(2 * step) - alone(-2 * step)
        progress((i + 1) / toleranced.length)
        return (8 * near - far) / (12 * step)
      }),
  }
}

/** What stands on points of one profile, which alone is solved anew. */
function profileModel(part: Part, points: ByPoints, toleranced: readonly Toleranced[]): Model {
  const { sketch, value, rate } = points
  const nominal = valuesOf(part).sizesOf(sketch.id).values
  const sizes = [...nominal.keys()]
  const variation = createVariation(sketch, nominal)
  const valuesAt = (off: ReadonlyMap<string, number>): ReadonlyMap<string, number> =>
    valuesOf(withValuesOff(part, off)).sizesOf(sketch.id).values
  /** By how much each size of the profile changes with each value, and whether always by as much. */
  let straight = true
  const changes = toleranced.map((t) => {
    const step = Math.max(t.upper - t.lower, 1e-4)
    const [more, less] = [valuesAt(new Map([[t.id, step]])), valuesAt(new Map([[t.id, -step]]))]
    return sizes.flatMap((size) => {
      const [p, q, r] = [more.get(size) ?? NaN, less.get(size) ?? NaN, nominal.get(size) ?? NaN]
      if (Math.abs(p + q - 2 * r) > 1e-12 * Math.max(1, Math.abs(r))) straight = false
      const by = (p - q) / (2 * step)
      return by === 0 ? [] : [{ size, by }]
    })
  })
  const at = (off: Float64Array): number => {
    const moved = new Map<string, number>()
    if (straight) {
      changes.forEach((list, i) => {
        const by = off[i] ?? 0
        if (by === 0) return
        for (const c of list) {
          moved.set(c.size, (moved.get(c.size) ?? nominal.get(c.size) ?? 0) + c.by * by)
        }
      })
    }
    const others = straight
      ? moved
      : valuesAt(new Map(toleranced.map((t, i) => [t.id, off[i] ?? 0])))
    const place = variation.placesAt(others)
    return place ? value(place) : Number.NaN
  }
  return {
    ...{ toleranced, exact: straight, at },
    rates: () => {
      const bySize = new Map<string, number>()
      const rateOf = (size: string): number => {
        const known = bySize.get(size)
        if (known !== undefined) return known
        const motion = variation.motionBy(size)
        const found = motion ? rate((p) => motion.get(p) ?? { x: 0, y: 0 }) : 0
        bySize.set(size, found)
        return found
      }
      return changes.map((list) => list.reduce((sum, c) => sum + rateOf(c.size) * c.by, 0))
    },
  }
}

function modelOf(part: Part, figure: Figure): Result<Model> {
  const settled = settle(part)
  const now = figureValue(figure, settled, evaluate(settled).bodies)
  if (!now.ok) {
    if (now.problem.code !== 'figure.pending') return now
    const mend = 'Measure it before the first hole or flat, or between turned faces.'
    return fail('vary.solid', 'What is no full turn is not worked out at limits yet.', mend)
  }
  const toleranced = tolerancedIn(settled)
  if (toleranced.length === 0) {
    return fail(
      'vary.none',
      'No size has a tolerance.',
      'Type one behind a value, as in 35 k6 or 24 ±0.05, or choose general tolerances.',
    )
  }
  const points = byPointsOf(settled, figure)
  return succeed(
    points ? profileModel(settled, points, toleranced) : wholeModel(settled, figure, toleranced),
  )
}

/** Rates below this share of the greatest are rounding. */
const NO_RATE = 1e-9

/**
 * How far a figure can be off, and through which values.
 * @returns a problem where the figure is gone, or nothing has a tolerance
 */
export function variationOf(
  part: Part,
  figure: Figure,
  progress: Progress = () => undefined,
): Result<Variation> {
  const model = modelOf(part, figure)
  if (!model.ok) return model
  const { toleranced, exact, at } = model.value
  const still = new Float64Array(toleranced.length)
  const nominal = at(still)
  const rates = model.value.rates(progress)
  const greatest = Math.max(...rates.map(Math.abs))
  const ways = rates.map((r) => (Math.abs(r) <= NO_RATE * Math.max(1, greatest) ? 0 : Math.sign(r)))
  const corner = (sign: 1 | -1): Float64Array =>
    Float64Array.from(toleranced, (t, i) => {
      const way = (ways[i] ?? 0) * sign
      return way > 0 ? t.upper : way < 0 ? t.lower : 0
    })
  const named = (off: Float64Array): ReadonlyMap<string, number> =>
    new Map(toleranced.map((t, i) => [t.id, off[i] ?? 0]))
  const [least, most] = [corner(-1), corner(1)]
  const worst = { low: at(least), high: at(most) }
  const widths = toleranced.map((t, i) =>
    ways[i] === 0 ? 0 : Math.abs(rates[i] ?? 0) * (t.upper - t.lower),
  )
  const whole = widths.reduce((a, b) => a + b, 0)
  const middle = toleranced.reduce(
    (sum, t, i) => sum + (ways[i] === 0 ? 0 : ((rates[i] ?? 0) * (t.upper + t.lower)) / 2),
    nominal,
  )
  const half = Math.sqrt(widths.reduce((sum, w) => sum + (w / 2) ** 2, 0))
  const contributions = toleranced
    .map((of, i): Contribution => {
      const spread = widths[i] ?? 0
      return { of, rate: rates[i] ?? 0, spread, share: whole > 0 ? spread / whole : 0 }
    })
    .filter((c) => c.spread > 0)
    .sort((a, b) => b.spread - a.spread)
  if (!Number.isFinite(worst.low + worst.high + half)) {
    return lostAt(part, figure, named(Number.isFinite(worst.low) ? most : least))
  }
  const loose = 'other' in figure ? leastMaterial(part) : undefined
  if (loose && !isHeld(part, figure, loose)) return lostAt(part, figure, loose)
  return succeed({
    ...{ nominal, contributions, worst, exact, figure },
    corners: { low: named(least), high: named(most) },
    root: { low: middle - half, high: middle + half },
  })
}

/**
 * Every value at the limit that leaves the least material: bodies are loosest in one another there. What a body is held
 * by need not change its play, so that the limits of its play alone would not tell that it gets free.
 */
const leastMaterial = once((part: Part): ReadonlyMap<string, number> | undefined => {
  const volume = variationOf(part, { kind: 'volume', body: '' })
  return volume.ok ? volume.value.corners.low : undefined
})

function isHeld(part: Part, figure: Figure, off: ReadonlyMap<string, number>): boolean {
  const here = withValuesOff(settle(part), off)
  return figureValue(figure, here, evaluate(here).bodies).ok
}

/** Why a figure has no value at limits: it is told there, as that a body leaves freely that was held. */
function lostAt(part: Part, figure: Figure, off: ReadonlyMap<string, number>): Result<never> {
  const here = withValuesOff(settle(part), off)
  const found = figureValue(figure, here, evaluate(here).bodies)
  const mend = 'Tighten the tolerances, or look at the part at its limits.'
  if (found.ok) return fail('vary.lost', 'At these limits the part cannot be made.', mend)
  return fail('vary.lost', `At the limits: ${found.problem.message}`, mend)
}

/** How values scatter between their limits: about their middle, three standard deviations to a limit; or evenly. */
export type Scatter = 'normal' | 'even'

/** What many parts come to. */
export interface Trials {
  /** The figure of each, in the order in which they were made. */
  readonly values: Float64Array
  /** How many could not be made. */
  readonly lost: number
}

/**
 * Works a figure out for many parts whose values scatter between their limits; each is solved anew.
 * @param seed of the scatter, so that the same is found again
 */
export function trialsOf(
  part: Part,
  figure: Figure,
  { count, scatter, seed = 1 }: { count: number; scatter: Scatter; seed?: number },
  progress: Progress = () => undefined,
): Result<Trials> {
  const model = modelOf(part, figure)
  if (!model.ok) return model
  const { toleranced, at } = model.value
  const random = createRandom(seed)
  const values = new Float64Array(count)
  const off = new Float64Array(toleranced.length)
  let kept = 0
  for (let n = 0; n < count; n++) {
    toleranced.forEach((t, i) => (off[i] = scattered(t, scatter, random)))
    const value = at(off)
    if (Number.isFinite(value)) values[kept++] = value
    if (n % TOLD_EVERY === TOLD_EVERY - 1) progress((n + 1) / count)
  }
  return succeed({ values: values.slice(0, kept), lost: count - kept })
}

const TOLD_EVERY = 50

/** Standard deviations from the middle of a tolerance to its limits. */
const DEVIATIONS = 3

function scattered({ upper, lower }: Toleranced, scatter: Scatter, random: () => number): number {
  if (scatter === 'even') return lower + (upper - lower) * random()
  for (;;) {
    // Box and Muller 1958; what lies beyond the limits is sorted out.
    const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    if (Math.abs(normal) <= DEVIATIONS) {
      return (upper + lower) / 2 + (normal * (upper - lower)) / (2 * DEVIATIONS)
    }
  }
}

/** What would have to change for a figure to stay within what is wanted. */
export type Advice =
  | { readonly kind: 'held' }
  /** One tolerance is to be this wide at most, about its middle. */
  | { readonly kind: 'tighten'; readonly of: Toleranced; readonly width: number }
  /** No single one is enough; together they leave so much too much. */
  | { readonly kind: 'several'; readonly excess: number }
  /** Nominal values, or middles of tolerances, lie outside already. */
  | { readonly kind: 'moved' }

/** Which single tolerance to tighten so that a figure stays within limits in the worst case. */
export function adviceFor(
  { contributions, worst }: Pick<Variation, 'contributions' | 'worst'>,
  wanted: Span,
): Advice {
  const over = Math.max(worst.high - wanted.high, wanted.low - worst.low)
  const rounding = 1e-9 * Math.max(1, Math.abs(worst.high), Math.abs(worst.low))
  if (over <= rounding) return { kind: 'held' }
  if (worst.high - worst.low - 2 * over <= 0) {
    const middle = (worst.high + worst.low) / 2
    if (middle > wanted.high || middle < wanted.low) return { kind: 'moved' }
  }
  // Each side of the figure comes in by half of what the tolerance loses in width.
  const [widest] = contributions
  const left = widest ? widest.spread - 2 * over : 0
  if (widest && left > 0.02 * widest.spread) {
    return { kind: 'tighten', of: widest.of, width: left / Math.abs(widest.rate) }
  }
  return { kind: 'several', excess: over }
}
