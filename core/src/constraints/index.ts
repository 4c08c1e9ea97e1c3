export { byNature, readConstraint, readSize, sizedArc } from './demands'
export {
  constraintKind,
  describeItem,
  findItem,
  measureOf,
  measureSize,
  referencesOf,
  renamed,
  signOf,
  sizeKind,
  sizeWord,
  type Item,
} from './items'
export type { ConstraintKind, NewConstraint, Picks, SizeKind } from './kind'
export { CONSTRAINT_KINDS } from './kinds'
export { symmetricEntities } from './kinds/symmetric'
export { isPoint } from './picks'
export { SIZE_KINDS } from './sizes'
