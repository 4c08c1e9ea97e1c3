export { dependenceOf, stepsFrom, type Dependence } from './depends'
export { DEFECT_CODE, evaluate } from './evaluate'
export { sketchStates } from './sketches'
export { callsOf, threadArc, threadsOf } from './threads'
export { pencilled, takenBy, type Pencilled, type Taken } from './pencilled'
export { stepMarks, type StepMark } from './marks'
export { disagreementProblem, faultProblem, nameItems } from './problems'
export { endMarksBefore, lostCorners, settle, standingBefore, withDragged } from './settle'
export type {
  BodyState,
  CallOut,
  PartState,
  SizeAt,
  StepGrip,
  SketchState,
  StepState,
  ThreadCircle,
} from './state'
export { GROOVE_FIELDS, OPTIONAL_SIZES, measureOfSize } from './kinds/groove/forms'
export { offeredSizes } from './kinds/groove/offers'
export { hostOf, type Host } from './kinds/groove/run'
export { angleText, lengthText, proportion, twoDigits } from './proportion'
export { STEP_KINDS, stepRules, type OfferedKind } from './kinds'
export type { Repeater } from './kinds/kind'
export { cornerWords, faceWords, poleWords } from './words'
export { solidEdgeWords, solidFaceWords } from './solidWords'
