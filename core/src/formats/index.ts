export { readOutlineSvg, type ReadOutline } from './outlineSvg'
export { LARGEST_MARK_FILE, readMark, type ReadMark } from './markSvg'
export { writeProfileSvg } from './profileSvg'
export { readSheet, writeCsv, writeSheet } from './csv'
export { drawingGroups, writeDrawingSvg } from './drawingSvg'
export { lightOf } from './colours'
export { EXPORTERS, type Exporter, type ExportSettings } from './exporters'
export {
  bodyPlans,
  plansCalled,
  meshedBodies,
  needsKernel,
  threadsToCut,
  type BodyPlan,
  type BuiltGeometry,
  type MeshedBody,
} from './solids'
export { touchWords, touchesOf } from './touching'
export { writeStep } from './step'
export { writeStl } from './stl'
export { LARGEST_MESH_FILE, readMeshes } from './readMesh'
export type { ForeignMesh } from './foreignMesh'
export {
  LARGEST_PART_FILE,
  readPart,
  storedPart,
  readPartFile,
  toDocument,
  writePartFile,
} from './partFile'
export { migrate, type Migrations } from './migrations'
export {
  decodeExchangeText,
  encodeExchangeText,
  readFileSaid,
  saidOf,
  withValidation,
  type FileSaid,
  type KnownBy,
} from './exchange'
