export * from './types'
export { chainOf, holePlaces, type ChainLink, type Ended } from './chain'
export { entityName, planeWords, type PlaneWords } from './words'
export {
  endsOf,
  entityMap,
  isGiven,
  lineEnds,
  lineOf,
  linesOf,
  locator,
  offLine,
  pieceOf,
  pointsOf,
  roundOf,
  signedAngle,
  withPoints,
  type Entities,
  type Locate,
} from './measure'
