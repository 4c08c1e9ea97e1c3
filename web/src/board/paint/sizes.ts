import type { Px } from '../view'
import type { Scene } from './scene'

/** Dimension lines, witness lines and arrows; the labels themselves are elements over the canvas. */
export function paintSizes(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { colours } = scene
  for (const size of scene.sizes) {
    const marked = scene.picks.has(size.id) || scene.hover === size.id
    const tone = scene.troubled.has(size.id)
      ? colours.conflict
      : marked
        ? colours.halo
        : colours.inkSoft
    segments(ctx, size.witnesses, tone, 0.6)
    segments(ctx, size.lines, tone, marked ? 1.6 : 0.9)
    if (size.arc) paintArc(ctx, size.arc, tone)
    ctx.fillStyle = tone
    for (const [tip, away] of size.arrows) arrow(ctx, tip, away)
  }
}

function segments(
  ctx: CanvasRenderingContext2D,
  lines: readonly (readonly [Px, Px])[],
  colour: string,
  weight: number,
): void {
  ctx.beginPath()
  for (const [a, b] of lines) {
    ctx.moveTo(a.x, a.y)
    ctx.lineTo(b.x, b.y)
  }
  ctx.strokeStyle = colour
  ctx.lineWidth = weight
  ctx.stroke()
}

/** The lesser turn from one end to the other. */
function paintArc(
  ctx: CanvasRenderingContext2D,
  arc: { readonly centre: Px; readonly radius: number; readonly from: Px; readonly to: Px },
  colour: string,
): void {
  const angleOf = (p: Px): number => Math.atan2(p.y - arc.centre.y, p.x - arc.centre.x)
  const [a, b] = [angleOf(arc.from), angleOf(arc.to)]
  const turn = ((b - a + 3 * Math.PI) % (2 * Math.PI)) - Math.PI
  ctx.beginPath()
  ctx.arc(arc.centre.x, arc.centre.y, arc.radius, a, b, turn < 0)
  ctx.strokeStyle = colour
  ctx.lineWidth = 0.9
  ctx.stroke()
}

/** A filled arrow head, 15° to a side (ISO 129-1). */
function arrow(ctx: CanvasRenderingContext2D, tip: Px, away: Px): void {
  const length = Math.hypot(away.x - tip.x, away.y - tip.y) || 1
  const [ux, uy] = [(away.x - tip.x) / length, (away.y - tip.y) / length]
  const [reach, half] = [8, 2.1]
  ctx.beginPath()
  ctx.moveTo(tip.x, tip.y)
  ctx.lineTo(tip.x + ux * reach - uy * half, tip.y + uy * reach + ux * half)
  ctx.lineTo(tip.x + ux * reach + uy * half, tip.y + uy * reach - ux * half)
  ctx.fill()
}
