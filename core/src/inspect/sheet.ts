import { evaluateFormula } from '../formula'
import { valuesOf, type Check, type Part } from '../part'
import type { PartState } from '../route'
import { fail, type Problem, type Result } from '../result'
import type { SolidAsk } from '../solid'
import type { Measure } from '../units'
import { unitCalled, type ShownUnit } from '../units/shown'
import { asksOf, figureValue, figureWords, measureOfFigure, unitOfFigure } from './figures'
import type { Measured } from './picks'
import { once } from '../once'

/** How a row of the sheet stands. */
export type Verdict =
  /** no target was given */
  | 'told'
  | 'passes'
  | 'fails'
  /** the figure has no value, or the target no meaning */
  | 'open'

/** One row, evaluated. Values are in mm, rad, g and their products. */
export interface CheckState {
  readonly check: Check
  readonly words: string
  readonly unit: ShownUnit
  readonly measured: Measured | undefined
  readonly target: number | undefined
  /** How far above and below the target the value may lie. */
  readonly above: number
  readonly below: number
  readonly difference: number | undefined
  /** Between which values it lies with every value at its limits, of a row that asks for it. */
  readonly span?: { readonly low: number; readonly high: number }
  readonly verdict: Verdict
  /** Why there is no verdict, if there should be one. */
  readonly problem?: Problem
}

/** Every row of a part's inspection sheet against the part as it stands at the end of its route. */
export const checkStates = once((state: PartState): readonly CheckState[] =>
  state.part.checks.map((check) => checkState(check, state.part, state)),
)

/** What the kernel has to be asked before all rows can be told. */
export const asksOfChecks = ({ part, bodies }: PartState): readonly SolidAsk[] =>
  bodies.some((b) => b.plan)
    ? part.checks.flatMap(({ figure }) => asksOf(figure, part, bodies))
    : []

/** Between which values figures lie at every limit, by the ids of their rows; a problem where that cannot be told. */
export type Spans = ReadonlyMap<string, Result<NonNullable<CheckState['span']>>>

/** The rows with what they come to at every limit; one whose span is not known yet is open. */
export const checkStatesAt = (state: PartState, spans: Spans): readonly CheckState[] =>
  checkStates(state).map((row) => atLimits(row, spans.get(row.check.id)))

function atLimits(
  row: CheckState,
  span: Result<NonNullable<CheckState['span']>> | undefined,
): CheckState {
  const { check, target, verdict, above, below } = row
  if (check.everyLimit !== true || verdict === 'open') return row
  if (!span) return { ...row, verdict: 'open', problem: unknownYet }
  if (!span.ok) return { ...row, verdict: 'open', problem: span.problem }
  const { low, high } = span.value
  if (target === undefined) return { ...row, span: span.value }
  const limits = { target, above, below }
  const isHeld = [low, high].every((value) => holds(check, limits, value - target))
  // What counts is how far the worse of the two lies off.
  const [under, over] = [low - target, high - target]
  const worse =
    check.limit === 'least'
      ? under
      : check.limit === 'most'
        ? over
        : over - above >= -under - below
          ? over
          : under
  return {
    ...row,
    ...{ span: span.value, verdict: isHeld ? 'passes' : 'fails' },
    difference: isHeld ? row.difference : worse,
  }
}

const unknownYet: Problem = {
  code: 'check.limits',
  message: 'What it comes to at every limit is being worked out.',
  mend: 'It comes in a moment.',
}

export function checkState(
  check: Check,
  part: Part,
  { bodies }: Pick<PartState, 'bodies'>,
): CheckState {
  const measure = measureOfFigure(check.figure.kind)
  const chosen = unitCalled(check.unit)
  const unit = chosen ?? unitOfFigure(check.figure.kind, part)
  const value = figureValue(check.figure, part, bodies)
  const measured = value.ok ? value.value : undefined
  const words = check.name.trim() === '' ? figureWords(check.figure, part, bodies) : check.name
  const base = { check, words, unit, measured }
  const none = { target: undefined, above: 0, below: 0, difference: undefined }
  if (check.unit !== '' && chosen?.measure !== measure) {
    const problem = unitProblem(check.unit, measure)
    return {
      ...base,
      ...none,
      unit: unitOfFigure(check.figure.kind, part),
      verdict: 'open',
      problem,
    }
  }
  const read = readTarget(check, part, measure, unit)
  if (!read.ok) return { ...base, ...none, verdict: 'open', problem: read.problem }
  const limits = read.value
  const target = limits?.target
  const difference = measured && target !== undefined ? measured.value - target : undefined
  const told = { ...base, ...none, ...limits, difference }
  if (!value.ok) return { ...told, verdict: 'open', problem: value.problem }
  if (!limits || difference === undefined) return { ...told, verdict: 'told' }
  // A value that is not exact lies between two: what does not hold for both is not told.
  const [isHeld, mayHold] = [0, measured?.within ?? 0].map((by) =>
    holds(check, limits, difference - by),
  )
  if (isHeld !== mayHold) return { ...told, verdict: 'open', problem: tooNear }
  return { ...told, verdict: isHeld ? 'passes' : 'fails' }
}

const tooNear: Problem = {
  code: 'check.within',
  message: 'It is not measured so exactly that one could tell whether it holds.',
  mend: 'Look at it between two faces, or leave it some room.',
}

interface Limits {
  readonly target: number
  readonly above: number
  readonly below: number
}

/** A share of the target that rounding may take. */
const ROUNDING = 1e-9

function holds(check: Check, { target, above, below }: Limits, difference: number): boolean {
  const slack = ROUNDING * Math.max(1, Math.abs(target))
  if (check.limit === 'least') return difference >= -slack
  if (check.limit === 'most') return difference <= slack
  return difference <= above + slack && difference >= -below - slack
}

function readTarget(
  check: Check,
  part: Part,
  want: Measure,
  unit: ShownUnit,
): Result<Limits | undefined> {
  if (check.target.trim() === '') return { ok: true, value: undefined }
  const context = { want, units: part.units, bare: unit.size, lookup: valuesOf(part).table.lookup }
  const digit = lastDigit(check.target) * unit.size
  const target = evaluateFormula(check.target, context)
  if (!target.ok) return target
  const read = (text: string): Result<number> =>
    text.trim() === '' ? { ok: true, value: Number.NaN } : evaluateFormula(text, context)
  const above = read(check.above)
  if (!above.ok) return above
  const below = read(check.below)
  if (!below.ok) return below
  const given = check.above.trim() !== '' || check.below.trim() !== ''
  const side = (value: number): number => (Number.isNaN(value) ? (given ? 0 : digit) : value)
  const limits = { target: target.value, above: side(above.value), below: side(below.value) }
  if (limits.above < 0 || limits.below < 0) {
    const mend = 'Both sides count away from the target: write 0.02 for either.'
    return fail('check.tolerance', 'A tolerance is not below zero.', mend)
  }
  return { ok: true, value: limits }
}

/** Half of the last digit of a plain number: 0.757 means anything that rounds to it. */
function lastDigit(text: string): number {
  const found = /^\s*\d+(?:\.(\d+))?\s*[a-z]*[²³^\d]*\s*$/i.exec(text)
  return found ? 0.5 * 10 ** -(found[1]?.length ?? 0) : 0
}

function unitProblem(unit: string, measure: Measure): Problem {
  const wanted: Readonly<Record<Measure, string>> = {
    length: 'a length, such as mm',
    angle: 'an angle, such as deg',
    mass: 'a mass, such as g',
    area: 'an area, such as mm²',
    volume: 'a volume, such as cm³',
    inertia: 'a moment of inertia, such as g·mm²',
    density: 'a density, such as g/cm³',
    number: 'no unit',
  }
  const mend = `Choose a unit of ${wanted[measure]}.`
  return fail('check.unit', `“${unit}” is no unit of this figure.`, mend).problem
}

/** How the sheet stands as a whole. */
export interface SheetSummary {
  readonly passing: number
  readonly failing: number
  readonly open: number
  /** Rows with a target. */
  readonly targets: number
}

export function summaryOf(states: readonly CheckState[]): SheetSummary {
  const count = (verdict: Verdict): number => states.filter((s) => s.verdict === verdict).length
  const [passing, failing, open] = [count('passes'), count('fails'), count('open')]
  return { passing, failing, open, targets: passing + failing + open }
}
