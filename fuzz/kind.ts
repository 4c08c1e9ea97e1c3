import type { Random } from './random'

/** A kind of trial: cases made at random, and an oracle that tells what is wrong with one. */
export interface Kind<C> {
  readonly name: string
  /** How many cases to try between looks at the clock. */
  readonly batch: number
  readonly make: (random: Random) => C
  /** What is wrong with a case, as a sentence; undefined when all is well. */
  readonly fault: (given: C) => string | undefined
  /** What is to be counted of a case, wrong or not, in words. */
  readonly counts?: (given: C) => readonly string[]
  /** Smaller cases of the same sort, the boldest first. */
  readonly smaller: (given: C) => Iterable<C>
}
