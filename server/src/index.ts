export { createApp, type AppOptions } from './app'
export { openDatabase } from './database/open'
export { createRepository, type Repository } from './repository'
export { createWeigher, type Weigher } from './weighing'
