export {
  LARGEST_PACKED,
  meshInPart,
  packMesh,
  packText,
  unpackMesh,
  unpackText,
  type BareMesh,
  type PlacedMesh,
} from './packed'
export * from './plan'
export { facesMeeting, meetingKey } from './edgeNames'
export { planKey, planKeys } from './content'
export { foundCount, foundFor, noteFound, type Found, type LiftedProperties } from './found'
export * from './tools'
export {
  endMarkAt,
  endMarks,
  ringPiece,
  type EndMark,
  type EndMarks,
  type EndRing,
} from './endMarks'
