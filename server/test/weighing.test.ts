import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import pino from 'pino'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { readPartFile, type Part } from '@lathica/core'
import {
  createRepository,
  createWeigher,
  openDatabase,
  type Repository,
  type Weigher,
} from '../src'

let database: Knex
let repository: Repository
let weigher: Weigher

beforeEach(async () => {
  database = await openDatabase(':memory:')
  weigher = createWeigher(database, pino({ level: 'silent' }), 50)
  repository = createRepository(database)
})
afterEach(async () => {
  await weigher.stop()
  await database.destroy()
})

async function demo(name: string): Promise<Part> {
  const file = fileURLToPath(new URL(`../../demo/${name}.lathica.json`, import.meta.url))
  const read = readPartFile(await readFile(file, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

const masses = async (): Promise<(number | null | undefined)[]> =>
  (await repository.listProjects()).flatMap((p) => p.parts.map((x) => x.summary?.overall?.mass))

it('weighs parts that take the solid kernel, in a thread, and leaves the others', async () => {
  const project = await repository.createProject('Skerry Point tide gauge')
  await repository.createPart(project, await demo('spindle'))
  const made = await repository.createPart(project, await demo('guide-segment'))
  const [turned] = await masses()
  expect(turned).toBeGreaterThan(800)
  expect((await masses())[1]).toBeNull()
  await weigher.catchUp()
  await vi.waitFor(async () => expect((await masses())[1]).toBeCloseTo(194.09, 1), {
    timeout: 120_000,
    interval: 100,
  })
  // Weighed or not, it is the same revision to whoever has it open.
  expect((await repository.readPart(made?.id ?? ''))?.revision).toBe(1)
})

it('weighs what was saved last, once it is left alone', async () => {
  const project = await repository.createProject('Skerry Point tide gauge')
  const part = await demo('guide-segment')
  const made = await repository.createPart(project, part)
  const id = made?.id ?? ''
  weigher.want(id)
  const longer: Part = {
    ...part,
    route: part.route.map((s) =>
      s.kind === 'extrude' && s.length === '30' ? { ...s, length: '60' } : s,
    ),
  }
  await repository.savePart(id, 1, longer)
  weigher.want(id)
  await vi.waitFor(async () => expect((await masses())[0]).toBeCloseTo(227.35, 1), {
    timeout: 120_000,
    interval: 100,
  })
})

it('passes over a part that is gone', async () => {
  weigher.want('nobody')
  await new Promise((resolve) => setTimeout(resolve, 200))
  expect(await masses()).toEqual([])
})
