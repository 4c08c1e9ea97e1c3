import { measureSize } from '../constraints'
import { entityMap, locator, type Sketch } from '../sketch'
import { analyseSystem } from './analysis'
import { attempt, type Attempt } from './attempt'
import { fromRows, fromValues, type Disagreement, type Trial } from './explain'
import { createRandom } from './random'
import { withPositions } from './positions'
import { keepsTurns } from './turns'
import { FAR } from './settle'
import { distanceFrom, fromOtherStarts, isLoose } from './starts'
import { buildSystem, type SizeValues } from './system'
import { isSpent, workOf, type Work } from './work'
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
  const explaining = workOf(MOST_EXPLAINING)
  const told = (chosen: Attempt, starts: number): Solution =>
    tell(sketch, values, chosen, trialOf(values, starts, explaining))
  if (!direct.solved) {
    // What contradicts itself by its very rows need not be looked for anywhere else.
    const first = told(direct, loose ? SOME_STARTS : A_FEW_STARTS)
    if (hasReason(first)) return first
  }
  const result = fromOtherStarts(sketch, values, direct, { loose, work: workOf(MOST_SEARCHING) })
  if (result.solved) return told(turnedAsDrawn(sketch, values, result, loose), A_FEW_STARTS)
  const failed = told(result, A_FEW_STARTS)
  if (hasReason(failed)) return failed
  const reason = fromValues(sketch, result, trialOf(values, A_FEW_STARTS, explaining))
  return { ...failed, disagreements: [...failed.disagreements, reason] }
}

const hasReason = ({ disagreements }: Solution): boolean =>
  disagreements.some((d) => d.kind === 'conflict')

/** What is to be told of an attempt, with what follows from its equations' rows. */
function tell(sketch: Sketch, values: SizeValues, chosen: Attempt, trial: Trial): Solution {
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
    disagreements: sound ? [] : fromRows(sketch, chosen, analysis.coordinates, trial),
  }
}

/**
 * Tries parts of a sketch by themselves. Once the work for all of them is done, a part counts as one that solves: what is
 * told to conflict is then more than it need be, never less.
 */
const trialOf = (values: SizeValues, most: number, work: Work): Trial => ({
  isOver: () => isSpent(work),
  solves: (part, thoroughly) => {
    const tried = attempt(part, values, { detours: thoroughly, work })
    if (tried.solved || isSpent(work)) return true
    if (!thoroughly) return false
    const search = { loose: isLoose(tried.begun), most, any: true, work }
    return fromOtherStarts(part, values, tried, search).solved || isSpent(work)
  },
})

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

/**
 * What looking for a place from other starts may take, and finding the reason why there is none, in multiplications:
 * about a second and half a second. Sketches of 30 points rarely take as much.
 */
const MOST_SEARCHING = 2e8
const MOST_EXPLAINING = 1e8
