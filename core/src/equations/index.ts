export {
  advance,
  angleEquation,
  arcLength,
  composed,
  coordinate,
  gradientFor,
  offset,
  separation,
  sumEquation,
  weightedEquation,
  type Equation,
  type Measure,
} from './equations'
export {
  apart,
  besides,
  levelOf,
  middle,
  onLine,
  roundPoints,
  straightOf,
  type Demand,
  type Setting,
} from './relations'
export { besideEnd, offFree, onFreeCurve, type ReadCurve } from './freeCurve'
export { createLinearGraph, type Circle } from './linearGraph'
export { createTies, reduceDemands, type Reducible, type Ties } from './ties'
