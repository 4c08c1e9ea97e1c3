export { evaluateFormula, evaluateTolerance, isReservedName, type FormulaContext } from './evaluate'
export { LONGEST_FORMULA, namesIn, parseFormula, type Formula } from './parse'
export { evaluateTable, type Definition, type ValueTable } from './table'
export { splitTolerance, type Tolerance, type ToleranceText } from './tolerance'
