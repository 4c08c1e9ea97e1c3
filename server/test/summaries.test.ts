import type { PartCard } from '@lathica/core/wire'
import type { Knex } from 'knex'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Part } from '@lathica/core/part'
import {
  createRepository,
  createSummaries,
  openDatabase,
  type Repository,
  type Summaries,
} from '../src'
import { demo, sharedThreads, silent, stored } from './support'

let database: Knex
let repository: Repository
let summaries: Summaries

beforeEach(async () => {
  database = await openDatabase(':memory:')
  summaries = createSummaries(database, sharedThreads(), silent, { patience: 50 })
  repository = createRepository(database, (id) => summaries.want(id))
})
afterEach(async () => {
  await summaries.stop()
  await database.destroy()
})

const cards = async (): Promise<readonly PartCard[]> =>
  (await repository.listProjects()).flatMap((p) => p.parts)
const masses = async (): Promise<(number | null | undefined)[]> =>
  (await cards()).map((card) => card.summary?.overall?.mass)
const LONG = { timeout: 120_000, interval: 100 }

it('are made in a thread once a part is written; parts that take the solid kernel are weighed later', async () => {
  const project = await repository.createProject('Skerry Point tide gauge')
  await repository.createPart(project, stored(await demo('spindle')))
  const made = await repository.createPart(project, stored(await demo('guide-segment')))
  expect((await cards()).map((card) => [card.damaged, card.summary])).toEqual([
    [false, null],
    [false, null],
  ])
  await summaries.settled(120_000)
  const [turned, segment] = await masses()
  expect(turned).toBeGreaterThan(800)
  expect(segment).toBeNull()
  await vi.waitFor(async () => expect((await masses())[1]).toBeCloseTo(194.09, 1), LONG)
  // Weighed or not, it is the same revision to whoever has it open.
  expect((await repository.readPart(made?.id ?? ''))?.revision).toBe(1)
})

it('tell of what was saved last', async () => {
  const project = await repository.createProject('Skerry Point tide gauge')
  const part = await demo('guide-segment')
  const made = await repository.createPart(project, stored(part))
  const longer: Part = {
    ...part,
    route: part.route.map((s) =>
      s.kind === 'extrude' && s.length === '30' ? { ...s, length: '60' } : s,
    ),
  }
  await repository.savePart(made?.id ?? '', 1, stored(longer))
  await vi.waitFor(async () => expect((await masses())[0]).toBeCloseTo(227.35, 1), LONG)
})

it('that were never made, or are damaged, are made at the next start', async () => {
  const quiet = createRepository(database)
  const project = await quiet.createProject('Skerry Point tide gauge')
  await quiet.createPart(project, stored(await demo('spindle')))
  const torn = await quiet.createPart(project, stored(await demo('spindle')))
  await database('parts')
    .where({ id: torn?.id ?? '' })
    .update({ summary: 'torn' })
  expect(await masses()).toEqual([undefined, undefined])
  await summaries.catchUp()
  await summaries.settled(120_000)
  const [first, second] = await masses()
  expect(first).toBeGreaterThan(800)
  expect(second).toBe(first)
})

it('pass over a part that is gone', async () => {
  summaries.want('nobody')
  await summaries.settled(120_000)
  expect(await masses()).toEqual([])
})
