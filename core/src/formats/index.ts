export { writeStl } from './stl'
export {
  LARGEST_PART_FILE,
  migrate,
  readPart,
  readPartFile,
  writePartFile,
  type Migrations,
} from './partFile'
