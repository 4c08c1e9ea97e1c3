export { fitLimits, fitWords, readFitClass, type FitClass, type Limits } from './fits'
export { FIT_LETTERS } from './deviations'
export { GRADE_NAMES, GRADE_STEPS, gradeTolerance } from './grades'
export {
  GENERAL_CLASSES,
  GENERAL_WORDS,
  generalAngle,
  generalLength,
  type GeneralClass,
} from './general'
export { readThread, threadsFor, type Thread } from './threads/thread'
