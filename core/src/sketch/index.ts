export * from './types'
export { chainOf, type ChainLink } from './chain'
export {
  describeItem,
  entityName,
  findItem,
  referencesOf,
  signOf,
  withIds,
  type Item,
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
