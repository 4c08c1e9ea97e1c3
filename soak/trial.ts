import type { Random } from '../fuzz/random'

/** What a trial came to: how often it tried, what was wrong, and the figures it measured. */
export interface Outcome {
  readonly tried: number
  /** A sentence for each thing that must not be, on any machine. */
  readonly wrong: readonly string[]
  /** A sentence for each goal that was missed, of time, memory or share. */
  readonly missed: readonly string[]
  readonly figures: readonly string[]
}

/** A trial of the whole server, or of pages, that goes on for a while. */
export interface Trial {
  readonly name: string
  /**
   * @param until by `performance.now()`; what was begun then is finished
   * @param goals whether goals are judged, which takes a machine of one's own
   */
  run(until: number, random: Random, goals: boolean): Promise<Outcome>
}

/** The value that a share of a list is no greater than. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN
}
