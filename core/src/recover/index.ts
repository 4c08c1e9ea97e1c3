export { axisOf } from './axis'
export { outlineOf as recoveredOutline, type RecoveredOutline } from './outline'
export { recoverPart, recoveredWords, solidsToBring, type RecoveredPart } from './part'
export type { ForeignFace, ForeignSolid, Line } from './types'
