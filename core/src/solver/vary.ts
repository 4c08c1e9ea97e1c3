import { SOLVE_TOLERANCE } from '../tolerances'
import { gradientFor, type Equation } from '../equations'
import type { Sketch } from '../sketch'
import type { Vec } from '../geometry'
import { analyseSystem, blocksOf } from './analysis'
import { buildSystem, unmergedSystem, type SizeValues } from './system'

/** How a solved sketch moves with the values of its sizes. */
export interface Variation {
  /**
   * How fast each point moves with a size: its place by the size's value, in mm by mm or by radian. Exact, from the
   * equations themselves (implicit function theorem); what has freedoms moves as little as may be.
   * @returns undefined for a size that drives nothing
   */
  readonly motionBy: (size: string) => ReadonlyMap<string, Vec> | undefined
  /**
   * Where the points stand when some sizes have other values, solved to the usual tolerance.
   * @param values in mm and radians; other sizes keep theirs
   * @returns undefined where there is no such place near by
   */
  readonly placesAt: (values: ReadonlyMap<string, number>) => ((point: string) => Vec) | undefined
  /** Sizes that say what others say already. */
  readonly repeated: readonly string[]
}

/** A block made ready to be brought back to where its equations hold: its Jacobian is taken where the sketch stands. */
interface Ready {
  /** Numbers of equations, and of coordinates that the block moves. */
  readonly equations: readonly number[]
  readonly moved: readonly number[]
  /** The pseudo-inverse of the Jacobian, a row for each coordinate that is moved. */
  readonly inverse: readonly Float64Array[]
}

/** A step in radians or mm by which a size's equations are told how they change with its value; they are nearly linear. */
const NUDGE = 1e-4

/** Shifts told by two places may differ by this share of the sketch's extent, by rounding. */
const AS_GOOD_AS_SAME = 1e-12

const NOTHING: Equation = {
  owner: '',
  coordinates: new Int32Array(0),
  valued: false,
  evaluate: () => 0,
}

/** Rounds in which a place is reached or given up. */
const MOST_ROUNDS = 60

/**
 * Prepares a sketch to be varied.
 * @param sketch solved
 * @param values of its driving sizes, in mm and radians
 */
export function createVariation(sketch: Sketch, values: SizeValues): Variation {
  const merged = buildSystem(sketch, values)
  const system = unmergedSystem(merged)
  const { independent, dependent } = analyseSystem(system)
  const start = system.start
  const gradient = gradientFor(independent)
  const blocks = blocksOf(system, independent).map((block): Ready => {
    const equations = [...block.equations]
    const moved = [...block.unknowns]
    const place = new Map(moved.map((u, i) => [u, i]))
    const rows = equations.map((e) => {
      const row = new Float64Array(moved.length)
      const equation = independent[e]
      equation?.evaluate(start, gradient)
      equation?.coordinates.forEach((c, k) => {
        const at = place.get(c)
        if (at !== undefined) row[at] = (row[at] ?? 0) + (gradient[k] ?? 0)
      })
      return row
    })
    return { equations, moved, inverse: pseudoInverse(rows, moved.length) }
  })
  /** The numbers of a size's equations among the independent ones, and which of its own each is. */
  const ownOf = new Map<string, { readonly at: number; readonly which: number }[]>()
  const seen = new Map<string, number>()
  const numberOf = new Map(independent.map((e, i) => [e, i]))
  for (const equation of system.equations) {
    const which = seen.get(equation.owner) ?? 0
    seen.set(equation.owner, which + 1)
    const at = numberOf.get(equation)
    if (at === undefined || !values.has(equation.owner)) continue
    ownOf.set(equation.owner, [...(ownOf.get(equation.owner) ?? []), { at, which }])
  }
  const index = new Map(system.pointIds.map((id, i) => [id, i]))
  const tolerance = SOLVE_TOLERANCE * Math.max(1, system.extent / 1000)

  const motionBy = (size: string): ReadonlyMap<string, Vec> | undefined => {
    const own = ownOf.get(size)
    const value = values.get(size)
    if (!own || value === undefined) return undefined
    const [more, less] = [system.sizedAt(size, value + NUDGE), system.sizedAt(size, value - NUDGE)]
    /** How fast the residuals of its equations change with the value alone. */
    const pull = new Map(
      own.map(({ at, which }) => {
        const [a, b] = [more[which], less[which]]
        const change = (a?.evaluate(start, gradient) ?? 0) - (b?.evaluate(start, gradient) ?? 0)
        return [at, change / (2 * NUDGE)] as const
      }),
    )
    const motion = new Float64Array(start.length)
    for (const { equations, moved, inverse } of blocks) {
      const rates = equations.map((e) => {
        const equation = independent[e]
        equation?.evaluate(start, gradient)
        let rate = pull.get(e) ?? 0
        equation?.coordinates.forEach((c, k) => (rate += (gradient[k] ?? 0) * (motion[c] ?? 0)))
        return rate
      })
      if (rates.every((r) => r === 0)) continue
      moved.forEach((c, i) => (motion[c] = -product(inverse[i], rates)))
    }
    return new Map(
      sketch.points.map(({ id }) => {
        const i = index.get(id) ?? 0
        return [id, { x: motion[2 * i] ?? 0, y: motion[2 * i + 1] ?? 0 }]
      }),
    )
  }

  /** By how much the residuals of a size's equations shift for 1 of its value; undefined where that hangs on the place. */
  const shiftsOf = (size: string): readonly number[] | undefined => {
    const value = values.get(size) ?? 0
    const own = (ownOf.get(size) ?? []).map(({ which }) => which)
    const elsewhere = start.map((c, i) => c + system.extent * 0.01 * Math.sin(i))
    const reach = 0.01 * (Math.abs(value) || 1)
    const [here, more] = [system.sizedAt(size, value), system.sizedAt(size, value + reach)]
    const less = system.sizedAt(size, value - reach / 2)
    const change = (to: readonly Equation[], i: number, at: Float64Array): number =>
      (to[i]?.evaluate(at, gradient) ?? NaN) - (here[i]?.evaluate(at, gradient) ?? NaN)
    const shifts = own.map((i) => change(more, i, start) / reach)
    const isSame = own.every((i, k) => {
      const [a, b] = [change(more, i, elsewhere) / reach, change(less, i, start) / (-reach / 2)]
      const shift = shifts[k] ?? NaN
      return Math.abs(a - shift) + Math.abs(b - shift) <= AS_GOOD_AS_SAME * system.extent
    })
    return isSame ? shifts : undefined
  }
  const shifting = new Map([...ownOf.keys()].map((size) => [size, shiftsOf(size)]))

  const placesAt = (others: ReadonlyMap<string, number>): ((point: string) => Vec) | undefined => {
    const at = start.slice()
    const goals = new Float64Array(independent.length)
    let changed: Equation[] | undefined
    for (const [size, value] of others) {
      const own = ownOf.get(size) ?? []
      const shifts = shifting.get(size)
      const by = value - (values.get(size) ?? 0)
      // Most sizes only shift what their equations come to: these need not be made anew.
      const fresh = shifts ? undefined : system.sizedAt(size, value)
      for (let k = 0; k < own.length; k++) {
        const { at: e = 0, which = 0 } = own[k] ?? {}
        if (shifts) goals[e] = -(shifts[k] ?? 0) * by
        else {
          changed ??= independent.slice()
          changed[e] = fresh?.[which] ?? changed[e] ?? NOTHING
        }
      }
    }
    const all = changed ?? independent
    for (const block of blocks) {
      if (!broughtBack(block, all, goals, at, gradient, tolerance)) return undefined
    }
    return (point) => {
      const i = index.get(point) ?? index.get('origin') ?? 0
      return { x: at[2 * i] ?? 0, y: at[2 * i + 1] ?? 0 }
    }
  }

  const repeated = dependent.flatMap(({ owner, valued }) =>
    valued || values.has(owner) ? [owner] : [],
  )
  return { motionBy, placesAt, repeated: [...new Set(repeated)].filter((o) => !ownOf.has(o)) }
}

/** Moves a block until its equations hold, by the Jacobian where it was made ready; false where that does not end. */
function broughtBack(
  { equations, moved, inverse }: Ready,
  all: readonly Equation[],
  goals: Float64Array,
  at: Float64Array,
  gradient: Float64Array,
  tolerance: number,
): boolean {
  const residuals = new Float64Array(equations.length)
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let largest = 0
    for (let k = 0; k < equations.length; k++) {
      const e = equations[k] ?? -1
      const r = (all[e]?.evaluate(at, gradient) ?? 0) - (goals[e] ?? 0)
      residuals[k] = r
      largest = Math.max(largest, Math.abs(r))
    }
    if (!Number.isFinite(largest)) return false
    if (largest <= tolerance) return true
    for (let i = 0; i < moved.length; i++) {
      const c = moved[i] ?? 0
      at[c] = (at[c] ?? 0) - product(inverse[i], residuals)
    }
  }
  return false
}

function product(row: Float64Array | undefined, column: ArrayLike<number>): number {
  let sum = 0
  if (row) for (let k = 0; k < row.length; k++) sum += (row[k] ?? 0) * (column[k] ?? 0)
  return sum
}

/** Jᵀ (J Jᵀ)⁻¹ of rows that are independent: what answers residuals by the least change. */
function pseudoInverse(rows: readonly Float64Array[], width: number): readonly Float64Array[] {
  const count = rows.length
  // The product of the rows beside the unit matrix, brought to the unit matrix by elimination with the largest pivots.
  const work = rows.map((row, i) => {
    const line = new Float64Array(2 * count)
    for (let j = 0; j < count; j++) line[j] = product(row, rows[j] ?? row)
    line[count + i] = 1
    return line
  })
  for (let column = 0; column < count; column++) {
    let best = column
    for (let i = column + 1; i < count; i++) {
      if (Math.abs(work[i]?.[column] ?? 0) > Math.abs(work[best]?.[column] ?? 0)) best = i
    }
    const [pivotRow, other] = [work[best], work[column]]
    if (!pivotRow || !other) continue
    work[best] = other
    work[column] = pivotRow
    const pivot = pivotRow[column] ?? 0
    for (let j = 0; j < 2 * count; j++) pivotRow[j] = (pivotRow[j] ?? 0) / pivot
    for (let i = 0; i < count; i++) {
      const line = work[i]
      const factor = line?.[column] ?? 0
      if (!line || i === column || factor === 0) continue
      for (let j = column; j < 2 * count; j++)
        line[j] = (line[j] ?? 0) - factor * (pivotRow[j] ?? 0)
    }
  }
  return Array.from({ length: width }, (_, u) => {
    const line = new Float64Array(count)
    for (let k = 0; k < count; k++) {
      for (let i = 0; i < count; i++) {
        line[k] = (line[k] ?? 0) + (rows[i]?.[u] ?? 0) * (work[i]?.[count + k] ?? 0)
      }
    }
    return line
  })
}
