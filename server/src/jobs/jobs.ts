import { randomUUID } from 'node:crypto'
import type { Worker } from 'node:worker_threads'
import { readPart, type Problem } from '@lathica/core'
import type { Logger } from 'pino'
import type { Repository } from '../repository'
import { startThread } from '../threads'
import type { JobAnswer, JobFile, JobProgress, JobState, JobTask, JobView } from './types'

/** Jobs that write and read files, one after another, in a thread of its own. */
export interface Jobs {
  /** Puts a job in line; undefined while too many wait. */
  start(task: JobTask): JobView | undefined
  view(id: string): JobView | undefined
  file(id: string): JobFile | undefined
  /** Ends a job that waits or runs; nothing of it stays. False where there is none. */
  cancel(id: string): boolean
  stop(): Promise<void>
}

/** More jobs than this do not wait in line. */
const MOST_WAITING = 20
/** What a job came to is kept for so long, in ms. */
const KEPT = 10 * 60_000
/** A job that tells nothing for so long, in ms, is given up. */
const SILENT = 120_000
/** A thread with nothing to do is let go after so long, in ms, with the memory of the kernel. */
const IDLE = 30_000

interface Job {
  readonly id: string
  readonly task: JobTask
  state: JobState
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

export function createJobs(repository: Repository, log: Logger): Jobs {
  const jobs = new Map<string, Job>()
  let thread: Worker | undefined
  let idle: ReturnType<typeof setTimeout> | undefined
  let running: { readonly job: Job; readonly end: () => void } | undefined

  const endThread = async (): Promise<void> => {
    const ending = thread
    thread = undefined
    await ending?.terminate()
  }

  function next(): void {
    if (running) return
    clearTimeout(idle)
    const job = [...jobs.values()].find((j) => j.state === 'waiting')
    if (job) {
      void run(job).finally(next)
      return
    }
    idle = setTimeout(() => void endThread(), IDLE)
    idle.unref()
  }

  async function run(job: Job): Promise<void> {
    job.state = 'running'
    const worker = (thread ??= startThread('files'))
    await new Promise<void>((resolve) => {
      let timer: ReturnType<typeof setTimeout> | undefined
      const end = (): void => {
        clearTimeout(timer)
        worker.off('message', hear)
        worker.off('error', broken)
        running = undefined
        resolve()
      }
      const giveUp = (): void => {
        settle(job, { state: 'failed', problem: GIVEN_UP })
        void endThread()
        end()
      }
      const wait = (): void => {
        clearTimeout(timer)
        timer = setTimeout(giveUp, SILENT)
        timer.unref()
      }
      const broken = (error: Error): void => {
        log.warn({ job: job.id, err: error }, 'a job broke')
        giveUp()
      }
      const hear = (answer: JobAnswer): void => {
        wait()
        if (answer.kind === 'progress') job.progress = answer.progress
        else void finish(job, answer).then(end, broken)
      }
      running = { job, end }
      worker.on('message', hear)
      worker.on('error', broken)
      wait()
      worker.postMessage(job.task)
    })
  }

  async function finish(job: Job, answer: Exclude<JobAnswer, { kind: 'progress' }>): Promise<void> {
    if (answer.kind === 'failed') settle(job, { state: 'failed', problem: answer.problem })
    else if (answer.kind === 'files') {
      settle(job, { state: 'done', file: answer.file, notes: answer.notes })
    } else if (job.task.kind === 'import') {
      const read = readPart(JSON.parse(answer.document))
      const made = read.ok && (await repository.createPart(job.task.projectId, read.value))
      const gone: Problem = {
        code: 'not-found',
        message: 'The project is gone that this was for.',
        mend: 'Choose another project.',
      }
      if (!made) settle(job, { state: 'failed', problem: read.ok ? gone : read.problem })
      else settle(job, { state: 'done', partId: made.id, notes: [answer.words] })
    }
  }

  /** What a job came to is told for a while. */
  function settle(job: Job, to: Partial<Job> & { readonly state: JobState }): void {
    Object.assign(job, to)
    setTimeout(() => jobs.delete(job.id), KEPT).unref()
  }

  return {
    start(task) {
      const waiting = [...jobs.values()].filter((j) => j.state === 'waiting').length
      if (waiting >= MOST_WAITING) return undefined
      const progress = { done: 0, of: 1, words: 'Waits for its turn' }
      const job: Job = { id: randomUUID(), task, state: 'waiting', progress, notes: [] }
      jobs.set(job.id, job)
      next()
      return viewOf(job)
    },
    view(id) {
      const job = jobs.get(id)
      return job && viewOf(job)
    },
    file: (id) => jobs.get(id)?.file,
    cancel(id) {
      const job = jobs.get(id)
      if (!job) return false
      if (job.state !== 'waiting' && job.state !== 'running') return true
      settle(job, { state: 'cancelled' })
      if (running?.job === job) {
        // What is within the kernel does not hear: the thread ends with it.
        void endThread()
        running.end()
      }
      return true
    },
    async stop() {
      clearTimeout(idle)
      for (const job of jobs.values()) if (job.state === 'waiting') job.state = 'cancelled'
      running?.end()
      await endThread()
    },
  }
}

function viewOf({ id, task, state, progress, notes, problem, file, partId }: Job): JobView {
  return {
    ...{ id, kind: task.kind, state, progress, notes },
    ...(problem ? { problem } : {}),
    ...(file ? { file: { name: file.name, size: file.content.length } } : {}),
    ...(partId === undefined ? {} : { partId }),
  }
}
