import { measureSize } from '../constraints'
import { entityMap, locator, type Sketch } from '../sketch'
import { analyseSystem } from './analysis'
import { attempt, type Attempt } from './attempt'
import { fromRows, fromValues, type Disagreement } from './explain'
import { createRandom } from './random'
import { withPositions } from './positions'
import { keepsTurns } from './turns'
import { FAR } from './settle'
import { distanceFrom, fromOtherStarts, isLoose } from './starts'
import { buildSystem, type SizeValues } from './system'
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
  const loose = isLoose(direct.begun)
  if (!direct.solved) {
    // What contradicts itself by its very rows need not be looked for anywhere else.
    const told = tell(sketch, values, direct, loose ? SOME_STARTS : A_FEW_STARTS)
    if (told.disagreements.some((d) => d.kind === 'conflict')) return told
  }
  const result = fromOtherStarts(sketch, values, direct, { loose })
  if (!result.solved) return withReason(sketch, values, result)
  return tell(sketch, values, turnedAsDrawn(sketch, values, result, loose), A_FEW_STARTS)
}

/** What is to be told of an attempt, with what follows from its equations' rows. */
function tell(sketch: Sketch, values: SizeValues, chosen: Attempt, starts: number): Solution {
  const { solved, system, settled, positions } = chosen
  const analysis = analyseSystem(system, settled.unknowns, () =>
    buildSystem(withPositions(sketch, positions), disturbed(values)),
  )
  const sound = analysis.dependent.length === 0 && system.circles.length === 0
  return {
    solved,
    positions,
    freedoms: analysis.freedoms,
    pointFreedoms: new Map(system.pointIds.map((id, i) => [id, analysis.pointFreedoms[i] ?? 0])),
    disagreements: sound
      ? []
      : fromRows(sketch, chosen, analysis.coordinates, solvesWith(values, starts)),
  }
}

/** What is to be told of an attempt that failed, with a reason in any case. */
function withReason(sketch: Sketch, values: SizeValues, failed: Attempt): Solution {
  const told = tell(sketch, values, failed, A_FEW_STARTS)
  if (told.disagreements.some((d) => d.kind === 'conflict')) return told
  const reason = fromValues(sketch, failed, solvesWith(values, A_FEW_STARTS))
  return { ...told, disagreements: [...told.disagreements, reason] }
}

const solvesWith =
  (values: SizeValues, most: number) =>
  (part: Sketch, thoroughly: boolean): boolean => {
    const tried = attempt(part, values, { detours: thoroughly })
    if (tried.solved || !thoroughly) return tried.solved
    const search = { loose: isLoose(tried.begun), most, any: true }
    return fromOtherStarts(part, values, tried, search).solved
  }

/**
 * An attempt's place, or one that turns its corners as they were drawn, if there is one. Where little holds at the
 * start, what is drawn there is rough: then one that lies much farther off is not taken.
 */
function turnedAsDrawn(
  sketch: Sketch,
  values: SizeValues,
  result: Attempt,
  loose: boolean,
): Attempt {
  if (!result.solved || keepsTurns(sketch, result.positions)) return result
  const gone = approach(sketch, values)
  if (!gone.solved || !keepsTurns(sketch, gone.positions)) return result
  const [near, far] = [result, gone].map((a) => distanceFrom(sketch, a.positions))
  return loose && (far ?? 0) > FAR * (near ?? 0) ? result : gone
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

/** For telling which of many parts of a sketch solve: some with everything merged, some with nothing. */
const A_FEW_STARTS = 8
/** The same where little holds at the start. */
const SOME_STARTS = 40
