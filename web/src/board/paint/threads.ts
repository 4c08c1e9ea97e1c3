import { parallelRun, pointsAlong } from '@lathica/core/geometry'
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

/** How far beside a treated face its chain line runs, in pixels. */
const BESIDE = 4

/** Treated faces: a thick chain line along them, outside the material (ISO 15787). */
export function paintZones(ctx: CanvasRenderingContext2D, { zones, view, colours }: Scene): void {
  if (zones.length === 0) return
  ctx.save()
  ctx.strokeStyle = colours.ink
  ctx.lineWidth = 1.8
  ctx.setLineDash([14, 4, 2, 4])
  for (const piece of zones) {
    // Material lies left of a face: the line runs on its right.
    const run = parallelRun([piece], -BESIDE / view.scale)
    ctx.beginPath()
    run
      .flatMap((p) => pointsAlong(p, 0.3 / view.scale))
      .forEach((p, i) => {
        const { x, y } = toScreen(view, p)
        if (i === 0) ctx.moveTo(x, y)
        else ctx.lineTo(x, y)
      })
    ctx.stroke()
  }
  ctx.restore()
}
