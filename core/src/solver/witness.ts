import { SOLVE_TOLERANCE } from '../tolerances'
import { gradientFor, type Equation } from '../equations'
import { prepareBlock } from './leastChange'
import { createRandom } from './random'
import type { SparseRow } from './rank'
import { localExtents, writeCoordinates, type System } from './system'

/**
 * A witness: a place where all purely geometric demands hold but sizes have values like any others.
 * A rank read there is the rank almost everywhere (Michelucci & Foufou, Computer-Aided Design 38,
 * 2006), while a rank read at a special place lies.
 *
 * Points are displaced by shares of what is drawn at them, and brought back to what is geometric with
 * the least change. A place is no witness when that fails, when points of an entity fell
 * together, or when something went further than it was displaced for: then it may be on another
 * branch of what is asked for.
 * @param unknowns where to look, best a place where everything holds
 * @returns the coordinates, or undefined when there is none near by
 */
export function witnessNear(
  system: System,
  unknowns: Float64Array,
  seed: number,
): Float64Array | undefined {
  const geometric = system.equations.filter((e) => !e.valued)
  const all = Array.from(unknowns.keys())
  const here = new Float64Array(system.start.length)
  writeCoordinates(system, unknowns, here)
  const reach = localExtents(system, unknowns)
  const spansHere = spanLengths(system, here)
  const coordinates = new Float64Array(system.start.length)
  const random = createRandom(seed)
  const gradient = gradientFor(system.equations)
  const tolerance = SOLVE_TOLERANCE * Math.max(1, system.extent / 1000)
  const block = geometric.length > 0 ? prepareBlock(system, geometric, all, coordinates) : undefined
  for (const share of SHARES) {
    const place = unknowns.map((u, i) => {
      const by = random() - 0.5
      return u + (by + 0.5 * Math.sign(by)) * share * (reach[i] ?? 0)
    })
    writeCoordinates(system, place, coordinates)
    if (block) {
      block.solve(place)
      writeCoordinates(system, place, coordinates)
    }
    const holds = geometric.every((e) => Math.abs(e.evaluate(coordinates, gradient)) <= tolerance)
    if (!holds) continue
    const stays = all.every((u) => {
      const moved = Math.abs((place[u] ?? 0) - (unknowns[u] ?? 0))
      return moved <= FARTHEST * Math.max(share * (reach[u] ?? 0), share * 0.1 * system.extent)
    })
    const kept = spanLengths(system, coordinates).every((length, i) => {
      const before = spansHere[i] ?? 0
      return length > 0.2 * before && (before === 0 || length < 5 * before)
    })
    if (stays && kept) return coordinates
  }
  return undefined
}

/** Displacements tried, as shares of what is drawn at a point. */
const SHARES = [0.2, 0.1, 0.05, 0.02]

/** How many times its displacement a point may end away from where it was. */
const FARTHEST = 6

function spanLengths(system: System, at: Float64Array): Float64Array {
  return Float64Array.from(system.spans, ([a, b]) =>
    Math.hypot((at[2 * b] ?? 0) - (at[2 * a] ?? 0), (at[2 * b + 1] ?? 0) - (at[2 * a + 1] ?? 0)),
  )
}

/** The derivatives of equations by the unknowns where the points stand. */
export function rowsAt(
  unknownOf: (coordinate: number) => number,
  equations: readonly Equation[],
  coordinates: Float64Array,
): SparseRow[] {
  const gradient = gradientFor(equations)
  return equations.map((equation) => {
    equation.evaluate(coordinates, gradient)
    const sums = new Map<number, number>()
    let size = 0
    equation.coordinates.forEach((c, k) => {
      const u = unknownOf(c)
      size = Math.max(size, Math.abs(gradient[k] ?? 0))
      if (u >= 0) sums.set(u, (sums.get(u) ?? 0) + (gradient[k] ?? 0))
    })
    // Derivatives that cancel within one unknown leave rounding behind, not a reading.
    const columns = [...sums.keys()].filter((u) => Math.abs(sums.get(u) ?? 0) > 1e-12 * size)
    return { columns, entries: columns.map((u) => sums.get(u) ?? 0) }
  })
}
