import { toScreen } from '../view'
import type { Scene } from './scene'

/** Threads on the half-section and its image (ISO 6410-1): a thin line along the root, a thick one where the thread ends. */
export function paintThreads(
  ctx: CanvasRenderingContext2D,
  { threads, view, colours }: Scene,
): void {
  for (const { from, to, end } of threads) {
    for (const side of [1, -1]) {
      const place = ({ x, y }: { readonly x: number; readonly y: number }) =>
        toScreen(view, { x, y: side * y })
      const stroke = (a: typeof from, b: typeof from, width: number): void => {
        const [p, q] = [place(a), place(b)]
        ctx.beginPath()
        ctx.moveTo(p.x, p.y)
        ctx.lineTo(q.x, q.y)
        ctx.lineWidth = width
        ctx.stroke()
      }
      ctx.strokeStyle = side === 1 ? colours.ink : colours.mirror
      stroke(from, to, 0.8)
      if (end) stroke(end[0], end[1], 1.6)
    }
  }
}
