export { asksToSee, drawSheet, drawSheets } from './compose'
export type { Drawing, Page, SheetLabel } from './sheet'
export { drawingOf } from './content'
export { drawnPlaces } from './asked/drawn'
export type { DrawnPlace } from './asked/drawnPlace'
export { END_AXIS, endSpots } from './asked/drawnEnds'
export { numberedIds, numbersAnew, numbersOf, requirementsOf, type Requirement } from './numbers'
export { changesSince, isKept, nextMark } from './released'
export type { Fill, Group, Item, LineKind, Stroke, Words } from './items'
export { CHARACTER, PLAIN_SIGNS, shortened, widthOf } from './lettering'
export { DASHES, lineWidth, runsOf, signWays, type PenWay } from './lines'
export { rectangle } from './paper/frame'
export { readScale, SCALES, type Scale } from './paper/scales'
export { paperOf, spaceOf, type Paper } from './paper/sizes'
export {
  keyOf,
  NOTHING_SEEN,
  type Look,
  type Seen,
  type SeenAsk,
  type SeenFrom,
  type SeenLines,
} from './seen'
export { askedOf, saidText, type Asked } from './asked'
