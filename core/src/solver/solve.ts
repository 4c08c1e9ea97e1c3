import { entityMap, locator, measureSize, type Sketch } from '../sketch'
import { analyseSystem } from './analysis'
import { attempt, attemptUnmerged, placesAt, type Attempt } from './attempt'
import { componentOf, explain, type Disagreement } from './explain'
import { createRandom } from './random'
import { restrictedTo } from './restricted'
import { withPositions } from './positions'
import { toleranceOf } from './settle'
import { keepsTurns } from './turns'
import { WIDEST } from './equations'
import { buildSystem, unmergedSystem, type SizeValues, type System } from './system'
import type { Vec } from '../geometry'

export interface Solution {
  /** False when some constraints or sizes cannot hold; the positions are then the given ones. */
  readonly solved: boolean
  /** Where every point stands, in mm, by point id. */
  readonly positions: ReadonlyMap<string, Vec>
  /** In how many independent ways the sketch can still move. */
  readonly freedoms: number
  /** For each point id: 0 when it stands, 1 when it moves along a path, 2 when it moves freely. */
  readonly pointFreedoms: ReadonlyMap<string, number>
  readonly disagreements: readonly Disagreement[]
}

/**
 * Moves the points of a sketch, as little as may be, until its constraints and sizes hold.
 * Pure; the stored positions are the start, and all measures stay on the sides where they are there. Only
 * where nothing else helps a measure may change its side: one whose side could hardly be told.
 * @param values driving sizes by id in mm and radians
 */
export function solve(sketch: Sketch, values: SizeValues): Solution {
  const direct = attempt(sketch, values, { detours: true })
  if (!direct.solved && !isLoose(direct)) {
    // Most holds: what contradicts it by its very rows need not be looked for anywhere else.
    const told = tell(sketch, values, direct)
    if (told.disagreements.some((d) => d.kind === 'conflict' && d.certain)) return told
  }
  const settled = direct.solved && direct.settled.far.length === 0
  const result = settled ? direct : fromOtherStarts(sketch, values, direct)
  return tell(sketch, values, turnedAsDrawn(sketch, values, result))
}

/** What is to be told of an attempt. */
function tell(sketch: Sketch, values: SizeValues, chosen: Attempt): Solution {
  const { solved, system, settled, positions } = chosen
  const analysis = analyseSystem(system, settled.unknowns, () =>
    buildSystem(withPositions(sketch, positions), disturbed(values)),
  )
  const solves = (part: Sketch, thoroughly: boolean): boolean => {
    const tried = attempt(part, values, { detours: thoroughly })
    if (tried.solved || !thoroughly) return tried.solved
    return fromOtherStarts(part, values, tried, A_FEW_STARTS).solved
  }
  const sound = solved && analysis.dependent.length === 0 && system.circles.length === 0
  return {
    solved,
    positions,
    freedoms: analysis.freedoms,
    pointFreedoms: new Map(system.pointIds.map((id, i) => [id, analysis.pointFreedoms[i] ?? 0])),
    disagreements: sound ? [] : explain(sketch, chosen, analysis.coordinates, solves),
  }
}

/** An attempt's place, or one that turns its corners as they were drawn, if there is one. */
function turnedAsDrawn(sketch: Sketch, values: SizeValues, result: Attempt): Attempt {
  if (!result.solved || keepsTurns(sketch, result.positions)) return result
  const gone = approach(sketch, values)
  return gone.solved && keepsTurns(sketch, gone.positions) ? gone : result
}

/** Sizes with values like any others near theirs, for a witness of what is asked. */
function disturbed(values: SizeValues): SizeValues {
  const random = createRandom(0xd157)
  return new Map([...values].map(([id, v]) => [id, v * (1 + 0.04 * (random() - 0.5))]))
}

const APPROACH_STEPS = 8

/**
 * Goes to far-off values by way of intermediate ones, so that each solve starts near its end and
 * the shape keeps its turn directions.
 */
function approach(sketch: Sketch, values: SizeValues): Attempt {
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const from = new Map(sketch.sizes.map((s) => [s.id, measureSize(s, lines, locate)]))
  let here = sketch
  for (let k = 1; k < APPROACH_STEPS; k++) {
    const share = k / APPROACH_STEPS
    const between = new Map<string, number>()
    values.forEach((target, id) =>
      between.set(id, (from.get(id) ?? target) * (1 - share) + target * share),
    )
    const step = attempt(here, between, { detours: false })
    if (!step.solved) break
    here = withPositions(here, step.positions)
  }
  return attempt(here, values, { detours: true })
}

/**
 * Tries what fails from other starts near by, with the sides that measures have there. How far they lie
 * from the given start is taken from how far everything is off on average: where all holds but one
 * typed value, they are close to it, and no side that can be told changes. Of several places found the
 * nearest to the given start counts. Only what hangs together with what fails is solved for it.
 */
function fromOtherStarts(
  sketch: Sketch,
  values: SizeValues,
  failed: Attempt,
  starts?: number,
): Attempt {
  const { solved, failing, system } = failed
  const component = componentOf(unmergedSystem(system), solved ? failed.settled.far : failing)
  if (!component) return failed
  const part = restrictedTo(sketch, component)
  const usual = usualMisfit(buildSystem(part, values))
  const most = starts ?? (!solved && isLoose(failed) ? MOST_STARTS : FEW_STARTS)
  const random = createRandom(0x57a7)
  let best: ReadonlyMap<string, Vec> | undefined
  let least = solved ? distanceFrom(part, failed.positions) : Infinity
  let found = 0
  let nearest: { readonly at: Sketch; readonly short: number } | undefined
  for (let k = 0; k < most && found < ENOUGH_FOUND; k++) {
    const reach = 2 * Math.max(usual, 1e-3 * system.extent) * (SHARES[k % SHARES.length] ?? 1)
    // Every fourth start lies near the place that came nearest to holding so far.
    const base = k % 4 === 3 ? (nearest?.at ?? part) : part
    const points = base.points.map((p) => ({
      ...p,
      x: p.x + (random() - 0.5) * reach,
      y: p.y + (random() - 0.5) * reach,
    }))
    const near = { ...part, points }
    const tried =
      k % 2 === 0
        ? attemptUnmerged(near, values, { detours: false })
        : attempt(near, values, { detours: false })
    if (!tried.solved) {
      const short = shortOf(tried)
      if (short < (nearest?.short ?? Infinity)) {
        nearest = {
          at: withPositions(part, placesAt(tried.system, tried.settled.coordinates)),
          short,
        }
      }
      continue
    }
    found++
    const far = distanceFrom(part, tried.positions)
    if (far < least) [best, least] = [tried.positions, far]
  }
  if (!best) return failed
  const result = attempt(withPositions(sketch, best), values, { detours: true })
  return result.solved ? result : failed
}

/** How many other starts near by are tried before a sketch is told not to solve. */
const MOST_STARTS = 80
/** How many are tried where a place was found already, but a far one, or where most holds at the start. */
const FEW_STARTS = 6
/** For telling which of many parts of a sketch solve: some with everything merged, some with nothing. */
const A_FEW_STARTS = 4
/** Where more than this share of all that is asked is off at the start, it is no edit of what held. */
const LOOSE = 0.3
/** So many places found are enough to choose the nearest of. */
const ENOUGH_FOUND = 3
/** How far other starts lie from the given one, as shares of what is off there on average. */
const SHARES = [1, 2, 0.5, 1, 3]

/** Whether more than a few typed values are off where the points stand at the start. */
function isLoose({ system }: Attempt): boolean {
  const gradient = new Float64Array(WIDEST)
  const equations = system.unmerged()
  const tolerance = 100 * toleranceOf(system)
  const off = equations.filter((e) => Math.abs(e.evaluate(system.start, gradient)) > tolerance)
  return off.length > LOOSE * equations.length
}

/** How far points are from what is asked, on average, where they stand at the start: in mm. */
function usualMisfit(system: System): number {
  const gradient = new Float64Array(WIDEST)
  let sum = 0
  const equations = system.unmerged()
  for (const e of equations) {
    const residual = Math.abs(e.evaluate(system.start, gradient))
    let slope = 0
    for (let k = 0; k < e.coordinates.length; k++) slope = Math.hypot(slope, gradient[k] ?? 0)
    sum += Math.min(residual / (slope || 1), system.extent)
  }
  return sum / Math.max(1, equations.length)
}

/** By how much what does not hold is off where an attempt ended, in mm. */
function shortOf({ settled }: Attempt): number {
  const gradient = new Float64Array(WIDEST)
  return Math.hypot(...settled.off.map((e) => e.evaluate(settled.coordinates, gradient)))
}

function distanceFrom({ points }: Sketch, positions: ReadonlyMap<string, Vec>): number {
  let sum = 0
  for (const p of points) {
    const to = positions.get(p.id) ?? p
    sum += (to.x - p.x) ** 2 + (to.y - p.y) ** 2
  }
  return Math.sqrt(sum)
}
