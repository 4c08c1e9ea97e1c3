import { SOLVE_TOLERANCE } from '../tolerances'
import { analyseSystem, type Analysis } from './analysis'
import { WIDEST } from './equations'
import { prepareBlock } from './leastChange'
import { LARGEST_SMALL_BLOCK, createSmallSolver } from './smallBlock'
import {
  buildSystem,
  initialUnknowns,
  writeCoordinates,
  type SizeValues,
  type System,
} from './system'
import type { Vec } from '../geometry'
import type { Sketch } from '../sketch'

/** A suspicion: constraints and sizes among which a disagreement lies. */
export interface Fault {
  readonly kind: 'redundant' | 'conflict'
  readonly suspects: readonly string[]
}

export interface Attempt {
  readonly solved: boolean
  readonly system: System
  readonly analysis: Analysis
  readonly positions: ReadonlyMap<string, Vec>
  readonly faults: readonly Fault[]
}

/** Solves from where the points stand, without explaining what goes wrong to the last detail. */
export function attempt(
  sketch: Sketch,
  values: SizeValues,
  keep?: (id: string) => boolean,
): Attempt {
  const system = buildSystem(sketch, values, keep)
  const analysis = analyseSystem(system)
  const tolerance = 10 * SOLVE_TOLERANCE * Math.max(1, system.extent / 1000)
  const faults: Fault[] = system.circles.map(({ misfit, reasons }) => ({
    kind: misfit > tolerance ? 'conflict' : 'redundant',
    suspects: reasons,
  }))
  const unknowns = initialUnknowns(system)
  const coordinates = new Float64Array(system.start.length)
  writeCoordinates(system, unknowns, coordinates)
  const solveSmall = createSmallSolver(system, coordinates)
  for (const block of analysis.blocks) {
    if (block.equations.length === 0) continue
    const equations = block.equations.flatMap((e) => analysis.independent[e] ?? [])
    const small = block.determined && equations.length <= LARGEST_SMALL_BLOCK
    if (small && solveSmall(equations, block.unknowns, unknowns)) continue
    if (!prepareBlock(system, equations, block.unknowns, coordinates).solve(unknowns)) {
      faults.push({ kind: 'conflict', suspects: suspectsAround(system, analysis, equations) })
      break
    }
  }
  writeCoordinates(system, unknowns, coordinates)
  const gradient = new Float64Array(WIDEST)
  if (!faults.some((f) => f.kind === 'conflict')) {
    for (const { equation, from } of analysis.dependent) {
      const misfit = Math.abs(equation.evaluate(coordinates, gradient))
      faults.push({
        kind: misfit > tolerance ? 'conflict' : 'redundant',
        suspects: suspectsAround(system, analysis, [equation, ...from]),
      })
    }
  }
  const solved = !faults.some((f) => f.kind === 'conflict')
  const source = solved ? coordinates : system.start
  const positions = new Map<string, Vec>(
    system.pointIds.map((id, i) => [id, { x: source[2 * i] ?? 0, y: source[2 * i + 1] ?? 0 }]),
  )
  return { solved, system, analysis, positions, faults }
}

/**
 * All owners that may have a say in some equations: their own, those of the blocks that fix what
 * they read, and the ties that merged their coordinates.
 */
function suspectsAround(
  system: System,
  analysis: Analysis,
  equations: readonly Analysis['independent'][number][],
): string[] {
  const blockOf = new Map<number, Analysis['blocks'][number]>()
  for (const block of analysis.blocks) {
    if (block.determined) block.unknowns.forEach((u) => blockOf.set(u, block))
  }
  const involved = new Set(equations)
  const coordinates = new Set<number>()
  for (const equation of involved) {
    for (const c of equation.coordinates) {
      coordinates.add(c)
      const block = blockOf.get(system.unknownOf[c] ?? -1)
      // A set grows while it is run through, so this reaches blocks behind blocks.
      block?.equations.forEach((e) => {
        const found = analysis.independent[e]
        if (found) involved.add(found)
      })
    }
  }
  const suspects = new Set([...involved].map((e) => e.owner))
  const firstOf = new Map<number, number>([[-1, system.start.length - 2]])
  for (const c of coordinates) {
    const u = system.unknownOf[c] ?? -1
    const first = firstOf.get(u)
    if (first === undefined) firstOf.set(u, c)
    else system.reasonsBetween(first, c).forEach((r) => suspects.add(r))
  }
  // What an arc is by nature has no owner and is nobody's fault.
  suspects.delete('')
  return [...suspects]
}
