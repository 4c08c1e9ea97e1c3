import type { PartSummary } from '@lathica/core/inspect'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import { patiently, type Write } from './database/writing'
import type { Threads } from './threads'

/** Keeps what the shelf shows of parts up to date, in threads. */
export interface Summaries {
  /**
   * A part was written: what is shown of it is made anew once it has been left alone for a while, or someone looks;
   * then it is weighed.
   */
  want(id: string): void
  /** Makes at once what is due and quick; resolves when that is done, or after so long in ms. */
  settled(longest: number): Promise<void>
  /** Wants every part of which no summary was made, or that has not been weighed yet. */
  catchUp(): Promise<void>
  stop(): Promise<void>
}

export interface SummariesOptions {
  readonly write?: Write
  /** So long parts are left alone before they are summed up, and then weighed, in ms. */
  readonly patience?: number
}

const PATIENCE = 1500

/** A part that takes longer than this, in ms, is given up, with its thread. */
const LONGEST = 60_000

export function createSummaries(
  database: Knex,
  threads: Threads,
  log: Logger,
  { write = patiently, patience = PATIENCE }: SummariesOptions = {},
): Summaries {
  const due = new Set<string>()
  const timers = new Map<string, ReturnType<typeof setTimeout>>()
  const ended = new AbortController()
  let working: Promise<void> | undefined
  let quiet: ReturnType<typeof setTimeout> | undefined
  let weighing: Promise<void> = Promise.resolve()

  /** Makes the summary of a part's present revision; undefined when there is none. */
  async function make(id: string, work: 'summarise' | 'weigh'): Promise<PartSummary | undefined> {
    const row = await database('parts').where({ id }).first('document', 'revision')
    if (!row || ended.signal.aborted) return undefined
    const { document, revision } = row as { document: string; revision: number }
    try {
      const signal = AbortSignal.any([ended.signal, AbortSignal.timeout(LONGEST)])
      const summary = await threads.run(work, document, { signal })
      if (!summary || ended.signal.aborted) return undefined
      const text = JSON.stringify(summary)
      // What was saved in the meantime is summed up by itself.
      await write(() => database('parts').where({ id, revision }).update({ summary: text }))
      return summary
    } catch (error) {
      if (!ended.signal.aborted) log.warn({ id, err: error }, `could not ${work} a part`)
      return undefined
    }
  }

  async function workOff(): Promise<void> {
    // What is wanted meanwhile is come to as well.
    for (const id of due) {
      due.delete(id)
      const summary = await make(id, 'summarise').catch((error: unknown) => {
        log.error({ id, err: error }, 'no summary could be stored')
        return undefined
      })
      if (summary?.overall && summary.overall.mass === null) weighLater(id, patience)
    }
    working = undefined
  }

  function weighLater(id: string, wait: number): void {
    clearTimeout(timers.get(id))
    const timer = setTimeout(() => {
      timers.delete(id)
      weighing = weighing
        .then(async () => void (await make(id, 'weigh')))
        .catch((error: unknown) => log.error({ id, err: error }, 'no mass could be stored'))
    }, wait)
    timer.unref()
    timers.set(id, timer)
  }

  function want(id: string): void {
    if (ended.signal.aborted) return
    clearTimeout(timers.get(id))
    due.add(id)
    // Quick edits, and those of many parts, go together.
    clearTimeout(quiet)
    quiet = setTimeout(begin, patience)
    quiet.unref()
  }

  function begin(): void {
    clearTimeout(quiet)
    if (due.size > 0 && !ended.signal.aborted) working ??= workOff()
  }

  return {
    want,
    async settled(longest) {
      begin()
      if (!working) return
      let timer: ReturnType<typeof setTimeout> | undefined
      const late = new Promise<void>((resolve) => (timer = setTimeout(resolve, longest)))
      await Promise.race([working, late])
      clearTimeout(timer)
    },
    async catchUp() {
      const rows = (await database('parts')
        .whereNull('deleted_at')
        .select('id', 'summary')) as readonly { readonly id: string; readonly summary: string }[]
      for (const { id, summary } of rows) {
        if (summary.includes('"mass":null')) weighLater(id, 0)
        else if (!summary.startsWith('{')) due.add(id)
      }
      begin()
    },
    async stop() {
      ended.abort()
      clearTimeout(quiet)
      for (const timer of timers.values()) clearTimeout(timer)
      await working
      await weighing
    },
  }
}
