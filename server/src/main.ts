import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import { parseArgs } from 'node:util'
import pino from 'pino'
import { createApp } from './app'
import { dayOf } from './database/copies'
import { DatabaseFailure } from './database/failure'
import { openDatabase } from './database/open'
import { patiently, watchedWrite } from './database/writing'
import { loadDemo } from './demo'
import { createJobs, type Jobs } from './jobs/jobs'
import { createSummaries } from './summaries'
import { createThreads } from './threads'

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: process.env['PORT'] ?? '4317' },
    database: { type: 'string', default: '.data/lathica.sqlite' },
    web: { type: 'string' },
    demo: { type: 'string' },
  },
})

const log = pino({ level: process.env['LOG_LEVEL'] ?? 'info' })
if (values.database !== ':memory:') mkdirSync(dirname(values.database), { recursive: true })
const database = await openDatabase(values.database).catch((error: unknown) => {
  if (!(error instanceof DatabaseFailure)) throw error
  process.stderr.write(`${error.message} ${error.mend}\n`)
  process.exit(error.exitCode)
})
if (values.demo !== undefined) await loadDemo(database, values.demo, log)

const threads = createThreads()
const inMemory = values.database === ':memory:'
const write = inMemory ? patiently : watchedWrite(database, values.database)

/** Looked at once an hour whether the copy of the day is there. */
const HOUR = 3_600_000
const keepToday = (): void => {
  if (inMemory) return
  const task = { filename: values.database, kind: 'day', label: dayOf(new Date()) } as const
  threads.run('keep', task).catch((error: unknown) => {
    log.error({ err: error }, 'no copy of the day could be kept')
  })
}
setInterval(keepToday, HOUR).unref()

const summaries = createSummaries(database, threads, log, { write })
let jobs: Jobs | undefined
const app = createApp({
  ...{ database, log, threads, summaries, write },
  jobs: (repository) => (jobs = createJobs(repository, threads, log)),
  ...(values.web === undefined ? {} : { webRoot: values.web }),
})
const server = app.listen(Number(values.port), '127.0.0.1')
server.on('listening', () => {
  void summaries.catchUp()
  keepToday()
  process.stdout.write(`Lathica is served at http://127.0.0.1:${values.port}/\n`)
})
server.on('error', (error: NodeJS.ErrnoException) => {
  const busy = error.code === 'EADDRINUSE'
  log.error(busy ? `Port ${values.port} is in use; choose another with PORT=4400.` : error)
  process.exit(1)
})

const stop = (): void => {
  server.close(() => {
    void Promise.all([summaries.stop(), jobs?.stop()])
      .then(() => threads.stop())
      .then(() => database.destroy())
      .then(() => process.exit(0))
  })
  server.closeIdleConnections()
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
