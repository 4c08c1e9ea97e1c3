import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import type { Knex } from 'knex'

/** So many copies of a sort are kept. */
const KEPT = 7

/** The folder of a database's copies, beside it. */
export const folderOfCopies = (filename: string): string =>
  join(dirname(filename), `${basename(filename)}.copies`)

/** Copies kept before the database was brought up to date, once a day, and when its file had vanished. */
export type CopyKind = 'migration' | 'day' | 'vanished'

/**
 * Keeps a copy of a database beside it, whole and checked, and lets the oldest of its sort go. A copy that was not
 * finished has another name, so that none is taken for whole that is not.
 * @returns its path; undefined where that copy is there already
 * @throws when it cannot be written, or does not hold what it should
 */
export async function keepCopy(
  database: Knex,
  filename: string,
  kind: CopyKind,
  label: string,
): Promise<string | undefined> {
  const folder = folderOfCopies(filename)
  const path = join(folder, `${kind}-${label}.sqlite`)
  if (existsSync(path)) return undefined
  mkdirSync(folder, { recursive: true })
  const unfinished = `${path}.part`
  rmSync(unfinished, { force: true })
  await database.raw('VACUUM INTO ?', [unfinished])
  await database.raw('ATTACH DATABASE ? AS kept', [unfinished])
  try {
    const rows = (await database.raw('PRAGMA kept.integrity_check')) as readonly unknown[]
    if (!JSON.stringify(rows).includes('"ok"'))
      throw new Error(`the copy ${unfinished} is not sound`)
  } finally {
    await database.raw('DETACH DATABASE kept')
  }
  renameSync(unfinished, path)
  const all = readdirSync(folder)
    .filter((name) => name.startsWith(`${kind}-`) && name.endsWith('.sqlite'))
    .sort()
  for (const old of all.slice(0, -KEPT)) rmSync(join(folder, old))
  return path
}

/** A day as copies are called by it. */
export const dayOf = (at: Date): string => at.toISOString().slice(0, 10)
