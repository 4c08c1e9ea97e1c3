/** While the part changes, slow pictures wait until the hand has rested for so long, in ms. */
const REST = 120
/** However long it goes on, one comes after so long, in ms. */
const LONGEST_WAIT = 3000

/** When a slow picture is asked for while the part changes with every move: the drawing board goes first. */
export interface Pacing {
  /** Asks once the hand has rested, or after the longest wait. */
  later(): void
  /** A picture is asked for: nothing waits any more. */
  stop(): void
}

export function createPacing(ask: () => void): Pacing {
  let waiting: ReturnType<typeof setTimeout> | undefined
  let since: number | undefined
  return {
    later() {
      clearTimeout(waiting)
      const now = performance.now()
      since ??= now
      waiting = setTimeout(ask, Math.max(0, Math.min(REST, since + LONGEST_WAIT - now)))
    },
    stop() {
      clearTimeout(waiting)
      since = undefined
    },
  }
}
