export { decodeExchangeText, encodeExchangeText, realText } from './text'
export { withValidation, type Bulk } from './validation'
export { saidOf, type KnownBy } from './match'
export { readFileSaid, type FileSaid, type SolidSaid } from './solids'
