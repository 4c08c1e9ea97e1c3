import { statSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import { keepCopy } from './copies'
import { isHeld, vanishedDatabase } from './failure'

/** Does a write as a database takes it. */
export type Write = <T>(write: () => PromiseLike<T>) => Promise<T>

/** How long a write is tried again while another program holds the database, in ms. */
const LONGEST = 5000
const FIRST_PAUSE = 20
const LONGEST_PAUSE = 250

/** Tries a write again while another program holds the database; between the tries others are answered. */
export const patiently: Write = async (write) => {
  const until = Date.now() + LONGEST
  for (let pause = FIRST_PAUSE; ; pause = Math.min(LONGEST_PAUSE, 2 * pause)) {
    try {
      return await write()
    } catch (error) {
      if (!isHeld(error) || Date.now() > until) throw error
      await wait(pause)
    }
  }
}

/**
 * Writes to an open database patiently, and only while its file is where it was: one that was deleted takes
 * whatever is written, and no one finds it again. What it held is kept once, for it is at hand still.
 * @param filename its path
 * @returns a write that throws a DatabaseFailure when the file is gone
 */
export function watchedWrite(database: Knex, filename: string): Write {
  const opened = statSync(filename)
  let kept: Promise<string | undefined> | undefined
  return async (write) => {
    const now = statSync(filename, { throwIfNoEntry: false })
    if (now?.ino !== opened.ino || now.dev !== opened.dev) {
      kept ??= keepCopy(database, filename, 'vanished', String(Date.now())).catch(() => undefined)
      throw vanishedDatabase(filename, await kept)
    }
    return patiently(write)
  }
}
