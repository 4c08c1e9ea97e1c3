import type { Worker } from 'node:worker_threads'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import type { PartSummary } from './summary'
import { startThread } from './threads'

/** What the thread is asked, and what it answers. */
export interface WeighQuestion {
  readonly id: string
  readonly document: string
}
export interface WeighAnswer {
  readonly id: string
  /** Undefined when the part cannot be read. */
  readonly summary: PartSummary | undefined
}

/** Weighs parts that take the solid kernel, one after another, in a thread of its own. */
export interface Weigher {
  /** A part was saved; it is weighed once it has been left alone for a while. */
  want(id: string): void
  /** Wants every part that has not been weighed yet. */
  catchUp(): Promise<void>
  stop(): Promise<void>
}

/** So long a part is left alone before it is weighed, in ms. */
const PATIENCE = 1500

/** A part that takes longer than this, in ms, is given up, with its thread. */
const LONGEST = 60_000

/** A thread with nothing to do is let go after so long, in ms, with the memory of the kernel. */
const IDLE = 30_000

export function createWeigher(database: Knex, log: Logger, patience = PATIENCE): Weigher {
  const due = new Map<string, ReturnType<typeof setTimeout>>()
  let thread: Worker | undefined
  let idle: ReturnType<typeof setTimeout> | undefined
  let last: Promise<unknown> = Promise.resolve()
  let stopped = false

  const endThread = async (): Promise<void> => {
    const ending = thread
    thread = undefined
    await ending?.terminate()
  }

  function threadAtHand(): Worker {
    clearTimeout(idle)
    thread ??= startThread('weigh')
    return thread
  }

  function ask(question: WeighQuestion): Promise<WeighAnswer> {
    const worker = threadAtHand()
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => fail(new Error('it took too long')), LONGEST)
      const done = (): void => {
        clearTimeout(timer)
        worker.off('message', answer)
        worker.off('error', fail)
      }
      const answer = (value: WeighAnswer): void => {
        done()
        resolve(value)
      }
      const fail = (error: Error): void => {
        done()
        reject(error)
      }
      worker.on('message', answer)
      worker.on('error', fail)
      worker.postMessage(question)
    })
  }

  async function weigh(id: string): Promise<void> {
    const row = await database('parts').where({ id }).first('document', 'revision')
    if (!row || stopped) return
    const { document, revision } = row as { document: string; revision: number }
    try {
      const { summary } = await ask({ id, document })
      // What was saved in the meantime is weighed by itself.
      if (summary && !stopped)
        await database('parts')
          .where({ id, revision })
          .update({ summary: JSON.stringify(summary) })
    } catch (error) {
      log.warn({ id, err: error }, 'a part could not be weighed')
      await endThread()
    }
    clearTimeout(idle)
    idle = setTimeout(() => void endThread(), IDLE)
    idle.unref()
  }

  function want(id: string, wait = patience): void {
    clearTimeout(due.get(id))
    const timer = setTimeout(() => {
      due.delete(id)
      last = last.then(() => weigh(id)).catch((error: unknown) => log.error({ id, err: error }))
    }, wait)
    timer.unref()
    due.set(id, timer)
  }

  return {
    want,
    async catchUp() {
      const rows = await database('parts')
        .whereNull('deleted_at')
        .where('summary', 'like', '%"mass":null%')
        .select('id')
      for (const { id } of rows as { id: string }[]) want(id, 0)
    },
    async stop() {
      stopped = true
      for (const timer of due.values()) clearTimeout(timer)
      clearTimeout(idle)
      await endThread()
    },
  }
}
