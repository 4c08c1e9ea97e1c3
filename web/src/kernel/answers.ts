import type { Problem } from '@lathica/core/result'

/** What the kernel's thread answers: a value, or why not and at which operation of the plan. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problem: Problem; readonly after: number | undefined }

/** The answer to what its owner stopped. */
export const STOPPED = {
  ok: false,
  problem: { code: 'kernel.stopped', message: 'It was stopped.', mend: 'Begin it again.' },
  after: undefined,
} as const

/** Whether a question was stopped by who asked it, which says nothing about the solid. */
export const isStopped = (answer: Answer<unknown>): boolean =>
  !answer.ok && answer.problem.code === STOPPED.problem.code
