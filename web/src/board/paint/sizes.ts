import type { Px } from '../view'
import { isSizeClear } from './patch'
import type { Scene } from './scene'

/** What is drawn with one stroke or fill: all sizes of one tone and weight go together. */
interface Batch {
  readonly tone: string
  readonly weight: number
  readonly lines: Path2D
  readonly witnesses: Path2D
  readonly arrows: Path2D
}

/** Dimension lines, witness lines and arrows; the labels themselves are elements over the canvas. */
export function paintSizes(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const batches = new Map<string, Batch>()
  for (const size of scene.sizes) {
    if (isSizeClear(scene, size)) continue
    const marked = scene.picks.has(size.id) || scene.hover === size.id
    const batch = batchFor(batches, toneOf(scene, size.id, marked), marked ? 1.6 : 0.9)
    for (const [a, b] of size.lines) addLine(batch.lines, a, b)
    for (const [a, b] of size.witnesses) addLine(batch.witnesses, a, b)
    for (const [tip, away] of size.arrows) addArrow(batch.arrows, tip, away)
    if (size.arc) addArc(batch.lines, size.arc)
  }
  for (const { tone, weight, lines, witnesses, arrows } of batches.values()) {
    ctx.strokeStyle = tone
    ctx.fillStyle = tone
    ctx.lineWidth = 0.6
    ctx.stroke(witnesses)
    ctx.lineWidth = weight
    ctx.stroke(lines)
    ctx.fill(arrows)
  }
}

function toneOf({ troubled, colours }: Scene, id: string, marked: boolean): string {
  if (troubled.has(id)) return colours.conflict
  return marked ? colours.halo : colours.inkSoft
}

function batchFor(batches: Map<string, Batch>, tone: string, weight: number): Batch {
  const key = `${tone} ${weight}`
  const known = batches.get(key)
  if (known) return known
  const paths = { lines: new Path2D(), witnesses: new Path2D(), arrows: new Path2D() }
  const batch = { tone, weight, ...paths }
  batches.set(key, batch)
  return batch
}

function addLine(path: Path2D, a: Px, b: Px): void {
  path.moveTo(a.x, a.y)
  path.lineTo(b.x, b.y)
}

/** The lesser turn from one end to the other. */
function addArc(
  path: Path2D,
  arc: { readonly centre: Px; readonly radius: number; readonly from: Px; readonly to: Px },
): void {
  const angleOf = (p: Px): number => Math.atan2(p.y - arc.centre.y, p.x - arc.centre.x)
  const [a, b] = [angleOf(arc.from), angleOf(arc.to)]
  const turn = ((b - a + 3 * Math.PI) % (2 * Math.PI)) - Math.PI
  path.moveTo(arc.from.x, arc.from.y)
  path.arc(arc.centre.x, arc.centre.y, arc.radius, a, b, turn < 0)
}

/** A filled arrow head, 15° to a side (ISO 129-1). */
function addArrow(path: Path2D, tip: Px, away: Px): void {
  const length = Math.hypot(away.x - tip.x, away.y - tip.y) || 1
  const [ux, uy] = [(away.x - tip.x) / length, (away.y - tip.y) / length]
  const [reach, half] = [8, 2.1]
  path.moveTo(tip.x, tip.y)
  path.lineTo(tip.x + ux * reach - uy * half, tip.y + uy * reach + ux * half)
  path.lineTo(tip.x + ux * reach + uy * half, tip.y + uy * reach - ux * half)
  path.closePath()
}
