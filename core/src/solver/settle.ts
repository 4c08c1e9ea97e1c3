import { LARGEST_LENGTH, SOLVE_TOLERANCE } from '../tolerances'
import { componentsOf, incidenceOf, type Component } from './components'
import { decompose, type Block } from './decompose'
import { gradientFor, type Equation } from '../equations'
import { prepareBlock, type BlockSolver } from './leastChange'
import { LARGEST_SMALL_BLOCK, createSmallSolver } from './smallBlock'
import { initialUnknowns, writeCoordinates, type System } from './system'
import type { Work } from './work'

/** Where a system came to rest. */
export interface Settled {
  readonly unknowns: Float64Array
  readonly coordinates: Float64Array
  /** Equations that do not hold there, of all that there are. */
  readonly off: readonly Equation[]
  /**
   * Owners of what was found farther off than it had seemed to be at the start, with how many times as far.
   */
  readonly farther: ReadonlyMap<string, number>
}

/** How hard to look for a place where everything holds. */
export interface Effort {
  /** Whether a component that does not solve from its start is led by way of what lies between. */
  readonly detours: boolean
  /** The coordinates to which what can move stays as near as may be, those of the start if no others. */
  readonly near?: Float64Array
  /** Owners of what is measured on the other side than that where it is at the start; none if left out. */
  readonly turned?: ReadonlySet<string> | undefined
  /** What is left to do in the search this belongs to; no bound if left out. */
  readonly work?: Work | undefined
}

/** The residual in mm up to which an equation is said to hold. */
export const toleranceOf = ({ extent }: System): number =>
  10 * SOLVE_TOLERANCE * Math.max(1, extent / 1000)

/**
 * Solves a system from where its points stand: block by block in the order of its structure, which is
 * fast, then by evaluating every equation there is. A component in which some equation does not
 * hold is solved as a whole, with all its equations, from its start; then by way of what lies between.
 * So is one that blocks brought much farther than it had seemed necessary.
 */
export function settle(system: System, effort: Effort): Settled {
  const start = initialUnknowns(system)
  const origin = effort.near ? initialUnknowns(system, effort.near) : start
  const nearest = effort.detours || effort.near !== undefined
  const unknowns = start.slice()
  const coordinates = new Float64Array(system.start.length)
  writeCoordinates(system, unknowns, coordinates)
  solveBlocks(system, unknowns, coordinates, effort.work)
  writeCoordinates(system, unknowns, coordinates)
  const weights = weightsOf(system)
  const off: Equation[] = []
  const farther = new Map<string, number>()
  const gradient = gradientFor(system.equations)
  const tolerance = toleranceOf(system)
  // Far enough away any two lines are level to rounding: that is no place.
  const isWithinReach = (c: number): boolean => Math.abs(coordinates[c] ?? 0) <= FARTHEST
  const holds = (e: Equation): boolean =>
    Math.abs(e.evaluate(coordinates, gradient)) <= tolerance && e.coordinates.every(isWithinReach)
  for (const component of componentsOf(system)) {
    const { equations, unknowns: own } = component
    let found = equations.every(holds)
    // What hardly moved is the nearest place, and needs no solver of its own.
    const near = NEAR_ENOUGH * system.extent
    if (found && (!nearest || farFrom(origin, unknowns, component, weights) < near)) continue
    const solver = prepareBlock(system, equations, own, coordinates, effort.work)
    if (found) goNearer(system, component, solver, unknowns, origin, weights)
    const moved = farFrom(start, unknowns, component, weights)
    const expected = found && moved < near ? Infinity : solver.outlook(start, weights)
    if (!found || moved > FAR * expected) {
      const other = start.slice()
      if (solveWhole(solver, component, other, weights, effort)) {
        if (nearest) goNearer(system, component, solver, other, origin, weights)
        found = found && moved <= farFrom(start, other, component, weights)
      }
      if (!found) for (const u of own) unknowns[u] = other[u] ?? 0
    }
    const times = farFrom(start, unknowns, component, weights) / expected
    for (const e of equations) farther.set(e.owner, Math.max(times, farther.get(e.owner) ?? 0))
    writeCoordinates(system, unknowns, coordinates)
    off.push(...equations.filter((e) => !holds(e)))
  }
  // What reads nothing that could move holds or does not.
  const still = system.equations.filter((e) =>
    e.coordinates.every((c) => (system.unknownOf[c] ?? -1) < 0),
  )
  off.push(...still.filter((e) => !holds(e)))
  return { unknowns, coordinates, off, farther }
}

/** No point is farther from where the axis begins than this, in mm: there rounding is as large as the tolerance. */
const FARTHEST = 100 * LARGEST_LENGTH

/** How many coordinates of points each unknown stands for: moving it moves them all. */
export function weightsOf(system: System): Float64Array {
  const weights = new Float64Array(system.unknowns)
  for (const u of system.unknownOf) if (u >= 0) weights[u] = (weights[u] ?? 0) + 1
  return weights
}

function solveBlocks(
  system: System,
  unknowns: Float64Array,
  coordinates: Float64Array,
  work: Work | undefined,
): void {
  const solveSmall = createSmallSolver(system, coordinates)
  const solveBlock = (block: Block): boolean => {
    const equations = block.equations.flatMap((e) => system.equations[e] ?? [])
    const small = block.determined && equations.length <= LARGEST_SMALL_BLOCK
    if (small && solveSmall(equations, block.unknowns, unknowns)) return true
    return prepareBlock(system, equations, block.unknowns, coordinates, work).solve(unknowns)
  }
  const incidence = incidenceOf(system, system.equations)
  for (const block of decompose(incidence, system.unknowns)) {
    if (block.equations.length > 0) solveBlock(block)
  }
}

/** What is found this many times farther off than it seemed at the start may be another place than the nearest. */
export const FAR = 1.5

function farFrom(
  start: Float64Array,
  unknowns: Float64Array,
  { unknowns: own }: Component,
  weights: Float64Array,
): number {
  let sum = 0
  for (const u of own) sum += (weights[u] ?? 1) * ((unknowns[u] ?? 0) - (start[u] ?? 0)) ** 2
  return Math.sqrt(sum)
}

/** Of all places where a component's equations hold, the one nearest to where it began. */
function goNearer(
  system: System,
  { equations, unknowns: own }: Component,
  solver: BlockSolver,
  unknowns: Float64Array,
  start: Float64Array,
  weights: Float64Array,
): void {
  if (equations.length >= own.length) return
  const moved = Math.max(...own.map((u) => Math.abs((unknowns[u] ?? 0) - (start[u] ?? 0))))
  if (moved > NEAR_ENOUGH * system.extent) solver.approach(unknowns, start, weights)
}

/** Motions smaller than this share of the extent are not worth shortening. */
const NEAR_ENOUGH = 1e-3

function solveWhole(
  solver: BlockSolver,
  { unknowns: own }: Component,
  unknowns: Float64Array,
  weights: Float64Array,
  { detours }: Effort,
): boolean {
  const begin = unknowns.slice()
  const back = (): void => own.forEach((u) => (unknowns[u] = begin[u] ?? 0))
  if (solver.solve(unknowns, weights)) return true
  if (!detours) return false
  const stuck = unknowns.slice()
  const least = norm(solver.residuals(unknowns))
  back()
  if (byWayOf(solver, unknowns, weights)) return true
  if (least < norm(solver.residuals(unknowns))) own.forEach((u) => (unknowns[u] = stuck[u] ?? 0))
  return false
}

/**
 * Lets what is asked for come slowly: the residuals at the start shrink step by step, and each step
 * begins where the last one ended (Newton homotopy; Allgower & Georg, Numerical Continuation Methods,
 * ch. 1). A step that fails is halved.
 */
function byWayOf(solver: BlockSolver, unknowns: Float64Array, weights: Float64Array): boolean {
  const from = solver.residuals(unknowns)
  const goals = new Float64Array(from.length)
  let share = 0
  let step = 0.25
  while (share < 1) {
    const next = Math.min(1, share + step)
    for (let e = 0; e < goals.length; e++) goals[e] = (1 - next) * (from[e] ?? 0)
    const kept = unknowns.slice()
    if (solver.solve(unknowns, weights, goals)) {
      share = next
      step = Math.min(0.5, 1.5 * step)
      continue
    }
    unknowns.set(kept)
    step /= 2
    if (step < SHORTEST_STEP) return false
  }
  return solver.solve(unknowns, weights)
}

const SHORTEST_STEP = 1 / 40

const norm = (values: Float64Array): number => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0))
