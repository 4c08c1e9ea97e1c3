export { decodeExchangeText, encodeExchangeText } from './text'
export { withValidation } from './validation'
export { saidOf, type KnownBy } from './match'
export { readFileSaid, type FileSaid } from './solids'
