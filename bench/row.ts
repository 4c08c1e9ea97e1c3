/** One figure of the bench: what was measured, against what it should be. */
export interface Row {
  readonly name: string
  readonly value: number
  readonly unit: string
  /** The figure to reach. */
  readonly goal: number
  /** Whether the goal is a limit from above or from below. */
  readonly limit: 'at most' | 'at least'
}

/** Whether a figure reaches its goal; one in milliseconds is told as many at the usual pace. */
export function judged(
  { value, unit, goal, limit }: Row,
  pace: number,
): {
  readonly atUsualPace: number
  readonly holds: boolean
} {
  const atUsualPace = unit === 'ms' ? value / pace : value
  return { atUsualPace, holds: limit === 'at most' ? atUsualPace <= goal : atUsualPace >= goal }
}

export function atMost(name: string, value: number, unit: string, goal: number): Row {
  return { name, value, unit, goal, limit: 'at most' }
}

export function atLeast(name: string, value: number, unit: string, goal: number): Row {
  return { name, value, unit, goal, limit: 'at least' }
}

/** Rounds before the measured ones, in which the engine compiles what it finds worth it. */
const WARM_UP = 50

/**
 * The median time of a call in milliseconds, after rounds to warm up.
 * @param prepare makes what each round works on, outside the time taken
 */
export function medianTime<T>(
  rounds: number,
  prepare: (i: number) => T,
  run: (t: T) => void,
  warmUp = WARM_UP,
): number {
  const times: number[] = []
  for (let i = 0; i < rounds + warmUp; i++) {
    const input = prepare(i)
    const start = performance.now()
    run(input)
    if (i >= warmUp) times.push(performance.now() - start)
  }
  times.sort((a, b) => a - b)
  return times[Math.floor(times.length / 2)] ?? 0
}
