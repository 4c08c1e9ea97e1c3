import { copyFile, mkdtemp, open, readdir, rm, stat, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { createPart, PLAIN_BLOCK } from '@lathica/core/part'
import { createRepository, openDatabase } from '../src'
import { connectTo } from '../src/database/open'
import { rescueDatabase } from '../src/database/rescue'
import { loadDemo } from '../src/demo'
import { createTitleBlockLibrary } from '../src/titleBlocks'
import { silent, stored } from './support'

const DEMO = fileURLToPath(new URL('../../demo', import.meta.url))

let folder: string
let file: string
let to: string
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lathica-rescue-'))
  file = join(folder, 'gauge.sqlite')
  to = join(folder, 'rescued.sqlite')
})
afterEach(() => rm(folder, { recursive: true }))

type Contents = ReadonlyMap<string, string>

/** What each part says, by its id, as the database itself reads it. */
async function contents(database: Knex): Promise<Contents> {
  const rows = (await database('parts').select('id', 'name', 'revision', 'document')) as {
    id: string
    name: string
    revision: number
    document: string
  }[]
  return new Map(rows.map((r) => [r.id, `${r.name} ${r.revision} ${r.document}`]))
}

/** The demo project and many small parts, all of it in the one file. */
async function filled(): Promise<Contents> {
  const database = await openDatabase(file)
  await loadDemo(database, DEMO, silent)
  const repository = createRepository(database)
  const project = await repository.createProject('Spare parts')
  for (let i = 0; i < 60; i++) {
    const made = await repository.createPart(project, stored(createPart({ name: `Spare ${i}` })))
    await repository.savePart(made?.id ?? '', 1, stored(createPart({ name: `Spare ${i}b` })))
  }
  await database('materials').insert({
    ...{ id: 'own-1', name: 'bell bronze', density: 8.7e-3, colour: '#b08040', look: 'metal' },
  })
  await createTitleBlockLibrary(database).put({ ...PLAIN_BLOCK, name: 'Boat shed' })
  const all = await contents(database)
  await database.raw('PRAGMA wal_checkpoint(TRUNCATE)')
  await database.destroy()
  return all
}

async function rescued(from = file): Promise<Contents> {
  await rm(to, { force: true })
  await rescueDatabase(from, to)
  const database = connectTo(to)
  const all = await contents(database)
  await database.destroy()
  return all
}

/** Overwrites so many bytes of the file. */
async function spoil(at: number, length: number): Promise<void> {
  const handle = await open(file, 'r+')
  await handle.write(Buffer.alloc(length, 0xa5), 0, length, at)
  await handle.close()
}

const PAGE = 4096

describe('a rescue', () => {
  it('brings all of a sound database, with its projects and materials', async () => {
    const before = await filled()
    expect(await rescueDatabase(file, to)).toEqual({
      ...{ projects: 2, parts: before.size, materials: 1, damaged: 0 },
    })
    const database = await openDatabase(to)
    expect(await contents(database)).toEqual(before)
    expect(await createTitleBlockLibrary(database).list()).toEqual([
      { ...PLAIN_BLOCK, name: 'Boat shed' },
    ])
    const projects = await createRepository(database).listProjects()
    expect(projects.map((p) => [p.name, p.parts.length])).toEqual([
      ['Skerry Point tide gauge', before.size - 60],
      ['Spare parts', 60],
    ])
    await database.destroy()
  })

  it('needs neither the header nor the page that leads to all others', async () => {
    const before = await filled()
    await spoil(0, PAGE)
    const unread = connectTo(file)
    await expect(unread('parts').select('id')).rejects.toThrow()
    await unread.destroy()
    expect(await rescued()).toEqual(before)
  })

  it('brings what no damaged page holds, and nothing that is not so', async () => {
    const before = await filled()
    const whole = `${file}.whole`
    await copyFile(file, whole)
    const pages = (await stat(file)).size / PAGE
    let lost = 0
    for (let i = 0; i < 25; i++) {
      await copyFile(whole, file)
      await spoil(Math.floor((i * pages) / 25) * PAGE, PAGE)
      const after = await rescued()
      let torn = 0
      for (const [id, text] of before) {
        const found = after.get(id)
        if (found === undefined) torn++
        // An older state of a part may be on a page that was let go; it is a state that was saved.
        else if (found !== text) expect(found).toMatch(/^Spare \d+ 1 \{.*\}$/)
      }
      // A page holds some small parts, or a piece of a large one.
      expect(torn).toBeLessThan(8)
      lost += torn
      expect([...after.keys()].every((id) => before.has(id))).toBe(true)
    }
    expect(lost).toBeGreaterThan(0)
  })

  it('reads what stands in the log only', async () => {
    await filled()
    const database = await openDatabase(file)
    const repository = createRepository(database)
    const [project] = await repository.listProjects()
    await repository.createPart(project?.id ?? '', stored(createPart({ name: 'In the log' })))
    const before = await contents(database)
    // As a machine that lost its power leaves it.
    const copy = join(folder, 'torn.sqlite')
    await copyFile(file, copy)
    await copyFile(`${file}-wal`, `${copy}-wal`)
    await database.destroy()
    expect(await rescued(copy)).toEqual(before)
    await rm(`${copy}-wal`)
    const without = await rescued(copy)
    expect([...without.values()].some((text) => text.startsWith('In the log'))).toBe(false)
  })

  it('puts parts whose project is lost into one of their own', async () => {
    await filled()
    const database = connectTo(file)
    await database.raw('PRAGMA foreign_keys = OFF')
    await database('projects').where({ name: 'Spare parts' }).update({ created_at: 'torn' })
    await database.raw('VACUUM')
    await database.destroy()
    await rescueDatabase(file, to)
    const after = await openDatabase(to)
    const projects = await createRepository(after).listProjects()
    expect(projects.map((p) => p.name).sort()).toEqual(['Rescued parts', 'Skerry Point tide gauge'])
    await after.destroy()
  })

  it('makes nothing of what is no database, and overwrites nothing', async () => {
    await writeFile(file, Buffer.alloc(50_000, 0x0d))
    expect(await rescueDatabase(file, to)).toMatchObject({ parts: 0 })
    await expect(rescueDatabase(file, to)).rejects.toThrow('is there already')
    expect((await readdir(folder)).includes('gauge.sqlite')).toBe(true)
  })
})
