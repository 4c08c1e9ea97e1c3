export * from './types'
export { endCircles, type EndCircle } from './endView'
export { profileOf, type Profile } from './profile'
export { solidProperties, type SolidProperties } from './properties'
