import { AXIS_ID, locator, type Entity, type Vec } from '@lathica/core'
import { toScreen, type Px } from '../view'
import type { Scene } from './scene'

/** Dashes: centre lines are chain lines, construction lines long thin dashes (ISO 128-2). */
const CHAIN = [16, 3, 3, 3]
const LONG_DASH = [10, 5]

/** The axis as a chain line across the whole pane, with the datum point on it. */
export function paintAxis(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { view, width, height, colours } = scene
  const { origin } = view
  const [a, b] =
    view.lie === 'lying'
      ? [
          { x: 0, y: origin.y },
          { x: width, y: origin.y },
        ]
      : [
          { x: origin.x, y: 0 },
          { x: origin.x, y: height },
        ]
  if (scene.hover === AXIS_ID || scene.picks.has(AXIS_ID)) halo(ctx, scene, a, b)
  ctx.setLineDash(CHAIN)
  stroke(ctx, a, b, colours.accent, 1.1)
  ctx.setLineDash([])
  ctx.beginPath()
  ctx.arc(origin.x, origin.y, 4.5, 0, 2 * Math.PI)
  ctx.moveTo(origin.x - 8, origin.y)
  ctx.lineTo(origin.x + 8, origin.y)
  ctx.moveTo(origin.x, origin.y - 8)
  ctx.lineTo(origin.x, origin.y + 8)
  ctx.strokeStyle = colours.accent
  ctx.lineWidth = 1
  ctx.stroke()
}

/** Lines in pencil or in ink, points open or solid, with halos round what is hovered or picked. */
export function paintSketch(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { sketch } = scene
  if (!sketch) return
  const locate = locator(sketch)
  const place = (p: Vec): Px => toScreen(scene.view, p)
  const ends = (e: Entity): readonly [Px, Px] => [place(locate(e.from)), place(locate(e.to))]
  for (const e of sketch.entities) {
    if (scene.picks.has(e.id) || scene.hover === e.id) halo(ctx, scene, ...ends(e))
  }
  for (const e of sketch.entities) paintLine(ctx, scene, e, ...ends(e))
  for (const p of sketch.points) paintPoint(ctx, scene, p.id, place(p))
}

function paintLine(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  entity: Entity,
  a: Px,
  b: Px,
): void {
  const { colours } = scene
  const troubled = scene.troubled.has(entity.id)
  const inked = isStill(scene, entity.from) && isStill(scene, entity.to)
  const tone = troubled ? colours.conflict : inked ? colours.ink : colours.pencil
  if (entity.role === 'outline') {
    stroke(ctx, a, b, tone, inked || troubled ? 2.4 : 1.2)
  } else {
    ctx.setLineDash(entity.role === 'centre' ? CHAIN : LONG_DASH)
    stroke(ctx, a, b, tone, inked ? 1.2 : 0.9)
    ctx.setLineDash([])
  }
  if (troubled) sawTooth(ctx, a, b, colours.conflict)
}

function paintPoint(ctx: CanvasRenderingContext2D, scene: Scene, id: string, at: Px): void {
  const { colours } = scene
  const marked = scene.picks.has(id) || scene.hover === id
  if (marked) {
    ctx.beginPath()
    ctx.arc(at.x, at.y, 8, 0, 2 * Math.PI)
    ctx.fillStyle = colours.halo
    ctx.globalAlpha = scene.picks.has(id) ? 0.55 : 0.35
    ctx.fill()
    ctx.globalAlpha = 1
  }
  const still = isStill(scene, id)
  ctx.beginPath()
  ctx.arc(at.x, at.y, still ? 3 : 3.4, 0, 2 * Math.PI)
  ctx.fillStyle = still ? colours.ink : colours.paper
  ctx.fill()
  if (still) return
  ctx.strokeStyle = scene.troubled.has(id) ? colours.conflict : colours.pencil
  ctx.lineWidth = 1.4
  ctx.stroke()
}

function isStill(scene: Scene, pointId: string): boolean {
  return scene.sketchState?.solution.pointFreedoms.get(pointId) === 0
}

/** Loose ends and other places where the outline is not sound. */
export function paintFaults(ctx: CanvasRenderingContext2D, scene: Scene): void {
  for (const fault of scene.sketchState?.profile.faults ?? []) {
    if (fault.kind === 'open' && scene.overlay?.rubber) continue
    const at = toScreen(scene.view, fault.at)
    ctx.beginPath()
    ctx.arc(at.x, at.y, 9, 0, 2 * Math.PI)
    ctx.setLineDash([3, 2.5])
    ctx.strokeStyle = fault.kind === 'open' ? scene.colours.halo : scene.colours.conflict
    ctx.lineWidth = 1.4
    ctx.stroke()
    ctx.setLineDash([])
  }
}

/** What the tool is about to draw. */
export function paintOverlay(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { overlay, view, colours } = scene
  if (!overlay) return
  if (overlay.rubber) {
    const [a, b] = overlay.rubber.map((p) => toScreen(view, p))
    if (a && b) stroke(ctx, a, b, colours.pencil, 1.4)
  }
  if (overlay.box) {
    const [a, b] = overlay.box.map((p) => toScreen(view, p))
    if (a && b) {
      ctx.setLineDash([5, 4])
      ctx.strokeStyle = colours.halo
      ctx.lineWidth = 1.2
      ctx.strokeRect(a.x, a.y, b.x - a.x, b.y - a.y)
      ctx.setLineDash([])
    }
  }
  if (overlay.mark) {
    const at = toScreen(view, overlay.mark)
    ctx.beginPath()
    ctx.arc(at.x, at.y, 4, 0, 2 * Math.PI)
    ctx.strokeStyle = colours.halo
    ctx.lineWidth = 2
    ctx.stroke()
  }
}

function stroke(ctx: CanvasRenderingContext2D, a: Px, b: Px, colour: string, weight: number): void {
  ctx.beginPath()
  ctx.moveTo(a.x, a.y)
  ctx.lineTo(b.x, b.y)
  ctx.strokeStyle = colour
  ctx.lineWidth = weight
  ctx.lineCap = 'round'
  ctx.stroke()
}

function halo(ctx: CanvasRenderingContext2D, scene: Scene, a: Px, b: Px): void {
  ctx.globalAlpha = 0.4
  stroke(ctx, a, b, scene.colours.halo, 9)
  ctx.globalAlpha = 1
}

/** A saw-tooth beside a line: a disagreement is told by shape as well as by colour. */
function sawTooth(ctx: CanvasRenderingContext2D, a: Px, b: Px, colour: string): void {
  const length = Math.hypot(b.x - a.x, b.y - a.y)
  if (length < 8) return
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
  const teeth = Math.floor(length / 6)
  ctx.beginPath()
  for (let i = 0; i <= teeth; i++) {
    const along = (i * length) / teeth
    const off = i % 2 === 0 ? 4 : 8
    const x = a.x + ux * along - uy * off
    const y = a.y + uy * along + ux * off
    if (i === 0) ctx.moveTo(x, y)
    else ctx.lineTo(x, y)
  }
  ctx.strokeStyle = colour
  ctx.lineWidth = 1.2
  ctx.stroke()
}
