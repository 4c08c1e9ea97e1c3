import { fileURLToPath } from 'node:url'
import type { PartSummary } from '@lathica/core/inspect'
import type { MessagePort } from 'node:worker_threads'
import PQueue from 'p-queue'
import { Piscina } from 'piscina'
import type { AcceptTask, Accepted } from './accept'
import type { FilesTask, FilesAnswer } from './files'
import type { KeepTask } from './keep'

/** Work that is done in threads, so that whoever asks something else is answered meanwhile. */
export interface Works {
  /** Checks a document that came in, and makes of it what is stored. */
  readonly accept: { readonly task: AcceptTask; readonly gives: Accepted }
  /** The same for large ones: what they leave in memory goes with their thread. */
  readonly acceptLarge: Works['accept']
  /** What the shelf shows of a part, without the solid kernel; undefined when it cannot be read. */
  readonly summarise: { readonly task: string; readonly gives: PartSummary | undefined }
  /** The same, with the mass of what takes the solid kernel. */
  readonly weigh: { readonly task: string; readonly gives: PartSummary | undefined }
  /** Writes parts as files, or reads a file. */
  readonly files: { readonly task: FilesTask; readonly gives: FilesAnswer }
  /** Keeps a copy of the database. */
  readonly keep: { readonly task: KeepTask; readonly gives: string | undefined }
}
export type Work = keyof Works

/** Where work that was begun is ended, and its thread with it. */
export interface RunOptions {
  readonly signal?: AbortSignal
  /** What is handed over instead of copied. */
  readonly transfer?: readonly (ArrayBuffer | MessagePort)[]
}

export interface Threads {
  /** @throws what the work throws; an AbortError when it was ended */
  run<W extends Work>(
    work: W,
    task: Works[W]['task'],
    options?: RunOptions,
  ): Promise<Works[W]['gives']>
  stop(): Promise<void>
}

/** A thread with nothing to do is let go after so long, in ms, with the memory it holds. */
const IDLE = 30_000

/** How much a thread may hold beside the solid kernel, in MB, before it is ended. */
const MOST_MEMORY = 1024

/**
 * The thread that accepts parts is there from the start, so that the first one saved does not wait for it; others
 * begin when there is work for them. What is quick never waits behind what is slow.
 */
export function createThreads(): Threads {
  const all: Piscina[] = []
  const lineFor = (maxThreads: number, first?: string): Line => {
    const pool = new Piscina({
      filename: fileURLToPath(new URL('./start.mjs', import.meta.url)),
      ...{ minThreads: first === undefined ? 0 : 1, maxThreads, idleTimeout: IDLE },
      workerData: { first },
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
      // What a thread waits for by blocking cannot be ended.
      atomics: 'disabled',
    })
    // A thread that broke tells it to whoever waits for its work.
    pool.on('error', () => undefined)
    all.push(pool)
    // The pool's own line stands still once a thread was ended that it waited for.
    return { pool, line: new PQueue({ concurrency: maxThreads }) }
  }
  const aside = lineFor(1)
  const lines: Readonly<Record<Work, Line>> = {
    accept: lineFor(2, './accept.ts'),
    acceptLarge: lineFor(1),
    summarise: aside,
    keep: aside,
    weigh: lineFor(1),
    files: lineFor(1),
  }
  return {
    run(work, task, { signal, transfer = [] } = {}) {
      const { pool, line } = lines[work]
      const ending = signal ? { signal } : {}
      const begin = (): Promise<Works[typeof work]['gives']> =>
        pool.run(task, { name: work, transferList: [...transfer], ...ending })
      return line.add(begin, ending) as Promise<Works[typeof work]['gives']>
    },
    async stop() {
      await Promise.all(all.map((pool) => pool.destroy()))
    },
  }
}

/** Threads of a sort, and the line before them. */
interface Line {
  readonly pool: Piscina
  readonly line: PQueue
}
