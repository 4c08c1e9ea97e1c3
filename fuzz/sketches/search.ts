/**
 * Looks for a place where a sketch holds, by dense damped least squares on the oracle's residuals from random
 * starts. It knows nothing of sides and is slow; it shares nothing with the solver.
 */
import type { Sketch } from '@lathica/core/sketch'
import type { Random } from '../random'
import { gradients, placesOf, residuals } from './oracle'
import type { Place, Places } from './places'

type Values = ReadonlyMap<string, number>

/** A place within a reach of where a sketch stands at which all holds to 1e-7 mm; undefined when none is found. */
export function placeWhereHolds(
  sketch: Sketch,
  values: Values,
  random: Random,
  starts = 40,
): Places | undefined {
  const given = placesOf(sketch)
  const all = [...given.values()]
  const extent = Math.max(...all.flatMap((p) => all.map((q) => Math.hypot(p.x - q.x, p.y - q.y))))
  for (let k = 0; k < starts; k++) {
    const reach = k === 0 ? 0 : extent * (REACHES[k % REACHES.length] ?? 0)
    const begin = new Map(
      [...given].map(([id, p]): [string, Place] => [
        id,
        { x: p.x + reach * (random() - 0.5), y: p.y + reach * (random() - 0.5) },
      ]),
    )
    const ended = descended(sketch, values, begin)
    if (ended) return ended
  }
  return undefined
}

/** How far starts lie from where a sketch stands, as shares of its extent. */
const REACHES = [0.02, 0.1, 0.3, 0.6]
const HOLDS = 1e-7
const ROUNDS = 80

function descended(sketch: Sketch, values: Values, begin: Places): Places | undefined {
  const ids = [...begin.keys()]
  let places = new Map([...begin].map(([id, p]) => [id, { ...p }]))
  const read = (at: Places): Float64Array =>
    Float64Array.from(residuals(sketch, values, at), (r) => r.off)
  const size = (r: Float64Array): number => Math.hypot(...r)
  let r = read(places)
  let damping = 1e-3
  for (let round = 0; round < ROUNDS; round++) {
    if (r.every((v) => Math.abs(v) <= HOLDS)) return places
    if (!Number.isFinite(size(r))) return undefined
    const rows = gradients(ids, places, (at) => [...read(at)])
    // (JJᵀ + μI) y = r, then the step is −Jᵀy: the least motion.
    const normal = rows.map((a, i) =>
      rows.map((b, j) => a.reduce((sum, v, k) => sum + v * (b[k] ?? 0), i === j ? damping : 0)),
    )
    const y = eliminated(normal, r)
    const by = (k: number): number =>
      rows.reduce((sum, row, i) => sum + (row[k] ?? 0) * (y[i] ?? 0), 0)
    const next = new Map(
      ids.map((id, i): [string, Place] => {
        const { x, y: z } = places.get(id) ?? { x: 0, y: 0 }
        return [id, { x: x - by(2 * i), y: z - by(2 * i + 1) }]
      }),
    )
    const then = read(next)
    if (size(then) < size(r)) {
      if (size(then) > 0.999 * size(r) && damping < 1e-9) return undefined
      ;[places, r, damping] = [next, then, Math.max(damping / 8, 1e-12)]
    } else {
      damping *= 8
      if (damping > 1e6) return undefined
    }
  }
  return undefined
}

/** Solves a square system by Gauss elimination with row exchanges. */
function eliminated(matrix: readonly (readonly number[])[], right: Float64Array): Float64Array {
  const rows = matrix.map((row, i) => Float64Array.from([...row, right[i] ?? 0]))
  const n = rows.length
  const entry = (i: number, j: number): number => rows[i]?.[j] ?? 0
  for (let k = 0; k < n; k++) {
    let best = k
    for (let i = k + 1; i < n; i++) if (Math.abs(entry(i, k)) > Math.abs(entry(best, k))) best = i
    const [pivotRow, other] = [rows[best], rows[k]]
    if (!pivotRow || !other) break
    rows[best] = other
    rows[k] = pivotRow
    for (let i = k + 1; i < n; i++) {
      const share = entry(i, k) / (entry(k, k) || 1e-300)
      rows[i]?.forEach((v, j, row) => (row[j] = v - share * (pivotRow[j] ?? 0)))
    }
  }
  const x = new Float64Array(n)
  for (let k = n - 1; k >= 0; k--) {
    let sum = entry(k, n)
    for (let j = k + 1; j < n; j++) sum -= entry(k, j) * (x[j] ?? 0)
    x[k] = sum / (entry(k, k) || 1e-300)
  }
  return x
}
