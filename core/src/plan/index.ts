/** The inspection plan: what is measured on every piece that was made, and how it stands. */
export { fieldOf, planRows, type PlanRow } from './rows'
export {
  hasLimits,
  judged,
  pieceVerdict,
  rowFigures,
  standing,
  valuesOfRow,
  type RowFigures,
  type Verdict,
} from './judge'
export { readBlock, readMeasured, scaleOf, shownValue, unitOfRow, type Pasted } from './read'
export { planCsvRows } from './table'
export { planReport } from './report'
