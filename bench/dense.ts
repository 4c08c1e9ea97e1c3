import { gradientFor } from '../core/src/equations/equations'
import {
  buildSystem,
  initialUnknowns,
  unmergedSystem,
  writeCoordinates,
  type SizeValues,
} from '../core/src/solver/system'
import type { Sketch } from '@lathica/core/sketch'

/**
 * A plain Levenberg–Marquardt method on all equations of a sketch at once, ties too, every
 * coordinate being an unknown, with a dense normal matrix and a Cholesky factor per round (Nocedal & Wright, Numerical Optimization, ch. 10.3): what a
 * general solver would do with the same equations. It is here to be compared with.
 * @returns the rounds taken, and the largest residual left in mm
 */
export function solveDense(
  sketch: Sketch,
  values: SizeValues,
): { readonly rounds: number; readonly residual: number } {
  const system = unmergedSystem(buildSystem(sketch, values))
  const n = system.unknowns
  const coordinates = new Float64Array(system.start.length)
  const gradient = gradientFor(system.equations)
  let unknowns: Float64Array = initialUnknowns(system)
  const normal = new Float64Array(n * n)
  const slope = new Float64Array(n)

  const evaluate = (at: Float64Array, assemble: boolean): { sum: number; largest: number } => {
    writeCoordinates(system, at, coordinates)
    if (assemble) {
      normal.fill(0)
      slope.fill(0)
    }
    let [sum, largest] = [0, 0]
    for (const equation of system.equations) {
      const r = equation.evaluate(coordinates, gradient)
      sum += r * r
      largest = Math.max(largest, Math.abs(r))
      if (!assemble) continue
      const columns = equation.coordinates.map((c) => system.unknownOf[c] ?? -1)
      columns.forEach((u, i) => {
        if (u < 0) return
        const g = gradient[i] ?? 0
        slope[u] = (slope[u] ?? 0) + g * r
        columns.forEach((v, j) => {
          if (v >= 0) normal[u * n + v] = (normal[u * n + v] ?? 0) + g * (gradient[j] ?? 0)
        })
      })
    }
    return { sum, largest }
  }

  let damping = 1e-3
  let { sum, largest } = evaluate(unknowns, true)
  let rounds = 0
  for (; rounds < 200 && largest > 1e-11; rounds++) {
    const step = solvePositive(normal, slope, n, damping)
    const tried = unknowns.map((u, i) => u - (step[i] ?? 0))
    const next = evaluate(tried, false)
    if (next.sum < sum) {
      unknowns = tried
      damping = Math.max(damping / 10, 1e-15)
    } else {
      damping *= 10
      if (damping > 1e12) break
    }
    ;({ sum, largest } = evaluate(unknowns, true))
  }
  return { rounds, residual: largest }
}

/** Solves (A + μ·diag A)·x = b by Cholesky factoring. */
function solvePositive(a: Float64Array, b: Float64Array, n: number, damping: number): Float64Array {
  const l = a.slice()
  for (let i = 0; i < n; i++) l[i * n + i] = (l[i * n + i] ?? 0) * (1 + damping) + 1e-14
  for (let j = 0; j < n; j++) {
    for (let k = 0; k < j; k++) {
      const factor = l[j * n + k] ?? 0
      if (factor === 0) continue
      for (let i = j; i < n; i++) {
        l[i * n + j] = (l[i * n + j] ?? 0) - factor * (l[i * n + k] ?? 0)
      }
    }
    const pivot = Math.sqrt(Math.max(l[j * n + j] ?? 0, 1e-30))
    for (let i = j; i < n; i++) l[i * n + j] = (l[i * n + j] ?? 0) / pivot
  }
  const x = b.slice()
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i] = (x[i] ?? 0) - (l[i * n + k] ?? 0) * (x[k] ?? 0)
    x[i] = (x[i] ?? 0) / (l[i * n + i] ?? 1)
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i] = (x[i] ?? 0) - (l[k * n + i] ?? 0) * (x[k] ?? 0)
    x[i] = (x[i] ?? 0) / (l[i * n + i] ?? 1)
  }
  return x
}
