import { locator } from '@lathica/core/sketch'
import { freeMotion } from '@lathica/core/solver'
import { valuesOf } from '@lathica/core/part'
import { withDragged } from '@lathica/core/route'
import { onBeforeUnmount } from 'vue'
import { useBoardStore } from '../store/board'
import { usePartStore } from '../store/part'

/** How far the motion goes either way, in pixels, and how long a swing takes, in ms. */
const REACH = 13
const SWING = 1600

/** Shows what of the profile can still move, and how, by moving it to and fro a little. */
export function useFreeMotion(): { readonly start: () => void; readonly stop: () => void } {
  const parts = usePartStore()
  const board = useBoardStore()
  let frame = 0
  let swinging = false

  function start(): void {
    const { part } = parts
    if (!part || !board.view || board.freedoms === 0 || parts.preview) return
    const { sketch } = board
    const motion = freeMotion(sketch, valuesOf(part).sizesOf(sketch.id).values)
    const locate = locator(sketch)
    const reach = REACH / board.view.scale
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    const began = performance.now()
    swinging = true
    const show = (): void => {
      const share = still ? 1 : Math.sin((2 * Math.PI * (performance.now() - began)) / SWING)
      const places = [...motion].map(([id, way]) => {
        const { x, y } = locate(id)
        return [id, { x: x + way.x * reach * share, y: y + way.y * reach * share }] as const
      })
      parts.preview = withDragged(part, sketch.id, new Map(places))
      if (!still) frame = requestAnimationFrame(show)
    }
    show()
  }

  function stop(): void {
    cancelAnimationFrame(frame)
    if (swinging) parts.preview = undefined
    swinging = false
  }

  onBeforeUnmount(stop)
  return { start, stop }
}
