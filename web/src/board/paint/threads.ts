import { parallelRun, pointsAlong, type Vec } from '@lathica/core/geometry'
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

/** How deep a knurl is drawn below its land, in pixels. */
const KNURL_DEEP = 13
/** Lines of a knurl stand no closer than this, in pixels. */
const KNURL_CLOSE = 3.5

/** Knurls on the image of the section below the axis, as the land is seen from outside (ISO 13444). */
export function paintKnurls(ctx: CanvasRenderingContext2D, { knurls, view, colours }: Scene): void {
  for (const { from, to, angles, pitch } of knurls) {
    const step = Math.max(pitch, KNURL_CLOSE / view.scale)
    const deep = Math.min(KNURL_DEEP / view.scale, from.y / 2)
    ctx.save()
    ctx.beginPath()
    const corners = [
      { x: from.x, y: -from.y },
      { x: to.x, y: -from.y },
      { x: to.x, y: deep - from.y },
      { x: from.x, y: deep - from.y },
    ].map((p) => toScreen(view, p))
    corners.forEach((p, i) => {
      if (i === 0) ctx.moveTo(p.x, p.y)
      else ctx.lineTo(p.x, p.y)
    })
    ctx.closePath()
    ctx.clip()
    ctx.strokeStyle = colours.inkSoft
    ctx.lineWidth = 0.8
    ctx.beginPath()
    for (const line of knurlLines(to.x - from.x, deep, step, angles)) {
      const [a, b] = line.map((p) => toScreen(view, { x: from.x + p.x, y: p.y - from.y }))
      if (!a || !b) continue
      ctx.moveTo(a.x, a.y)
      ctx.lineTo(b.x, b.y)
    }
    ctx.stroke()
    ctx.restore()
  }
}

/** Lines at angles to the axis over a band, `step` apart square to themselves; they reach beyond it. */
function knurlLines(
  wide: number,
  high: number,
  step: number,
  angles: readonly number[],
): readonly (readonly [Vec, Vec])[] {
  return angles.flatMap((degrees) => {
    const angle = (degrees * Math.PI) / 180
    const [dx, dy] = [Math.cos(angle), Math.sin(angle)]
    // How far the corners of the band lie across the lines.
    const across = [0, -wide * dy, high * dx, high * dx - wide * dy]
    const [low, top] = [Math.min(...across), Math.max(...across)]
    const reach = wide + high
    const many = Math.ceil((top - low) / step)
    return Array.from({ length: many + 1 }, (_, i): readonly [Vec, Vec] => {
      const off = low + i * step
      const middle = { x: -dy * off, y: dx * off }
      return [
        { x: middle.x - dx * reach, y: middle.y - dy * reach },
        { x: middle.x + dx * reach, y: middle.y + dy * reach },
      ]
    })
  })
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
