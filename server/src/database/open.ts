import knex, { type Knex } from 'knex'
import { LibsqlClient } from './client'
import { keepCopy } from './copies'
import { failureOf, foreignDatabase } from './failure'
import { migrationSource } from './migrations'

/** A connection to a database as it is; nothing is made of it. */
export const connectTo = (filename: string): Knex =>
  knex({
    client: LibsqlClient,
    connection: { filename },
    useNullAsDefault: true,
    // SQLite writes one at a time; one connection also keeps an in-memory database alive.
    pool: { min: 1, max: 1 },
  })

/** How long it is waited for another program's lock at the start, in ms; the driver waits without answering anyone. */
const FIRST_WAIT = 5000
/** And later on, when there are others to answer: `patiently` does the rest. */
const LATER_WAIT = 20

/**
 * Opens the database and brings it up to date; a copy is kept before that.
 * @param filename path of the SQLite file; `:memory:` for one that is gone when closed
 * @throws DatabaseFailure when it cannot be used, with what mends it
 */
export async function openDatabase(filename: string): Promise<Knex> {
  const database = connectTo(filename)
  try {
    await database.raw(`PRAGMA busy_timeout = ${FIRST_WAIT}`)
    const tables = await tablesOf(database)
    if (tables.length > 0 && !tables.includes('knex_migrations')) throw foreignDatabase(filename)
    await database.raw('PRAGMA journal_mode = WAL')
    await database.raw('PRAGMA foreign_keys = ON')
    const [done, due] = (await database.migrate.list({ migrationSource })) as [unknown[], unknown[]]
    // What was left in the middle is not copied: it is told, and the copy from before stays the newest.
    if (filename !== ':memory:' && done.length > 0 && due.length > 0 && !(await isLeft(database))) {
      await keepCopy(database, filename, 'migration', stampOf(new Date()))
    }
    await database.migrate.latest({ migrationSource })
    await database.raw(`PRAGMA busy_timeout = ${LATER_WAIT}`)
  } catch (error) {
    await database.destroy()
    throw failureOf(error, filename)
  }
  return database
}

/** Whether someone who brought the schema up to date never ended. */
async function isLeft(database: Knex): Promise<boolean> {
  const lock = await database('knex_migrations_lock').first<{ is_locked: number } | undefined>()
  return lock?.is_locked === 1
}

async function tablesOf(database: Knex): Promise<string[]> {
  const rows = await database('sqlite_master')
    .where({ type: 'table' })
    .whereNot('name', 'like', 'sqlite_%')
    .select<{ name: string }[]>('name')
  return rows.map((r) => r.name)
}

/** A moment as a copy is called by it: no sign that a file system does not take. */
const stampOf = (at: Date): string => at.toISOString().replace(/[:.]/g, '-')
