import knex, { type Knex } from 'knex'
import { LibsqlClient } from './client'
import { migrationSource } from './migrations'

/**
 * Opens the database and brings it up to date.
 * @param filename path of the SQLite file; `:memory:` for one that is gone when closed
 */
export async function openDatabase(filename: string): Promise<Knex> {
  const database = knex({
    client: LibsqlClient,
    connection: { filename },
    useNullAsDefault: true,
    // SQLite writes one at a time; one connection also keeps an in-memory database alive.
    pool: { min: 1, max: 1 },
  })
  await database.raw('PRAGMA journal_mode = WAL')
  await database.raw('PRAGMA foreign_keys = ON')
  await database.raw('PRAGMA busy_timeout = 5000')
  await database.migrate.latest({ migrationSource })
  return database
}
