export { readSheet, writeCsv, writeSheet } from './csv'
export { writeStep } from './step'
export { writeStl } from './stl'
export {
  LARGEST_PART_FILE,
  migrate,
  readPart,
  readPartFile,
  toDocument,
  writePartFile,
  type Migrations,
} from './partFile'
