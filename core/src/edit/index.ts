export {
  addSheet,
  changeBlock,
  changeEnlarged,
  changeSheet,
  changeTitle,
  drawSize,
  enlarge,
  measureDrawn,
  moveSheetLabel,
  putOnLabels,
  removeSheet,
  takeOffLabel,
  tidySheet,
  type SheetChange,
} from './sheetEdits'
export {
  addBlockCell,
  addBlockLine,
  changeBlockCell,
  changeBlockLine,
  removeBlockCell,
  removeBlockLine,
  type BlockLines,
} from './blockEdits'
export { release, releaseLabel } from './releaseEdits'
export {
  addPieces,
  chooseInstrument,
  measure,
  measureBlock,
  MOST_PIECES,
  numberAnew,
  removePiece,
  renamePiece,
  type Measuring,
} from './planEdits'
export { perform, refuseLocked, type Command } from './command'
export { createHistory, edit, record, redo, undo, type History } from './history'
export { drawDraft, type Draft, type DraftSize } from './sketch/draft'
export type { End, Link } from './sketch/ends'
export { drawChain, drawPiece, movePoints, setRole, type NewPiece } from './sketch/draw'
export {
  flattenPoints,
  nudgePoints,
  placePoints,
  type Onto,
  type TypedPlace,
} from './sketch/places'
export { constrain, fittingConstraints } from './sketch/tie'
export {
  addReference,
  addSize,
  changeSize,
  placeLabels,
  scaleAll,
  setReference,
} from './sketch/size'
export { fittingSizes, measureOffer, sameSize, type SizeOffer } from './sketch/offers'
export { removeItems } from './sketch/remove'
export { bringMeshes, bringSolids, type BroughtMesh, type BroughtSolid } from './route/bring'
export {
  arcAbout,
  centredRectangle,
  circle,
  polygon,
  rectangle,
  slot,
  steppedShaft,
  type ShaftStep,
} from './sketch/shapes'
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
} from './sketch/copies'
export { mirrorItems } from './sketch/mirror'
export { MOST_COPIES, repeatItems, setRepeatCount, type RepeatPlan } from './sketch/repeat'
export { cutAtAxis, extend, split, trim, trimmedStretch } from './sketch/modify'
export { chamferCorner, filletCorner, isCorner } from './sketch/corner'
export { closeGap, dropZeroLength, fittingValue, mergeDoubled } from './sketch/heal'
export { drawOutline } from './sketch/outline'
export { besideFits, offsetChain, type Beside, type CurveBeside } from './sketch/offset'
export { bridgeEnds, openEnds, type Bridge, type BridgeShape } from './sketch/curves/bridge'
export { giveDirection, joinCurves, joinedAt } from './sketch/curves/directions'
export { drawCurve, type NewCurve } from './sketch/curves/draw'
export { curveEnd, setCurveEnd, type CurveEnd } from './sketch/curves/ends'
export {
  putPointIn,
  refitted,
  setPointCount,
  smoothCurve,
  smoothed,
  takePointOut,
  turnWay,
} from './sketch/curves/shape'
export { missingItems, proposalKey, withProposals, type Proposal } from './sketch/missing'
export {
  changeMaterial,
  removeValue,
  renamePart,
  setGeneral,
  setGeneralForm,
  setMaterial,
  setValue,
} from './partEdits'
export { MOST_CHECKS, addChecks, changeCheck, moveCheck, removeCheck } from './sheet/checkEdits'
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
} from './route/routeEdits'
export {
  bodyTouched,
  combineOf,
  hostDiameter,
  offeredGroove,
  offeredRidges,
  offeredStep,
} from './route/newSteps'
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
} from './route/newSolidSteps'
export { addSketch, changeSketch, isSketchShown, moveSketch, removeSketch } from './profileEdits'
export {
  changePicture,
  layPictureOnAxis,
  removePicture,
  scalePicture,
  setPicture,
} from './pictureEdits'
