import { entityMap, locator, measureSize, type Sketch } from '../sketch'
import { attempt, type Attempt } from './attempt'
import { explainDisagreement, type Disagreement } from './explain'
import { keepsTurns } from './turns'
import type { SizeValues } from './system'
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
 * Pure; the stored positions are the start and the sides of all measures are kept as they are there.
 * @param values driving sizes by id in mm and radians
 */
export function solve(sketch: Sketch, values: SizeValues): Solution {
  const direct = attempt(sketch, values)
  const result =
    direct.solved && !keepsTurns(sketch, direct.positions) ? approach(sketch, values) : direct
  const chosen = result.solved && keepsTurns(sketch, result.positions) ? result : direct
  const { system, analysis } = chosen
  const disagreements = chosen.faults.flatMap(
    (fault) => explainDisagreement(sketch, values, fault, analysis.freedoms) ?? [],
  )
  return {
    solved: chosen.solved,
    positions: chosen.positions,
    freedoms: analysis.freedoms,
    pointFreedoms: new Map(system.pointIds.map((id, i) => [id, analysis.pointFreedoms[i] ?? 0])),
    disagreements,
  }
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
    const step = attempt(here, between)
    if (!step.solved) break
    here = withPositions(here, step.positions)
  }
  return attempt(here, values)
}

/** The sketch with its points moved; points without a new position stay the same objects. */
export function withPositions(sketch: Sketch, positions: ReadonlyMap<string, Vec>): Sketch {
  let changed = false
  const points = sketch.points.map((p) => {
    const to = positions.get(p.id)
    if (!to || (to.x === p.x && to.y === p.y)) return p
    changed = true
    return { ...p, x: to.x, y: to.y }
  })
  return changed ? { ...sketch, points } : sketch
}
