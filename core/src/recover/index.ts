export { axisOf } from './axis'
export { outlineOf as recoveredOutline, type RecoveredOutline } from './outline'
export { recoverPart, recoveredWords, type RecoveredPart } from './part'
export type { ForeignFace, ForeignSolid, Line } from './types'
