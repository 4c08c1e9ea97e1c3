export { decodeExchangeText, encodeExchangeText } from './text'
export { saidOf, type KnownBy } from './match'
export { readFileSaid, type FileSaid, type SolidSaid } from './solids'
