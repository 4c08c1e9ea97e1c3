import { readFile } from 'node:fs/promises'
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import pino, { type Logger } from 'pino'
import { afterAll } from 'vitest'
import type { Part } from '@lathica/core/part'
import { readPartFile, toDocument } from '@lathica/core/formats'
import {
  createApp,
  createJobs,
  createRepository,
  createSummaries,
  createThreads,
  openDatabase,
  storable,
  type Jobs,
  type PartText,
  type Repository,
  type Summaries,
  type Threads,
} from '../src'

export const silent = pino({ level: 'silent' })

/** A server as tests start it, with all that is within it. */
export interface Started {
  readonly base: string
  readonly app: ReturnType<typeof createApp>
  readonly server: Server
  readonly database: Knex
  readonly repository: Repository
  readonly threads: Threads
  readonly summaries: Summaries
  stop(): Promise<void>
}

interface StartOptions {
  readonly filename?: string
  readonly log?: Logger
  readonly webRoot?: string
}

/** Threads that the tests of a file share: each takes some seconds to begin. */
let shared: Threads | undefined
export const sharedThreads = (): Threads => (shared ??= createThreads())
afterAll(async () => {
  await shared?.stop()
  shared = undefined
})

export async function startServer({
  filename = ':memory:',
  log = silent,
  webRoot,
}: StartOptions = {}): Promise<Started> {
  const database = await openDatabase(filename)
  const threads = sharedThreads()
  const summaries = createSummaries(database, threads, log)
  let jobs: Jobs | undefined
  const app = createApp({
    ...{ database, log, threads, summaries },
    jobs: (repository) => (jobs = createJobs(repository, threads, log)),
    ...(webRoot === undefined ? {} : { webRoot }),
  })
  const server = await new Promise<Server>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening))
  })
  return {
    ...{ app, server, database, threads, summaries },
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    repository: createRepository(database, (id) => summaries.want(id)),
    async stop() {
      server.closeAllConnections()
      await new Promise((resolve) => server.close(resolve))
      await summaries.stop()
      await jobs?.stop()
      await database.destroy()
    },
  }
}

/** A part of the demo project. */
export async function demo(name: string): Promise<Part> {
  const file = fileURLToPath(new URL(`../../demo/${name}.lathica.json`, import.meta.url))
  const read = readPartFile(await readFile(file, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  return read.value
}

/** A part as it is stored. */
export const stored = (part: Part): PartText => storable(toDocument(part))
