// A thread starts from plain JavaScript; the rest is TypeScript as everywhere.
import { register } from 'tsx/esm/api'

register()
await import('./weighThread.ts')
