export * from './vector'
export * from './space'
export * from './piece'
export { breaksOf, controlOf, cubic, isSamePiece, type Cubic, type CubicPiece } from './cubic'
export {
  bendRead,
  endRead,
  lengthRead,
  nearestRead,
  placeRead,
  radiusRead,
  type Reading,
} from './readings'
export { byPoints } from './sway'
export { gauss } from './gauss'
export {
  PARALLEL_TOLERANCE,
  parallelRun,
  parallelsTo,
  turnsBeside,
  type Parallel,
} from './parallels'
export { INTEGRAL_NAMES, areaBeside, integrate, type Integrals } from './integrals'
export type { Meeting } from './lying'
export { areApart, meetOnlyAtEnd, meetingsOf } from './meetings'
export * from './change'
export { windingAround, windingsBeside, type Turned } from './winding'
export { apart, fromPoint, type Apart } from './apart'
export {
  courseUpTo,
  coursesOf,
  monotoneIn,
  otherOf,
  type Coordinate,
  type Course,
} from './monotone'
export {
  asFrame,
  asThrough,
  cubicsOf,
  evenSpline,
  spanCount,
  splinePieces,
  withPlace,
  withoutPlace,
  type PutIn,
  type Spline,
} from './spline'
export { arcAlong, arcThrough, type ArcBetween } from './arcs'
export { joinedCubics, type Joined } from './joined'
export { fittedSpline, fittedTo, smoothedSpline, type Fitted } from './fit'
