export { evaluate } from './evaluate'
export { disagreementProblem, faultProblem, nameItems } from './problems'
export { settle, withDragged } from './sketches'
export type { BodyState, PartState, SketchState, StepState } from './state'
