export { fitLimits, fitWords, readFitClass, type FitClass, type Limits } from './fits'
export { FIT_LETTERS } from './deviations'
export { GRADE_NAMES, GRADE_STEPS, gradeTolerance } from './grades'
export {
  FORM_CLASSES,
  GENERAL_CLASSES,
  GENERAL_WORDS,
  generalAngle,
  generalBevel,
  generalForm,
  generalLength,
  generalWords,
  type FormClass,
  type GeneralClass,
} from './general'
export {
  CENTRE_CONE,
  CENTRE_GUARD,
  CENTRE_PILOTS,
  CENTRE_TYPES,
  centreHole,
  centreWords,
  type CentreHole,
  type CentreType,
} from './centres'
export { KNURLS, KNURL_FORMS, KNURL_PITCHES, type KnurlForm } from './knurls'
export { threadLimits, type Between, type ThreadLimits } from './threads/limits'
export { UNDERCUT_ANGLE, undercutFor, type Undercut } from './threads/undercut'
export { readThread, threadsFor, type Thread } from './threads/thread'
