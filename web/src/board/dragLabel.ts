/** A press that moves less than this, in pixels, is a click. */
const THRESHOLD = 4

/** What is done while something that lies over the board is pressed. */
export interface LabelDrag {
  /** @param by how far it is from where it was pressed, in pixels */
  readonly move: (by: { readonly x: number; readonly y: number }) => void
  /** @param moved whether it was dragged, not clicked */
  readonly end: (moved: boolean) => void
  /** Esc lets everything be as it was. */
  readonly cancel: () => void
}

/** Follows the pointer from a press on a label until it is let go. */
export function dragLabel(event: PointerEvent, { move, end, cancel }: LabelDrag): void {
  const target = event.currentTarget
  if (!(target instanceof HTMLElement)) return
  const start = { x: event.clientX, y: event.clientY }
  const stop = new AbortController()
  const { signal } = stop
  let moved = false
  target.setPointerCapture(event.pointerId)
  const onMove = (at: PointerEvent): void => {
    const by = { x: at.clientX - start.x, y: at.clientY - start.y }
    if (!moved && Math.hypot(by.x, by.y) < THRESHOLD) return
    moved = true
    move(by)
  }
  const onUp = (): void => {
    stop.abort()
    end(moved)
  }
  const onKey = (key: KeyboardEvent): void => {
    if (key.key !== 'Escape') return
    key.stopPropagation()
    stop.abort()
    cancel()
  }
  target.addEventListener('pointermove', onMove, { signal })
  target.addEventListener('pointerup', onUp, { signal })
  target.addEventListener('pointercancel', onUp, { signal })
  window.addEventListener('keydown', onKey, { signal, capture: true })
}
