import type { Result } from '@lathica/core/result'
import type { Figure, Part } from '@lathica/core/part'
import type { Scatter, Trials, Variation } from '@lathica/core/vary'
import { proxy, wrap, type Remote } from 'comlink'
import type { VaryThread } from './worker'

/** Work in a thread that can be ended at any moment. */
export interface Job<T> {
  /** Undefined when it was ended. */
  readonly answer: Promise<Result<T> | undefined>
  readonly end: () => void
}

function job<T>(ask: (thread: Remote<VaryThread>) => Promise<Result<T>>): Job<T> {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
  let stop: (ended: undefined) => void = () => undefined
  const ended = new Promise<undefined>((resolve) => (stop = resolve))
  const answer = Promise.race([ask(wrap<VaryThread>(worker)), ended]).finally(() => {
    worker.terminate()
  })
  return { answer, end: () => stop(undefined) }
}

/** How far a figure can be off, and through which values. */
export const vary = (
  part: Part,
  figure: Figure,
  progress: (done: number) => void,
): Job<Variation> => job((thread) => thread.vary(part, figure, proxy(progress)))

/** A figure of many parts, whose values scatter between their limits. */
export const tryMany = (
  part: Part,
  figure: Figure,
  plan: { count: number; scatter: Scatter },
  progress: (done: number) => void,
): Job<Trials> => job((thread) => thread.try(part, figure, plan, proxy(progress)))
