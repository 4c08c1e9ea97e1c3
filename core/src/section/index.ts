export * from './types'
export { endCircles, type EndCircle } from './endView'
export { profileOf, type Profile } from './profile'
export { regionAround, type Area, type Areas } from './areas'
export { solidProperties, type SolidProperties } from './properties'
export {
  aboveAxis,
  diagonalOf,
  asCopy,
  combine,
  extentOf,
  mirroredSection,
  movedAlong,
  sectionArea,
  type Effect,
} from './combine'
export { offsetSection, shellOf, type LayerCorners, type LayerSide, type ShellSpec } from './layers'
export { guideOf, guidePlace, type EdgeGuide } from './guides'
export { wallOf, type WallCorners, type WallEnds, type WallSpec } from './wall'
export { polesOf, type Pole } from './poles'
export { greatestRadius, materialAlong } from './probe'
export {
  cornersCalled,
  cornersOf,
  finishCorners,
  type ChamferSize,
  type Corner,
  type CornerWork,
  type Finished,
} from './corners'
export { areasFit, unsoundness } from './soundness'
