import { shallowRef, watch, type ComputedRef, type Ref } from 'vue'

/** The longest that what follows lags behind while there is no time to spare, in ms. */
const MOST_LAG = 250

/**
 * A value for what may lag behind the drawing: at once when nothing is under way, and in the idle
 * time between frames while something is dragged, so that the board is always painted first.
 * @param hurried true while values follow one another with every move of the pointer
 */
export function following<T>(source: ComputedRef<T>, hurried: () => boolean): Readonly<Ref<T>> {
  const followed = shallowRef(source.value) as Ref<T>
  let waiting = 0
  const cancel = (): void => {
    if (waiting !== 0) cancelIdle(waiting)
    waiting = 0
  }
  watch(
    source,
    (now) => {
      if (!hurried()) {
        cancel()
        followed.value = now
      } else if (waiting === 0) {
        waiting = askIdle(() => {
          waiting = 0
          followed.value = source.value
        })
      }
    },
    { flush: 'sync' },
  )
  return followed
}

/** Not every browser tells when it is idle; there the next task has to do. */
const hasIdle = typeof requestIdleCallback === 'function'
const askIdle = (run: () => void): number =>
  hasIdle ? requestIdleCallback(run, { timeout: MOST_LAG }) : Number(setTimeout(run, MOST_LAG / 4))
const cancelIdle = (handle: number): void =>
  hasIdle ? cancelIdleCallback(handle) : clearTimeout(handle)
