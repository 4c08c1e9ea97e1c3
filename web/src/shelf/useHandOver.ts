import type { Problem } from '@lathica/core/result'
import { onBeforeUnmount, ref, shallowRef } from 'vue'
import { ApiError, api } from '../api/client'
import type { JobAnswer } from '@lathica/core/wire'
import { saveFile } from '../dispatch/saveFile'

/** How often a job is asked after, in ms. */
const ASK_AGAIN = 300

/** Files of several parts, written by the server: started, followed, cancelled, fetched. */
export function useHandOver() {
  const job = shallowRef<JobAnswer>()
  const problem = shallowRef<Pick<Problem, 'message' | 'mend'>>()
  const busy = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  let gone = false

  /** What goes wrong is shown where the work is. */
  async function safely(work: () => Promise<void>): Promise<void> {
    try {
      await work()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      problem.value = error.problem
      busy.value = false
    }
  }

  const start = (
    parts: readonly string[],
    format: string,
    tolerance: number,
    name: string,
  ): Promise<void> =>
    safely(async () => {
      problem.value = undefined
      busy.value = true
      job.value = undefined
      const begun = await api.startExport({ parts: [...parts], format, tolerance, name })
      // Closed meanwhile: nobody waits for it.
      if (gone) await api.cancelJob(begun.id)
      else follow(begun)
    })

  function follow(now: JobAnswer): void {
    job.value = now
    if (now.state === 'waiting' || now.state === 'running') {
      timer = setTimeout(() => void safely(async () => follow(await api.job(now.id))), ASK_AGAIN)
      return
    }
    busy.value = false
    if (now.state === 'failed') problem.value = now.problem
    if (now.state === 'done') void safely(() => fetchFile(now))
  }

  async function fetchFile({ id, file }: JobAnswer): Promise<void> {
    if (!file) return
    const content = await api.jobFile(id)
    if (!gone) saveFile(content, file.name, 'application/octet-stream')
  }

  const cancel = (): Promise<void> =>
    safely(async () => {
      clearTimeout(timer)
      const { value } = job
      busy.value = false
      if (!value) return
      job.value = { ...value, state: 'cancelled' }
      await api.cancelJob(value.id)
    })

  onBeforeUnmount(() => {
    gone = true
    if (busy.value) void cancel()
  })

  return { job, problem, busy, start, cancel }
}
