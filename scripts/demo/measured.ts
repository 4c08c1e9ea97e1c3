import { numbersOf } from '@lathica/core/drawing'
import { addPieces, measure } from '@lathica/core/edit'
import type { Part } from '@lathica/core/part'
import { planRows, type PlanRow } from '@lathica/core/plan'
import { evaluate } from '@lathica/core/route'
import { run } from './outline'

/** The trial pieces of the spindle: the fourth is too long between its shoulders. */
export function measuredSpindle(part: Part): Part {
  const ids = [...numbersOf(evaluate(part)).keys()]
  const begun = run(part, addPieces(ids, 5))
  const pieces = begun.drawing?.plan?.pieces ?? []
  const values = planRows(evaluate(begun)).flatMap((row, i) =>
    pieces.map((p, n) => ({ row: row.id, piece: p.id, value: valueOf(row, i, n) })),
  )
  return run(begun, measure(ids, values))
}

/** A value well within its limits, as it would be read; good where nothing is read. */
function valueOf(row: PlanRow, i: number, n: number): number | 'good' {
  const { lower, upper, nominal } = row
  if (row.measure === 'seen') return 'good'
  if (row.measure === 'number' || lower === undefined || upper === undefined) return nominal ?? 0
  if (n === 3 && row.written === '112 ±0.15') return 112.18
  const share = 0.5 + 0.33 * Math.sin(2.3 * i + 1.7 * n)
  const value = lower + (upper - lower) * share
  const reading = row.measure === 'angle' ? Math.PI / 2160 : upper - lower < 0.15 ? 0.001 : 0.01
  return Number((Math.round(value / reading) * reading).toFixed(9))
}
