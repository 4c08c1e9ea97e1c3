export * from './vector'
export * from './space'
export * from './piece'
export { INTEGRAL_NAMES, integrate, type Integrals } from './integrals'
export { areApart, meetOnlyAtEnd, meetingsOf, type Meeting } from './meetings'
export * from './change'
export { windingAround, type Turned } from './winding'
export { apart, fromPoint, type Apart } from './apart'
export {
  courseUpTo,
  coursesOf,
  monotoneIn,
  otherOf,
  type Coordinate,
  type Course,
} from './monotone'
