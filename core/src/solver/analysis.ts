import { MOTION_TOLERANCE } from '../tolerances'
import { decompose, type Block } from './decompose'
import { prepareBlock } from './leastChange'
import { createRandom } from './random'
import { analyseRank, type RankReport, type SparseRow } from './rank'
import { initialUnknowns, writeCoordinates, type System } from './system'
import { WIDEST, type Equation } from './equations'

/** What a system's structure allows, found once for many solves. */
export interface Analysis {
  /** Equations that say something of their own, in the system's order. */
  readonly independent: readonly Equation[]
  /** Equations that follow from others, with those they follow from. */
  readonly dependent: readonly { readonly equation: Equation; readonly from: readonly Equation[] }[]
  /** The order in which the independent equations are solved; numbers refer to `independent`. */
  readonly blocks: readonly Block[]
  readonly freedoms: number
  /** For each point how many independent ways it can move: 0, 1 or 2. */
  readonly pointFreedoms: Int32Array
}

/**
 * Finds rank, freedoms and the order of solving. The rank is read at a witness: a place where all
 * purely geometric demands hold but sizes have generic values (Michelucci & Foufou, Computer-Aided
 * Design 38, 2006), since a rank test at a special position lies.
 */
export function analyseSystem(system: System): Analysis {
  const rows = rowsAtWitness(system)
  const report = analyseRank(rows, system.unknowns)
  const equationAt = (i: number): Equation[] => {
    const equation = system.equations[i]
    return equation ? [equation] : []
  }
  const independent = report.independent.flatMap(equationAt)
  const incidence = report.independent.map((i) => rows[i]?.columns ?? [])
  return {
    independent,
    dependent: report.dependent.flatMap(({ row, from }) =>
      equationAt(row).map((equation) => ({ equation, from: from.flatMap(equationAt) })),
    ),
    blocks: decompose(incidence, system.unknowns, report.pivots),
    freedoms: system.unknowns - independent.length,
    pointFreedoms: probeFreedoms(system, report),
  }
}

function rowsAtWitness(system: System): SparseRow[] {
  const random = createRandom(0x5eed)
  const unknowns = initialUnknowns(system).map((u) => u + (random() - 0.5) * 0.2 * system.extent)
  const coordinates = new Float64Array(system.start.length)
  writeCoordinates(system, unknowns, coordinates)
  const geometric = system.equations.filter((e) => !e.valued)
  if (geometric.length > 0) {
    const all = Array.from(unknowns.keys())
    prepareBlock(system, geometric, all, coordinates).solve(unknowns)
    writeCoordinates(system, unknowns, coordinates)
  }
  return rowsAt(system, coordinates)
}

/** The derivatives of all equations where the points stand. */
export function rowsHere(system: System): SparseRow[] {
  const coordinates = new Float64Array(system.start.length)
  writeCoordinates(system, initialUnknowns(system), coordinates)
  return rowsAt(system, coordinates)
}

function rowsAt(system: System, coordinates: Float64Array): SparseRow[] {
  const gradient = new Float64Array(WIDEST)
  return system.equations.map((equation) => {
    equation.evaluate(coordinates, gradient)
    const sums = new Map<number, number>()
    let size = 0
    equation.coordinates.forEach((c, k) => {
      const u = system.unknownOf[c] ?? -1
      size = Math.max(size, Math.abs(gradient[k] ?? 0))
      if (u >= 0) sums.set(u, (sums.get(u) ?? 0) + (gradient[k] ?? 0))
    })
    // Derivatives that cancel within one unknown leave rounding behind, not a reading.
    const columns = [...sums.keys()].filter((u) => Math.abs(sums.get(u) ?? 0) > 1e-12 * size)
    return { columns, entries: columns.map((u) => sums.get(u) ?? 0) }
  })
}

/** A point can move where random motions of the null space move it: with probability one. */
function probeFreedoms(system: System, report: RankReport): Int32Array {
  const random = createRandom(0xf2ee)
  const probes = [0, 1, 2].map(() => report.nullVector(() => random() - 0.5))
  const largest = probes.map((p) => p.reduce((m, v) => Math.max(m, Math.abs(v)), 0) || 1)
  const motion = (coordinate: number, probe: number): number => {
    const u = system.unknownOf[coordinate] ?? -1
    return u < 0 ? 0 : (probes[probe]?.[u] ?? 0) / (largest[probe] ?? 1)
  }
  return Int32Array.from(system.pointIds, (_, i) => {
    const moves = probes.map((_p, k) => [motion(2 * i, k), motion(2 * i + 1, k)] as const)
    const still = moves.every(([x, y]) => Math.hypot(x, y) < MOTION_TOLERANCE)
    if (still) return 0
    const [a, b, c] = moves
    if (!a || !b || !c) return 0
    const turn = (p: readonly [number, number], q: readonly [number, number]): number =>
      Math.abs(p[0] * q[1] - p[1] * q[0])
    return Math.max(turn(a, b), turn(b, c), turn(a, c)) < MOTION_TOLERANCE ** 2 ? 1 : 2
  })
}
