import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { MessageChannel } from 'node:worker_threads'
import type { Problem } from '@lathica/core/result'
import type { Logger } from 'pino'
import type { Repository } from '../repository'
import type { Threads } from '../threads'
import type { FilesAnswer } from '../threads/files'
import type { JobAnswer, JobProgress } from '@lathica/core/wire'
import type { JobFile, JobTask } from './types'

/** Jobs that write and read files, one after another, in a thread. Their files lie on the disk, never in memory. */
export interface Jobs {
  /** A place for a file on its way; whoever puts it there lets it go, or starts a job with it. */
  place(): string
  /** Puts a job in line; undefined while too many wait. */
  start(task: JobTask): JobAnswer | undefined
  view(id: string): JobAnswer | undefined
  file(id: string): JobFile | undefined
  /** The file was fetched: it is kept for a little while only. */
  fetched(id: string): void
  /** Ends a job that waits or runs; nothing of it stays. False where there is none. */
  cancel(id: string): boolean
  stop(): Promise<void>
}

/** More jobs than this do not wait in line. */
const MOST_WAITING = 20
/** What a job came to is kept for so long, in ms; and so long once it was fetched. */
const KEPT = 10 * 60_000
const KEPT_FETCHED = 60_000
/** Files of ended jobs take so many bytes at most; the oldest go first. */
const MOST_BYTES = 500_000_000
/** A job that tells nothing for so long, in ms, is given up. */
const SILENT = 120_000
/** A job that takes so long altogether, in ms, is given up. */
const LONGEST = 15 * 60_000

interface Job {
  readonly id: string
  readonly kind: JobTask['kind']
  readonly ending: AbortController
  state: JobAnswer['state']
  progress: JobProgress
  notes: readonly string[]
  problem?: Problem
  file?: JobFile
  partId?: string
}

const GIVEN_UP: Problem = {
  code: 'job.silent',
  message: 'The work was given up: it went on too long or broke.',
  mend: 'Try again with fewer parts, or a coarser tolerance.',
}

const TOO_MUCH: Problem = {
  code: 'job.memory',
  message: 'The work was given up: it took more memory than a job may.',
  mend: 'Try again with fewer parts, or a file with fewer faces.',
}

export function createJobs(repository: Repository, threads: Threads, log: Logger): Jobs {
  const jobs = new Map<string, Job>()
  let folder: string | undefined

  const place = (): string => {
    folder ??= mkdtempSync(join(tmpdir(), 'lathica-jobs-'))
    return join(folder, randomUUID())
  }
  const isOpen = ({ state }: Job): boolean => state === 'waiting' || state === 'running'

  async function run(job: Job, task: JobTask): Promise<void> {
    const out = place()
    const { port1, port2 } = new MessageChannel()
    let timer: ReturnType<typeof setTimeout> | undefined
    const giveUp = (): void => {
      settle(job, { state: 'failed', problem: GIVEN_UP })
      job.ending.abort()
    }
    let begun = 0
    port1.on('message', (progress: JobProgress) => {
      if (!isOpen(job)) return
      begun ||= Date.now()
      job.state = 'running'
      job.progress = progress
      clearTimeout(timer)
      const left = begun + LONGEST - Date.now()
      timer = setTimeout(giveUp, Math.max(0, Math.min(SILENT, left)))
      timer.unref()
    })
    try {
      const answer = await threads.run(
        'files',
        { job: task, out, port: port2 },
        { signal: job.ending.signal, transfer: [port2] },
      )
      await finish(job, task, answer)
    } catch (error) {
      if (isOpen(job)) {
        const { code } = error as { code?: unknown }
        log.warn({ job: job.id, err: error }, 'a job broke')
        const problem = code === 'ERR_WORKER_OUT_OF_MEMORY' ? TOO_MUCH : GIVEN_UP
        settle(job, { state: 'failed', problem })
      }
    } finally {
      clearTimeout(timer)
      port1.close()
      if (task.kind === 'import') await rm(task.path, { force: true })
      if (job.file?.path !== out) await rm(out, { force: true })
    }
  }

  async function finish(job: Job, task: JobTask, answer: FilesAnswer): Promise<void> {
    if (!isOpen(job)) return
    if (answer.kind === 'failed') settle(job, { state: 'failed', problem: answer.problem })
    else if (answer.kind === 'file') {
      const done = { done: job.progress.of, of: job.progress.of, words: 'Done' }
      settle(job, { state: 'done', file: answer.file, notes: answer.notes, progress: done })
      letGoOldest()
    } else if (task.kind === 'import') {
      const made = await repository.createPart(task.projectId, answer.part)
      // Whoever cancelled meanwhile wants no part.
      if (!isOpen(job)) {
        if (made) await repository.setPartDeleted(made.id, true)
      } else if (made) settle(job, { state: 'done', partId: made.id, notes: [answer.words] })
      else settle(job, { state: 'failed', problem: GONE })
    }
  }

  /** What a job came to is told for a while. */
  function settle(job: Job, to: Partial<Job> & { readonly state: JobAnswer['state'] }): void {
    Object.assign(job, to)
    setTimeout(() => {
      letGo(job)
      jobs.delete(job.id)
    }, KEPT).unref()
  }

  function letGo(job: Job): void {
    const { file } = job
    if (!file) return
    delete job.file
    rm(file.path, { force: true }).catch((error: unknown) =>
      log.warn({ job: job.id, err: error }, 'a file could not be let go'),
    )
  }

  function letGoOldest(): void {
    let bytes = 0
    for (const job of [...jobs.values()].reverse()) {
      bytes += job.file?.size ?? 0
      // The newest stays, however large it is.
      if (bytes > MOST_BYTES && bytes > (job.file?.size ?? 0)) letGo(job)
    }
  }

  return {
    place,
    start(task) {
      const waiting = [...jobs.values()].filter((j) => j.state === 'waiting').length
      if (waiting >= MOST_WAITING) return undefined
      const progress = { done: 0, of: 1, words: 'Waits for its turn' }
      const job: Job = {
        ...{ id: randomUUID(), kind: task.kind, ending: new AbortController() },
        ...{ state: 'waiting', progress, notes: [] },
      }
      jobs.set(job.id, job)
      void run(job, task)
      return viewOf(job)
    },
    view(id) {
      const job = jobs.get(id)
      return job && viewOf(job)
    },
    file: (id) => jobs.get(id)?.file,
    fetched(id) {
      setTimeout(() => {
        const job = jobs.get(id)
        if (job) letGo(job)
      }, KEPT_FETCHED).unref()
    },
    cancel(id) {
      const job = jobs.get(id)
      if (!job) return false
      if (!isOpen(job)) return true
      settle(job, { state: 'cancelled' })
      // What is within the kernel does not hear: its thread ends with it.
      job.ending.abort()
      return true
    },
    async stop() {
      for (const job of jobs.values()) {
        if (!isOpen(job)) continue
        job.state = 'cancelled'
        job.ending.abort()
      }
      if (folder !== undefined) rmSync(folder, { recursive: true, force: true })
      return Promise.resolve()
    },
  }
}

const GONE: Problem = {
  code: 'not-found',
  message: 'The project is gone that this was for.',
  mend: 'Choose another project.',
}

function viewOf({ id, kind, state, progress, notes, problem, file, partId }: Job): JobAnswer {
  return {
    ...{ id, kind, state, progress, notes },
    ...(problem ? { problem } : {}),
    ...(file ? { file: { name: file.name, size: file.size } } : {}),
    ...(partId === undefined ? {} : { partId }),
  }
}
