export * from './types'
export { endCircles, type EndCircle } from './ask/endView'
export { profileOf, type Profile } from './drawn/profile'
export { regionAround, type Area, type Areas } from './drawn/areas'
export { solidProperties, type SolidProperties } from './ask/properties'
export {
  aboveAxis,
  diagonalOf,
  asCopy,
  combine,
  extentOf,
  mirroredSection,
  movedAlong,
  sectionArea,
  sectionAt,
  type Effect,
} from './work/combine'
export {
  offsetSection,
  shellOf,
  type LayerCorners,
  type LayerSide,
  type ShellSpec,
} from './work/layers'
export { guideOf, guidePlace, type EdgeGuide } from './ask/guides'
export { wallOf, type WallCorners, type WallEnds, type WallSpec } from './work/wall'
export { polesOf, type Pole } from './ask/poles'
export { greatestRadius, materialAlong } from './ask/probe'
export {
  cornersCalled,
  cornersOf,
  finishCorners,
  type ChamferSize,
  type Corner,
  type CornerWork,
  type Finished,
} from './work/corners'
export { areasFit, unsoundness } from './ask/soundness'
