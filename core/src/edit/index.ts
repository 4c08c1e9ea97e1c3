export { perform, type Command } from './command'
export { createHistory, edit, record, redo, undo, type History } from './history'
export { drawDraft, type Draft, type DraftSize } from './draft'
export type { End, Link } from './ends'
export { drawChain, drawPiece, movePoints, setRole, type NewPiece } from './draw'
export { constrain, fittingConstraints } from './tie'
export { addReference, addSize, changeSize, placeLabels, scaleAll, setReference } from './size'
export { fittingSizes, measureOffer, sameSize, type SizeOffer } from './offers'
export { removeItems } from './remove'
export { bringMeshes, bringSolids, type BroughtMesh, type BroughtSolid } from './bring'
export {
  arcAbout,
  arcAlong,
  arcThrough,
  centredRectangle,
  circle,
  polygon,
  rectangle,
  slot,
  steppedShaft,
  type ShaftStep,
} from './shapes'
export {
  copyItems,
  excerpt,
  grow,
  moved,
  moveItems,
  pasteDraft,
  reflect,
  shift,
  turn,
  unbound,
  type Motion,
} from './copies'
export { mirrorItems } from './mirror'
export { MOST_COPIES, repeatItems, setRepeatCount, type RepeatPlan } from './repeat'
export { cutAtAxis, extend, split, trim, trimmedStretch } from './modify'
export { chamferCorner, filletCorner, isCorner } from './corner'
export { closeGap, dropZeroLength, fittingValue, mergeDoubled } from './heal'
export { offsetChain } from './offset'
export { missingItems, proposalKey, withProposals, type Proposal } from './missing'
export {
  addSketch,
  changeMaterial,
  removeValue,
  renamePart,
  setMaterial,
  setValue,
} from './partEdits'
export { MOST_CHECKS, addChecks, changeCheck, moveCheck, removeCheck } from './checkEdits'
export {
  FULL_WALL,
  addRevolve,
  addStep,
  changeBody,
  changeStep,
  duplicateStep,
  freeBody,
  intoNewBody,
  intoOtherBody,
  moveStep,
  nextStepId,
  removeBody,
  removeStep,
  revolveOf,
  setAside,
} from './routeEdits'
export { bodyTouched, combineOf, hostDiameter, offeredGroove, offeredStep } from './newSteps'
export {
  endExtrudeOf,
  extrudeOf,
  keySizes,
  offeredCrossHole,
  offeredHoleAt,
  offeredHoles,
  sketchHoles,
  offeredSlot,
  offeredSlotAcross,
  offeredSweep,
} from './newSolidSteps'
