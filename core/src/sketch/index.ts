export * from './types'
export { describeItem, entityName, findItem, referencesOf } from './describe'
export {
  entityMap,
  isGiven,
  lineEnds,
  locator,
  measureSize,
  signedAngle,
  type Locate,
} from './measure'
