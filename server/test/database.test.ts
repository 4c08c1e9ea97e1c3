import { spawn } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { mkdir, mkdtemp, open, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import knex from 'knex'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { createPart } from '@lathica/core/part'
import { createRepository, openDatabase, type Repository } from '../src'
import { LibsqlClient } from '../src/database/client'
import { folderOfCopies, keepCopy } from '../src/database/copies'
import { DatabaseFailure } from '../src/database/failure'
import { watchedWrite } from '../src/database/writing'
import { toProblem } from '../src/http/errors'
import { stored } from './support'

let folder: string
let file: string
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-database-'))
  file = join(folder, 'gauge.sqlite')
})
afterEach(() => rm(folder, { recursive: true }))

/** The file as any program opens it, nothing made of it. */
const bare = (filename = file) =>
  knex({
    client: LibsqlClient,
    connection: { filename },
    useNullAsDefault: true,
    pool: { min: 1, max: 1 },
  })

async function filled(): Promise<void> {
  const database = await openDatabase(file)
  const repository = createRepository(database)
  const project = await repository.createProject('Skerry Point tide gauge')
  for (let i = 0; i < 40; i++) {
    await repository.createPart(project, stored(createPart({ name: `Part ${i}` })))
  }
  // All of it in the one file.
  await database.raw('PRAGMA wal_checkpoint(TRUNCATE)')
  await database.destroy()
}

/** Why a file cannot be opened. */
async function refusal(filename = file): Promise<DatabaseFailure> {
  const answer = await openDatabase(filename).then(
    (database) => database.destroy(),
    (error: unknown) => error,
  )
  if (!(answer instanceof DatabaseFailure)) throw new Error(`it was opened: ${String(answer)}`)
  return answer
}

describe('a database that cannot be used is told in a sentence, with a mend and an exit code', () => {
  it('of a newer Lathica', async () => {
    await filled()
    const database = bare()
    await database('knex_migrations').insert({ name: '999_later', batch: 9 })
    await database.destroy()
    const { message, exitCode } = await refusal()
    expect([exitCode, message]).toEqual([3, expect.stringContaining('by a newer Lathica')])
  })

  it('that was left while it was brought up to date', async () => {
    await filled()
    const database = bare()
    // The last change of the schema is due again, and whoever began it kept a copy and never ended.
    const last = await database('knex_migrations').orderBy('id', 'desc').first<{ id: number }>()
    await database('knex_migrations').where({ id: last.id }).delete()
    const before = await keepCopy(database, file, 'migration', 'then')
    await database('knex_migrations_lock').update({ is_locked: 1 })
    await database.destroy()
    const { message, exitCode, mend } = await refusal()
    expect([exitCode, message]).toEqual([10, expect.stringContaining('was left while')])
    expect(mend).toContain('copy')
    // The copy that the mend speaks of is the newest still: one of what was left would be no better.
    expect(readdirSync(folderOfCopies(file))).toEqual([basename(before ?? '')])
  })

  it('that is none', async () => {
    await writeFile(file, 'The tide at Skerry Point, '.repeat(200))
    const { message, exitCode } = await refusal()
    expect([exitCode, message]).toEqual([4, expect.stringContaining('is no database')])
    expect(await readFile(file, 'utf8')).toContain('The tide at Skerry Point')
  })

  it('that is damaged', async () => {
    await filled()
    const handle = await open(file, 'r+')
    const { size } = await handle.stat()
    // All but the first page, which says that it is a database.
    await handle.write(Buffer.alloc(size - 4096, 0xa5), 0, size - 4096, 4096)
    await handle.close()
    const { exitCode, mend } = await refusal()
    expect([exitCode, mend]).toEqual([5, expect.stringContaining('copy')])
  })

  it('whose place cannot be written to', async () => {
    await mkdir(file)
    const { message, exitCode } = await refusal()
    expect([exitCode, message]).toEqual([6, expect.stringContaining('cannot be written to')])
  })

  it('that another program holds', async () => {
    const other = bare()
    await other.raw('BEGIN EXCLUSIVE')
    const { message, exitCode } = await refusal()
    expect([exitCode, message]).toEqual([7, expect.stringContaining('held by another program')])
    await other.raw('COMMIT')
    await other.destroy()
  })

  it('of another program, which is left as it is', async () => {
    const other = bare()
    await other.schema.createTable('tides', (table) => table.string('height'))
    await other.destroy()
    const { message, exitCode } = await refusal()
    expect([exitCode, message]).toEqual([9, expect.stringContaining('another program')])
    const again = bare()
    expect(await again.schema.hasTable('knex_migrations')).toBe(false)
    await again.destroy()
  })

  it('also where the server is started on its own', async () => {
    await writeFile(file, 'no database at all, but some lines of text, long enough to be read\n')
    const main = fileURLToPath(new URL('../src/main.ts', import.meta.url))
    const tsx = fileURLToPath(new URL('../../node_modules/tsx/dist/cli.mjs', import.meta.url))
    const server = spawn(process.execPath, [tsx, main, '--database', file, '--port', '0'])
    let said = ''
    server.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
    const code = await new Promise((done) => server.on('exit', done))
    expect([code, said.trim().split('\n')]).toEqual([
      4,
      [expect.stringContaining('is no database')],
    ])
  })
})

describe('copies of a database', () => {
  it('are kept before it is brought up to date', async () => {
    await filled()
    const older = bare()
    await older('knex_migrations').where({ name: '002_materials' }).delete()
    await older.schema.dropTable('materials')
    await older.destroy()
    const database = await openDatabase(file)
    expect(await database.schema.hasTable('materials')).toBe(true)
    await database.destroy()
    const [copy] = readdirSync(folderOfCopies(file))
    const kept = bare(join(folderOfCopies(file), copy ?? ''))
    expect(await kept.schema.hasTable('materials')).toBe(false)
    expect(await kept('parts').count({ n: '*' })).toEqual([{ n: 40 }])
    await kept.destroy()
  })

  it('are kept once a day, the last seven of them, each whole', async () => {
    await filled()
    const database = await openDatabase(file)
    for (let day = 10; day < 19; day++) {
      expect(await keepCopy(database, file, 'day', `2026-11-${day}`)).toBeDefined()
    }
    expect(await keepCopy(database, file, 'day', '2026-11-18')).toBeUndefined()
    await database.destroy()
    const names = readdirSync(folderOfCopies(file))
    expect(names.sort()).toEqual(
      [12, 13, 14, 15, 16, 17, 18].map((day) => `day-2026-11-${day}.sqlite`),
    )
    // What was left unfinished is none of them.
    expect(existsSync(join(folderOfCopies(file), 'day-2026-11-18.sqlite.part'))).toBe(false)
    const kept = await openDatabase(join(folderOfCopies(file), 'day-2026-11-18.sqlite'))
    expect((await createRepository(kept).listProjects())[0]?.parts).toHaveLength(40)
    await kept.destroy()
  })
})

describe('while the server runs', () => {
  const named = (at: Repository): Promise<string[]> =>
    at.listProjects().then((all) => all.map((p) => p.name))

  it('another program’s lock delays a write only: what is read is answered meanwhile', async () => {
    const database = await openDatabase(file)
    const repository = createRepository(database, undefined, watchedWrite(database, file))
    await repository.createProject('Skerry Point tide gauge')
    const other = bare()
    await other.raw('BEGIN IMMEDIATE')
    let written = false
    const writing = repository.createProject('Spare parts').then(() => (written = true))
    for (let i = 0; i < 5; i++) {
      expect(await named(repository)).toEqual(['Skerry Point tide gauge'])
      await new Promise((resolve) => setTimeout(resolve, 60))
    }
    expect(written).toBe(false)
    await other.raw('COMMIT')
    await writing
    expect(await named(repository)).toEqual(['Skerry Point tide gauge', 'Spare parts'])
    await other.destroy()
    await database.destroy()
  })

  it('a file that vanished takes nothing more; what it held is kept, and once it is back all goes on', async () => {
    await filled()
    const database = await openDatabase(file)
    const repository = createRepository(database, undefined, watchedWrite(database, file))
    await repository.createProject('Spare parts')
    await rename(file, `${file}.away`)
    const refused = await repository.createProject('Lost').catch((error: unknown) => error)
    expect(refused).toMatchObject({ exitCode: 11, status: 503 })
    const [copy = ''] = readdirSync(folderOfCopies(file))
    expect((refused as DatabaseFailure).mend).toContain(copy)
    const kept = await openDatabase(join(folderOfCopies(file), copy))
    expect(await named(createRepository(kept))).toEqual(['Skerry Point tide gauge', 'Spare parts'])
    await kept.destroy()
    await rename(`${file}.away`, file)
    await repository.createProject('Found again')
    expect(await named(repository)).toContain('Found again')
    expect(await named(repository)).not.toContain('Lost')
    await database.destroy()
  })

  it('a full disk is told as one, and what was saved before is there', async () => {
    await filled()
    const database = await openDatabase(file)
    // As on a disk with no room for one page more.
    const [{ page_count: pages }] = (await database.raw('PRAGMA page_count')) as [
      { page_count: number },
    ]
    await database.raw(`PRAGMA max_page_count = ${pages}`)
    const repository = createRepository(database, undefined, watchedWrite(database, file))
    const [project] = await repository.listProjects()
    const large = { ...stored(createPart({ name: 'Large' })), text: `{"a":"${'x'.repeat(1e6)}"}` }
    const error = await repository
      .createPart(project?.id ?? '', large)
      .catch((refused: unknown) => refused)
    expect(toProblem(error)).toMatchObject({ status: 507, mend: expect.stringContaining('room') })
    expect((await repository.listProjects())[0]?.parts).toHaveLength(40)
    await database.destroy()
  })
})
