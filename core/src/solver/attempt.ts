import { withPositions } from './positions'
import { gradientFor, type Equation } from '../equations'
import { settle, toleranceOf, type Effort, type Settled } from './settle'
import { buildSystem, unmergedSystem, type SizeValues, type System } from './system'
import type { Vec } from '../geometry'
import type { Sketch } from '../sketch'

export interface Attempt {
  /** True when every constraint and size holds, each told without merging and evaluated at the end. */
  readonly solved: boolean
  readonly system: System
  /** The system as it was at the start: of the first of several goes, where merging had to be left. */
  readonly begun: System
  /** Where the search ended, also when it failed. */
  readonly settled: Settled
  /** Where every point stands: the solved places, or the given ones. */
  readonly positions: ReadonlyMap<string, Vec>
  /** Owners of what does not hold; ties of circles that do not close included. */
  readonly failing: readonly string[]
}

/**
 * Solves as it was asked, with nothing merged: slower, but a tie says nothing of the side on which its
 * points are before it holds.
 */
export function attemptUnmerged(sketch: Sketch, values: SizeValues, effort: Effort): Attempt {
  const system = buildSystem(sketch, values, effort.turned)
  const settled = settle(unmergedSystem(system), effort)
  const solved = settled.off.length === 0
  return {
    solved,
    system,
    begun: system,
    settled,
    positions: solved ? placesAt(system, settled.coordinates) : startOf(system),
    failing: settled.off.map((e) => e.owner),
  }
}

/** Solves from where the points stand, without explaining what goes wrong. */
export function attempt(
  sketch: Sketch,
  values: SizeValues,
  effort: Effort,
  again = false,
): Attempt {
  const system = buildSystem(sketch, values, effort.turned)
  const tolerance = toleranceOf(system)
  const open = system.circles.filter((c) => c.misfit > tolerance)
  const settled = settle(system, effort)
  const failed = (failing: readonly string[]): Attempt => ({
    solved: false,
    system,
    begun: system,
    settled,
    positions: startOf(system),
    failing,
  })
  const apart = [...open.flatMap((c) => c.reasons), ...settled.off.map((e) => e.owner)]
  if (apart.length > 0) return failed(apart)
  const off = offAt(system.unmerged(), settled.coordinates, tolerance)
  if (off.length === 0) {
    const positions = placesAt(system, settled.coordinates)
    return { solved: true, system, begun: system, settled, positions, failing: [] }
  }
  // Merging said more or less than was asked for: then all is solved as it was asked, and merged from there.
  const asked = again ? undefined : attemptUnmerged(sketch, values, effort)
  if (!asked?.solved) return failed(off.map((e) => e.owner))
  // There the sides are those that were asked for.
  const from = withPositions(sketch, asked.positions)
  const result = attempt(from, values, { ...effort, turned: undefined }, true)
  return { ...result, begun: system, positions: result.solved ? result.positions : startOf(system) }
}

function offAt(
  equations: readonly Equation[],
  coordinates: Float64Array,
  tolerance: number,
): Equation[] {
  const gradient = gradientFor(equations)
  return equations.filter((e) => !(Math.abs(e.evaluate(coordinates, gradient)) <= tolerance))
}

const startOf = (system: System): ReadonlyMap<string, Vec> => placesAt(system, system.start)

export const placesAt = (system: System, at: Float64Array): ReadonlyMap<string, Vec> =>
  new Map(system.pointIds.map((id, i) => [id, { x: at[2 * i] ?? 0, y: at[2 * i + 1] ?? 0 }]))
