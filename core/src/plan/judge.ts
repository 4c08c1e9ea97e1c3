import { once } from '../once'
import type { InspectionPlan, MeasuredValue } from '../part'
import type { PlanRow } from './rows'

export type Verdict = 'good' | 'bad' | 'open'

/** Figures are typed with so many digits that more than this is no rounding, in mm, radians or µm. */
const ROUNDING = 1e-9

/** How a value stands against the limits of its row; open where it has none. */
export function judged(row: PlanRow, value: MeasuredValue['value'] | undefined): Verdict {
  if (value === undefined) return 'open'
  if (typeof value === 'string') return value
  const { lower = -Infinity, upper = Infinity } = row
  if (row.lower === undefined && row.upper === undefined) return 'open'
  return value >= lower - ROUNDING && value <= upper + ROUNDING ? 'good' : 'bad'
}

type RowValues = ReadonlyMap<string, MeasuredValue['value']>

/** What was measured for a row, by the id of the piece. */
export const valuesOfRow = (plan: InspectionPlan, row: string): RowValues =>
  measuredIn(plan).get(row) ?? NOTHING_MEASURED

const NOTHING_MEASURED: RowValues = new Map()

/** By rows and pieces. */
const measuredIn = once((plan: InspectionPlan): ReadonlyMap<string, RowValues> => {
  const found = new Map<string, Map<string, MeasuredValue['value']>>()
  for (const { row, piece, value } of plan.measured) {
    const own = found.get(row)
    if (own) own.set(piece, value)
    else found.set(row, new Map([[piece, value]]))
  }
  return found
})

/** What the figures of a row come to. */
export interface RowFigures {
  readonly count: number
  readonly bad: number
  readonly mean?: number
  readonly least?: number
  readonly greatest?: number
  /** Of a sample, with n − 1; of two figures at least. */
  readonly deviation?: number
}

export function rowFigures(row: PlanRow, plan: InspectionPlan): RowFigures {
  const values = [...valuesOfRow(plan, row.id).values()]
  const bad = values.filter((v) => judged(row, v) === 'bad').length
  const numbers = values.filter((v): v is number => typeof v === 'number')
  const n = numbers.length
  if (n === 0) return { count: values.length, bad }
  const mean = numbers.reduce((a, b) => a + b, 0) / n
  const squares = numbers.reduce((sum, v) => sum + (v - mean) ** 2, 0)
  return {
    ...{ count: values.length, bad, mean },
    ...{ least: Math.min(...numbers), greatest: Math.max(...numbers) },
    ...(n > 1 ? { deviation: Math.sqrt(squares / (n - 1)) } : {}),
  }
}

/** Whether a piece is good: bad as soon as one row is, good once all that can be judged were measured. */
export function pieceVerdict(
  rows: readonly PlanRow[],
  plan: InspectionPlan,
  piece: string,
): Verdict {
  const verdicts = rows.map((row) => {
    const value = valuesOfRow(plan, row.id).get(piece)
    return { row, value, verdict: judged(row, value) }
  })
  if (verdicts.some((v) => v.verdict === 'bad')) return 'bad'
  const isOpen = ({ row, value, verdict }: (typeof verdicts)[number]): boolean =>
    verdict === 'open' && (row.measure === 'seen' || hasLimits(row) || value === undefined)
  return rows.length === 0 || verdicts.some(isOpen) ? 'open' : 'good'
}

export const hasLimits = ({ lower, upper }: PlanRow): boolean =>
  lower !== undefined || upper !== undefined

/** How far along its tolerance a value lies: −1 at the lower limit, 1 at the upper one. */
export function standing(row: PlanRow, value: number): number | undefined {
  const { lower, upper } = row
  if (lower === undefined || upper === undefined || upper <= lower) return undefined
  return (2 * value - lower - upper) / (upper - lower)
}
