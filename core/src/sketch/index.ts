export * from './types'
export { chainOf, holePlaces, type ChainLink, type Ended } from './chain'
export {
  describeItem,
  entityName,
  findItem,
  planeWords,
  referencesOf,
  signOf,
  withIds,
  type Item,
  type PlaneWords,
} from './describe'
export {
  endsOf,
  entityMap,
  isGiven,
  lineEnds,
  lineOf,
  linesOf,
  locator,
  measureSize,
  offLine,
  pieceOf,
  pointsOf,
  roundOf,
  signedAngle,
  type Entities,
  type Locate,
} from './measure'
