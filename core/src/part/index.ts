export * from './types'
export { createPart, type NewPart } from './create'
export { STOCK_MATERIALS } from './materials'
export { measureOf, sizeProblem, valuesOf, type PartValues } from './values'
