/**
 * How much may still be done in a search: counted, not timed, so that a sketch comes to the same end on every machine.
 * What looks for a place a second time, or for a reason, shares one with all else that looks for it.
 */
export interface Work {
  /** About as many multiplications as are left; below nought there is no going on. */
  left: number
}

/** A search that may take so many multiplications. */
export const workOf = (left: number): Work => ({ left })

export const isSpent = (work: Work | undefined): boolean => work !== undefined && work.left < 0
