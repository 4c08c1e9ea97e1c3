export { addNote, changeNote, fitLand, offeredNote, removeNote } from './commands'
export { landOf, type Land } from './faces'
export {
  bevelThread,
  cutUndercut,
  landEnds,
  threadChamferStep,
  undercutStep,
  type LandEnd,
} from './threadWork'
export { NOTE_KINDS } from './kinds'
export { DATUM_LETTERS } from './kinds/datum'
export { characteristicWords, datumsOf } from './kinds/frame'
export { mateSize } from './kinds/mate'
export { SURFACE_VALUES } from './kinds/surface'
export { INSIDE_EDGES, OUTSIDE_EDGES, readEdge, type EdgeState } from './kinds/edge'
export { threadDiameter, threadReach } from './kinds/thread'
export {
  asksSomething,
  faceEdges,
  mayBeOfAll,
  noteCells,
  noteStates,
  notesOf,
  requirementOf,
  type NoteState,
} from './states'
export type { Cell, NoteRequirement } from './kind'
export { diameterSizeOf } from './sizes'
export { threadCuts, type CutThread } from './threadCuts'
export { noteWhere } from './where'
