export * from './plan'
export { planKey, planKeys } from './content'
export { foundCount, foundFor, noteFound, type Found, type LiftedProperties } from './found'
export * from './tools'
