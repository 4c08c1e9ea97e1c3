import { drawingOf, type Drawing } from '../drawing'
import { NO_PLAN } from '../part'
import type { PartState } from '../route'
import { judged, pieceVerdict, valuesOfRow } from './judge'
import { shownValue, unitOfRow } from './read'
import { fieldOf, planRows, type PlanRow } from './rows'

/** The plan as rows of cells: what is asked, then a column for each piece. */
export function planCsvRows(
  state: PartState,
  drawings: readonly (Drawing | undefined)[],
): (string | number)[][] {
  const { units } = state.part
  const plan = drawingOf(state.part).plan ?? NO_PLAN
  const rows = planRows(state)
  const limit = (row: PlanRow, value: number | undefined): string =>
    value === undefined ? '' : shownValue(row, value, units)
  const head = [
    ...['number', 'what', 'drawing', 'nominal', 'lower', 'upper', 'unit', 'instrument', 'field'],
    ...plan.pieces.map((p) => p.name),
    'out',
  ]
  const body = rows.map((row) => {
    const values = valuesOfRow(plan, row.id)
    return [
      ...[row.number, row.what, row.written],
      ...[row.nominal, row.lower, row.upper].map((v) => limit(row, v)),
      ...[unitOfRow(row.measure, units), row.instrument, fieldOf(row, drawings)],
      ...plan.pieces.map((p) => {
        const value = values.get(p.id)
        return value === undefined ? '' : shownValue(row, value, units)
      }),
      plan.pieces.filter((p) => judged(row, values.get(p.id)) === 'bad').length,
    ]
  })
  const last = [
    ...['', 'piece', '', '', '', '', '', '', ''],
    ...plan.pieces.map((p) => pieceVerdict(rows, plan, p.id)),
    plan.pieces.filter((p) => pieceVerdict(rows, plan, p.id) === 'bad').length,
  ]
  return [head, ...body, ...(plan.pieces.length > 0 ? [last] : [])]
}
