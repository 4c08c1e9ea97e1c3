import { SOLVE_GOAL, SOLVE_TOLERANCE } from '../tolerances'
import { createSkyline } from './skyline'
import { WIDEST, type Equation } from './equations'
import type { System } from './system'

/** More rounds than this are never taken; a solvable block needs a handful. */
const MOST_ROUNDS = 60

/** A block made ready: its pattern is known, and solving it allocates nothing. */
export interface BlockSolver {
  /**
   * Moves the block's unknowns, as little as may be, until its equations hold.
   * @param unknowns all unknowns in mm; the block's own are changed
   * @param stiffness per unknown, how strongly it resists; 1 is usual
   * @returns whether every equation holds to the solve tolerance
   */
  solve(unknowns: Float64Array, stiffness?: Float64Array): boolean
}

/**
 * Damped Gauss–Newton in its least-change form: each round takes the smallest weighted step that
 * meets the linearised equations, δ = −W⁻¹Jᵀ(JW⁻¹Jᵀ + μI)⁻¹r, with damping μ raised where a step
 * fails (Nocedal & Wright, Numerical Optimization, ch. 10). The same form serves blocks with and
 * without freedoms.
 * @param coordinates all coordinates in mm; written as the unknowns move
 */
export function prepareBlock(
  system: System,
  equations: readonly Equation[],
  blockUnknowns: readonly number[],
  coordinates: Float64Array,
): BlockSolver {
  const localOf = new Map(blockUnknowns.map((u, i) => [u, i]))
  const { rows, readers, touched } = pattern(system, equations, localOf)
  const neighbours = equations.map(() => new Set<number>())
  for (const column of readers) {
    for (const a of column) for (const b of column) if (a !== b) neighbours[a.row]?.add(b.row)
  }
  const matrix = createSkyline(neighbours)
  const count = equations.length
  const width = blockUnknowns.length
  const residual = new Float64Array(count)
  const jacobian = rows.map((row) => new Float64Array(row.columns.length))
  const gradient = new Float64Array(WIDEST)
  const z = new Float64Array(count)
  const step = new Float64Array(width)
  const saved = new Float64Array(width)
  const tolerance = SOLVE_TOLERANCE * Math.max(1, system.extent / 1000)
  const goal = SOLVE_GOAL * Math.max(1, system.extent / 1000)

  const writeTouched = (unknowns: Float64Array): void => {
    for (const c of touched) {
      const u = system.unknownOf[c] ?? -1
      coordinates[c] = (system.offsetOf[c] ?? 0) + (u < 0 ? 0 : (unknowns[u] ?? 0))
    }
  }

  /** Residuals and Jacobian where the unknowns stand; returns the largest residual by size. */
  const evaluate = (unknowns: Float64Array): number => {
    writeTouched(unknowns)
    let largest = 0
    for (let e = 0; e < count; e++) {
      const r = equations[e]?.evaluate(coordinates, gradient) ?? 0
      residual[e] = r
      largest = Math.max(largest, Math.abs(r))
      const entries = jacobian[e]
      if (!entries) continue
      entries.fill(0)
      rows[e]?.slots.forEach((column, k) => {
        if (column >= 0) entries[column] = (entries[column] ?? 0) + (gradient[k] ?? 0)
      })
    }
    return Number.isNaN(largest) ? Infinity : largest
  }

  const sumOfSquares = (): number => residual.reduce((sum, r) => sum + r * r, 0)

  const assemble = (stiffness: Float64Array | undefined, damping: number): void => {
    matrix.clear()
    for (let column = 0; column < width; column++) {
      const readersHere = readers[column] ?? []
      const softness = 1 / (stiffness?.[blockUnknowns[column] ?? 0] ?? 1)
      for (const a of readersHere) {
        const place = matrix.placeOf[a.row] ?? 0
        const entry = (jacobian[a.row]?.[a.entry] ?? 0) * softness
        for (const b of readersHere) {
          if (b.row > a.row) break
          matrix.add(place, matrix.placeOf[b.row] ?? 0, entry * (jacobian[b.row]?.[b.entry] ?? 0))
        }
      }
    }
    for (let e = 0; e < count; e++) {
      const place = matrix.placeOf[e] ?? 0
      matrix.add(place, place, damping)
    }
  }

  const computeStep = (stiffness: Float64Array | undefined, damping: number): boolean => {
    assemble(stiffness, damping)
    if (!matrix.factor()) return false
    for (let e = 0; e < count; e++) z[matrix.placeOf[e] ?? 0] = residual[e] ?? 0
    matrix.solve(z)
    step.fill(0)
    for (let e = 0; e < count; e++) {
      const factor = z[matrix.placeOf[e] ?? 0] ?? 0
      rows[e]?.columns.forEach((column, k) => {
        step[column] = (step[column] ?? 0) - (jacobian[e]?.[k] ?? 0) * factor
      })
    }
    let longest = 0
    for (let column = 0; column < width; column++) {
      const softness = 1 / (stiffness?.[blockUnknowns[column] ?? 0] ?? 1)
      step[column] = (step[column] ?? 0) * softness
      longest = Math.max(longest, Math.abs(step[column] ?? 0))
    }
    const reach = system.extent / 2
    if (longest > reach)
      for (let i = 0; i < width; i++) step[i] = ((step[i] ?? 0) * reach) / longest
    return Number.isFinite(longest)
  }

  const solve = (unknowns: Float64Array, stiffness?: Float64Array): boolean => {
    let largest = evaluate(unknowns)
    let damping = 0
    for (let round = 0; round < MOST_ROUNDS && largest > goal; round++) {
      const before = sumOfSquares()
      blockUnknowns.forEach((u, i) => (saved[i] = unknowns[u] ?? 0))
      const usable = computeStep(stiffness, damping)
      if (usable) {
        blockUnknowns.forEach((u, i) => (unknowns[u] = (saved[i] ?? 0) + (step[i] ?? 0)))
        largest = evaluate(unknowns)
        if (largest < Infinity && sumOfSquares() < before) {
          damping = damping < 1e-12 ? 0 : damping / 10
          continue
        }
        blockUnknowns.forEach((u, i) => (unknowns[u] = saved[i] ?? 0))
        largest = evaluate(unknowns)
      }
      if (largest <= tolerance || damping > 1e8) break
      damping = Math.max(damping * 10, 1e-6)
    }
    writeTouched(unknowns)
    return largest <= tolerance
  }

  return { solve }
}

interface Pattern {
  /** Per equation: its columns in the block, and for each gradient slot its place among them. */
  readonly rows: readonly { readonly columns: readonly number[]; readonly slots: Int32Array }[]
  /** Per column of the block: the equations that read it, in rising order, and where in their row. */
  readonly readers: readonly (readonly { readonly row: number; readonly entry: number }[])[]
  /** All coordinates the equations read. */
  readonly touched: readonly number[]
}

function pattern(
  system: System,
  equations: readonly Equation[],
  localOf: ReadonlyMap<number, number>,
): Pattern {
  const readers: { row: number; entry: number }[][] = Array.from({ length: localOf.size }, () => [])
  const touched = new Set<number>()
  const rows = equations.map((equation, e) => {
    const columns: number[] = []
    const slots = new Int32Array(equation.coordinates.length)
    equation.coordinates.forEach((c, k) => {
      touched.add(c)
      const column = localOf.get(system.unknownOf[c] ?? -1)
      if (column === undefined) {
        slots[k] = -1
        return
      }
      let place = columns.indexOf(column)
      if (place < 0) {
        place = columns.push(column) - 1
        readers[column]?.push({ row: e, entry: place })
      }
      slots[k] = place
    })
    return { columns, slots }
  })
  return { rows, readers, touched: [...touched] }
}
