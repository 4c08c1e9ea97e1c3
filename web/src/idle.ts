/** Not every browser tells when it is idle; there the next task has to do. */
const hasIdle = typeof requestIdleCallback === 'function'

/** Runs something when nothing else is to be done, after so many ms at the latest. @returns what to cancel it by */
export const whenIdle = (run: () => void, timeout: number): number =>
  hasIdle ? requestIdleCallback(run, { timeout }) : Number(setTimeout(run, timeout / 4))

export const cancelIdle = (handle: number): void =>
  hasIdle ? cancelIdleCallback(handle) : clearTimeout(handle)
