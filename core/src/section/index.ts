export * from './types'
export { profileOf, type Profile } from './profile'
export { solidProperties, type SolidProperties } from './properties'
