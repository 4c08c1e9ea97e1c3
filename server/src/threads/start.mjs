// Threads start from plain JavaScript; the rest is TypeScript as everywhere. Each work is a module beside this one.
import { workerData } from 'piscina'
import { register } from 'tsx/esm/api'

register()
// What is wanted at once is loaded before it is asked for.
if (workerData.first) await import(workerData.first)

export const accept = async (task) => (await import('./accept.ts')).accept(task)
export const acceptLarge = (task) => accept(task)
export const summarise = async (task) => (await import('./summarise.ts')).summary(task)
export const weigh = async (task) => (await import('./weigh.ts')).weigh(task)
export const files = async (task) => (await import('./files.ts')).files(task)
export const keep = async (task) => (await import('./keep.ts')).keep(task)
