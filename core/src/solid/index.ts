export {
  LARGEST_PACKED,
  meshInPart,
  MOST_TRIANGLES,
  packMesh,
  packText,
  unpackMesh,
  unpackText,
  type BareMesh,
  type PlacedMesh,
} from './packed'
export {
  boredIn,
  closedFigures,
  isUpright,
  landOf,
  sidesOf,
  untouchedAngle,
  type Bored,
  type BoredAside,
  type BoredOutline,
  type BoredRound,
  type Land,
  type Side,
} from './closed'
export type { LiftedProperties } from './lifted'
export * from './plan'
export { hangingTogether, stretchesInOrder, type StretchOrder } from './stretches'
export { planKey, planKeys } from './content'
export {
  NOTHING_FOUND,
  foundFor,
  knownFor,
  withAnswer,
  withFound,
  type Findings,
  type Found,
} from './found'
export {
  askKey,
  plansOf,
  toldFor,
  type ShapeKind,
  type ApartAsk,
  type ShapeAsk,
  type SolidAsk,
  type SolidShape,
  type SolidSpot,
  type SolidTold,
  type SolidWay,
  type WallAsk,
  type SolidsTold,
} from './told'
export * from './tools'
export { byAngle, byLength, edgesAgain, repeatedOp, type Again, type Moves } from './again'
export { mirroredOp, type MirrorPlane } from './mirrored'
export { anglesThrough, placeAlong, planeCalled, type SolidPlane } from './planes'
export {
  endMarkAt,
  endMarks,
  ringPiece,
  type EndMark,
  type EndMarks,
  type EndRing,
} from './endMarks'
