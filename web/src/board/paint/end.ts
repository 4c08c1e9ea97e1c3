import { toScreen } from '../view'
import type { Scene } from './scene'

/** The part as it is seen from its end, behind a sketch that lies across the axis. */
export function paintEnd(
  ctx: CanvasRenderingContext2D,
  { view, colours, width, height }: Scene,
  { seen, hidden, from }: NonNullable<Scene['end']>,
): void {
  ctx.lineCap = 'butt'
  // It stands back behind what is drawn on it.
  for (const [places, strength] of [
    [hidden, 0.22],
    [seen, 0.5],
  ] as const) {
    ctx.globalAlpha = strength
    const path = new Path2D()
    for (let i = 0; i < places.length; i += 4) {
      const [ax = 0, ay = 0, bx = 0, by = 0] = places.slice(i, i + 4)
      const a = toScreen(view, { x: ax, y: ay })
      const b = toScreen(view, { x: bx, y: by })
      path.moveTo(a.x, a.y)
      path.lineTo(b.x, b.y)
    }
    ctx.strokeStyle = colours.ink
    ctx.lineWidth = 1
    ctx.stroke(path)
  }
  ctx.globalAlpha = 1
  // The upright centre line; the level one is the axis that every sketch has.
  ctx.setLineDash([16, 3, 3, 3])
  ctx.strokeStyle = colours.accent
  ctx.lineWidth = 1.1
  ctx.beginPath()
  ctx.moveTo(view.origin.x, 0)
  ctx.lineTo(view.origin.x, height)
  ctx.stroke()
  ctx.setLineDash([])
  ctx.fillStyle = colours.pencil
  ctx.font = '12px "IBM Plex Mono", monospace'
  ctx.textAlign = 'right'
  ctx.textBaseline = 'bottom'
  ctx.fillText(from, width - 14, height - 8)
}
