export * from './vector'
export * from './piece'
export { INTEGRAL_NAMES, integrate, type Integrals } from './integrals'
export { meetingsOf, type Meeting } from './meetings'
