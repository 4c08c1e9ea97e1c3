import { MOTION_TOLERANCE } from '../tolerances'
import { incidenceOf } from './components'
import { decompose, type Block } from './decompose'
import { createRandom } from './random'
import { analyseRank, type RankReport } from './rank'
import { initialUnknowns, writeCoordinates, type System } from './system'
import { rowsAt, witnessNear } from './witness'
import type { Equation } from '../equations'

/** What a system's numbers say of it near a place. */
export interface Analysis {
  /** Equations that say something of their own, in the order in which they were ranked. */
  readonly independent: readonly Equation[]
  /** Equations that follow from others. */
  readonly dependent: readonly Equation[]
  readonly freedoms: number
  /** For each point how many independent ways it can move: 0, 1 or 2. */
  readonly pointFreedoms: Int32Array
  /** The place at which the rank was read. */
  readonly coordinates: Float64Array
}

/**
 * Finds rank and freedoms near a place, best one where everything holds. The rank is read at a witness.
 * When some equation seems to follow from others, or a pivot is so small that rounding may have
 * made it, two more witnesses are asked, the second with other values for all sizes, tied ones too, and the
 * greatest rank counts: at a special place a rank can be too small, on the constraints' own variety never too great.
 * @param otherwise builds the same system with generic values of its sizes
 */
export function analyseSystem(
  system: System,
  unknowns: Float64Array = initialUnknowns(system),
  otherwise?: () => System,
): Analysis {
  const first = rankNear(system, unknowns, 0x5eed)
  let best = first
  if (!first.clear || first.report.dependent.length > 0) {
    const second = rankNear(system, unknowns, 0xca5e)
    const other = otherwise?.()
    const third = other && rankNear(other, initialUnknowns(other), 0x1ace)
    for (const next of [second, third]) {
      // Other values may merge other coordinates: then the ranks are not of the same unknowns.
      if (!next?.clear || next.unknowns !== system.unknowns) continue
      const more = next.report.independent.length - best.report.independent.length
      if (more > 0 || (more === 0 && !best.clear)) best = next
    }
  }
  const { report, coordinates } = best
  const equations = (rows: readonly number[]): Equation[] =>
    rows.flatMap((i) => system.equations[i] ?? [])
  return {
    independent: equations(report.independent),
    dependent: equations(report.dependent.map((d) => d.row)),
    freedoms: system.unknowns - report.independent.length,
    pointFreedoms: probeFreedoms(system, report),
    coordinates,
  }
}

/** The order in which independent equations are solved; numbers refer to those. */
export const blocksOf = (system: System, independent: readonly Equation[]): Block[] =>
  decompose(incidenceOf(system, independent), system.unknowns)

interface Ranked {
  readonly unknowns: number
  readonly report: RankReport
  readonly coordinates: Float64Array
  /** False when the place is no witness, or the numbers leave a doubt. */
  readonly clear: boolean
}

function rankNear(system: System, unknowns: Float64Array, seed: number): Ranked {
  const witness = witnessNear(system, unknowns, seed)
  const coordinates = witness ?? new Float64Array(system.start.length)
  if (!witness) writeCoordinates(system, unknowns, coordinates)
  const rows = rowsAt((c) => system.unknownOf[c] ?? -1, system.equations, coordinates)
  const report = analyseRank(rows, system.unknowns)
  return {
    unknowns: system.unknowns,
    report,
    coordinates,
    clear: witness !== undefined && report.doubt < DOUBTFUL,
  }
}

/** A ratio of what was taken for rounding to what was taken for a pivot above which one may be the other. */
const DOUBTFUL = 1e-4

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
