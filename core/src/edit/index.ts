export { perform, type Command } from './command'
export { createHistory, edit, record, redo, undo, type History } from './history'
export { drawChain, drawLine, movePoints, setRole, type End, type NewLine } from './draw'
export { CONSTRAINT_OFFERS, constrain, fittingConstraints, type ConstraintKind } from './tie'
export {
  addReference,
  addSize,
  changeSize,
  fittingSizes,
  measureOffer,
  sameSize,
  setReference,
  type SizeOffer,
} from './size'
export { removeItems } from './remove'
export {
  addRevolve,
  addSketch,
  removeStep,
  removeValue,
  renamePart,
  setAside,
  setMaterial,
  setValue,
} from './partEdits'
