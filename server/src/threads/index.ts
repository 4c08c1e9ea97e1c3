import { Worker } from 'node:worker_threads'

/** Work that is done in threads of its own, each a module beside this one. */
export type ThreadKind = 'weigh' | 'files'

/** Starts a thread; a server that is told to stop does not wait for it. */
export function startThread(kind: ThreadKind): Worker {
  const module = new URL(`./${kind}.ts`, import.meta.url).href
  const worker = new Worker(new URL('./start.mjs', import.meta.url), { workerData: { module } })
  worker.unref()
  return worker
}
