import type { Result } from '@lathica/core/result'
import type { Figure, Part } from '@lathica/core/part'
import {
  trialsOf,
  variationOf,
  type Scatter,
  type Trials,
  type Variation,
} from '@lathica/core/vary'
import { expose, transfer } from 'comlink'

/** What a figure varies by is worked out in a thread of its own: many parts take a while. */
const threads = {
  vary: (part: Part, figure: Figure, progress: (done: number) => void): Result<Variation> =>
    variationOf(part, figure, progress),
  try(
    part: Part,
    figure: Figure,
    plan: { count: number; scatter: Scatter },
    progress: (done: number) => void,
  ): Result<Trials> {
    const trials = trialsOf(part, figure, plan, progress)
    return trials.ok ? transfer(trials, [trials.value.values.buffer]) : trials
  },
}

export type VaryThread = typeof threads

expose(threads)
