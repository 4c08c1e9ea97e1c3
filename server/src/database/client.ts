import { createRequire } from 'node:module'
import type knex from 'knex'

const require = createRequire(import.meta.url)

/** Knex's dialect for synchronous SQLite drivers; Knex exports it but does not type it. */
const BetterSqlite3Dialect = require('knex/lib/dialects/better-sqlite3') as typeof knex.Client

/** The dialect with libsql as its driver: the same interface, with its binary inside the package. */
export class LibsqlClient extends BetterSqlite3Dialect {
  _driver(): unknown {
    return require('libsql')
  }
}
