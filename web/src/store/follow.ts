import { shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import { cancelIdle, whenIdle } from '../idle'

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
        waiting = whenIdle(() => {
          waiting = 0
          followed.value = source.value
        }, MOST_LAG)
      }
    },
    { flush: 'sync' },
  )
  return followed
}
