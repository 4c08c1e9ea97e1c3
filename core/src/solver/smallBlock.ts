import { SOLVE_GOAL, SOLVE_TOLERANCE } from '../tolerances'
import { gradientFor, type Equation } from '../equations'
import type { System } from './system'

/** Blocks up to this size are solved here; most determined blocks have one or two unknowns. */
export const LARGEST_SMALL_BLOCK = 4

const MOST_ROUNDS = 12

/**
 * Solves small determined blocks by Newton's method on a dense matrix, with one set of buffers for
 * all of them. It gives up where a step does not bring the equations nearer; the damped method then
 * takes over from where the block began.
 */
export function createSmallSolver(
  system: System,
  coordinates: Float64Array,
): (
  equations: readonly Equation[],
  blockUnknowns: readonly number[],
  unknowns: Float64Array,
) => boolean {
  const n = LARGEST_SMALL_BLOCK
  const matrix = new Float64Array(n * (n + 1))
  const saved = new Float64Array(n)
  const gradient = gradientFor(system.equations)
  const scale = Math.max(1, system.extent / 1000)
  const { unknownOf, offsetOf } = system

  const write = (equations: readonly Equation[], unknowns: Float64Array): void => {
    for (const { coordinates: read } of equations) {
      for (const c of read) {
        const u = unknownOf[c] ?? -1
        coordinates[c] = (offsetOf[c] ?? 0) + (u < 0 ? 0 : (unknowns[u] ?? 0))
      }
    }
  }

  /** Jacobian and residuals as an augmented matrix; returns the largest residual by size. */
  const assemble = (
    equations: readonly Equation[],
    blockUnknowns: readonly number[],
    unknowns: Float64Array,
  ): number => {
    write(equations, unknowns)
    const width = blockUnknowns.length + 1
    let largest = 0
    matrix.fill(0)
    equations.forEach((equation, row) => {
      const residual = equation.evaluate(coordinates, gradient)
      matrix[row * width + width - 1] = residual
      largest = Math.max(largest, Math.abs(residual))
      equation.coordinates.forEach((c, k) => {
        const column = blockUnknowns.indexOf(unknownOf[c] ?? -1)
        if (column < 0) return
        const at = row * width + column
        matrix[at] = (matrix[at] ?? 0) + (gradient[k] ?? 0)
      })
    })
    return Number.isNaN(largest) ? Infinity : largest
  }

  return (equations, blockUnknowns, unknowns) => {
    blockUnknowns.forEach((u, i) => (saved[i] = unknowns[u] ?? 0))
    let largest = assemble(equations, blockUnknowns, unknowns)
    for (let round = 0; round < MOST_ROUNDS && largest > SOLVE_GOAL * scale; round++) {
      if (!eliminate(matrix, blockUnknowns.length)) break
      const width = blockUnknowns.length + 1
      blockUnknowns.forEach((u, i) => {
        unknowns[u] = (unknowns[u] ?? 0) - (matrix[i * width + width - 1] ?? 0)
      })
      const before = largest
      largest = assemble(equations, blockUnknowns, unknowns)
      if (!(largest < before)) break
    }
    if (largest <= SOLVE_TOLERANCE * scale) return true
    blockUnknowns.forEach((u, i) => (unknowns[u] = saved[i] ?? 0))
    write(equations, unknowns)
    return false
  }
}

/**
 * Gauss–Jordan elimination with partial pivoting on an augmented matrix of n rows, in place.
 * @returns false when the matrix is singular to working accuracy
 */
function eliminate(matrix: Float64Array, n: number): boolean {
  const width = n + 1
  const at = (row: number, column: number): number => matrix[row * width + column] ?? 0
  for (let column = 0; column < n; column++) {
    let pivot = column
    for (let row = column + 1; row < n; row++) {
      if (Math.abs(at(row, column)) > Math.abs(at(pivot, column))) pivot = row
    }
    const size = at(pivot, column)
    if (Math.abs(size) < 1e-10) return false
    for (let k = 0; k < width; k++) {
      const value = at(pivot, k) / size
      matrix[pivot * width + k] = at(column, k)
      matrix[column * width + k] = value
    }
    for (let row = 0; row < n; row++) {
      const factor = at(row, column)
      if (row === column || factor === 0) continue
      for (let k = column; k < width; k++) {
        matrix[row * width + k] = at(row, k) - factor * at(column, k)
      }
    }
  }
  return true
}
