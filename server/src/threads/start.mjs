// A thread starts from plain JavaScript; the rest is TypeScript as everywhere.
import { workerData } from 'node:worker_threads'
import { register } from 'tsx/esm/api'

register()
await import(workerData.module)
