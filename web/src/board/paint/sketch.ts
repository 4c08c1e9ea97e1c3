import { pointsAlong, type Piece } from '@lathica/core/geometry'
import {
  AXIS_ID,
  locator,
  piecesOf,
  pointsOf,
  type Entity,
  type Sketch,
  isFree,
  legsOf,
} from '@lathica/core/sketch'
import { BREAK_IN, edgeOut } from '../beyond'
import { toScreen, type Px } from '../view'
import { addPiece } from './curve'
import { isClear, isPieceClear } from './patch'
import type { Overlay } from '../tools'
import type { Scene } from './scene'

/** Dashes: centre lines are chain lines, construction lines long thin dashes (ISO 128-2). */
const CHAIN = [16, 3, 3, 3]
const LONG_DASH = [10, 5]

/** Arcs are drawn by chords within this, in pixels. */
const CHORD_PX = 0.15

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

/** Teeth of the break line stand so far apart and are so high, in pixels. */
const TEETH = [120, 14, 9] as const

/** A thin line with zigzags (ISO 128-2, line type 01.1.19) along the edge beyond which the axis lies. */
export function paintBreak(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { view, width, height, colours } = scene
  if (edgeOut(view, height) <= 0) return
  const lying = view.lie === 'lying'
  const length = lying ? width : height
  const [pitch, wide, high] = TEETH
  const at = (along: number, up: number): Px =>
    lying ? { x: along, y: height - BREAK_IN - up } : { x: BREAK_IN + up, y: along }
  ctx.beginPath()
  const start = at(0, 0)
  ctx.moveTo(start.x, start.y)
  for (let tooth = pitch / 2; tooth < length; tooth += pitch) {
    for (const [along, up] of [
      [tooth - wide / 2, 0],
      [tooth - wide / 4, high],
      [tooth + wide / 4, -high],
      [tooth + wide / 2, 0],
    ] as const) {
      const p = at(along, up)
      ctx.lineTo(p.x, p.y)
    }
  }
  const end = at(length, 0)
  ctx.lineTo(end.x, end.y)
  ctx.strokeStyle = colours.pencil
  ctx.lineWidth = 1
  ctx.stroke()
}

/** Curves in pencil or in ink, points open or solid, with halos round what is hovered or picked. */
export function paintSketch(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { sketch } = scene
  if (!sketch) return
  const locate = locator(sketch)
  const batches = new Map<string, StrokeBatch>()
  for (const e of sketch.entities) {
    const pieces = piecesOf(e, locate).filter((piece) => !isPieceClear(scene, piece))
    if (pieces.length === 0) continue
    if (scene.picks.has(e.id) || scene.hover === e.id) {
      const path = new Path2D()
      for (const piece of pieces) addPiece(path, piece, scene.view)
      haloAlong(ctx, scene, path)
    }
    const batch = batchFor(batches, styleOf(scene, e))
    for (const piece of pieces) {
      addPiece(batch.path, piece, scene.view)
      if (scene.troubled.has(e.id)) batch.troubled.push(chordsOf(piece, scene))
    }
  }
  ctx.lineCap = 'round'
  ctx.lineJoin = 'round'
  for (const { style, path, troubled } of batches.values()) {
    ctx.strokeStyle = style.tone
    ctx.lineWidth = style.width
    ctx.setLineDash(style.dash)
    ctx.stroke(path)
    ctx.setLineDash([])
    for (const points of troubled) sawTooth(ctx, points, style.tone)
  }
  paintHandles(ctx, scene, sketch)
  paintPoints(ctx, scene, sketch)
}

/** Other profiles that are shown, as fine lines without points. */
export function paintBehind(ctx: CanvasRenderingContext2D, scene: Scene): void {
  ctx.strokeStyle = scene.colours.pencil
  ctx.lineWidth = 0.8
  for (const sketch of scene.behind) {
    const locate = locator(sketch)
    const [outline, guides] = [new Path2D(), new Path2D()]
    for (const e of sketch.entities) {
      for (const piece of piecesOf(e, locate)) {
        if (!isPieceClear(scene, piece))
          addPiece(e.role === 'outline' ? outline : guides, piece, scene.view)
      }
    }
    ctx.stroke(outline)
    ctx.setLineDash([4, 4])
    ctx.stroke(guides)
    ctx.setLineDash([])
  }
}

/** Fine dotted lines from the ends of a free curve to its handles, which tell its directions, and along its frame. */
function paintHandles(ctx: CanvasRenderingContext2D, scene: Scene, sketch: Sketch): void {
  if (scene.receding) return
  const locate = locator(sketch)
  ctx.setLineDash([1.5, 3])
  for (const e of sketch.entities) {
    if (!isFree(e)) continue
    for (const [end, handle] of legsOf(e)) {
      const [a, b] = [end, handle].map((p) => toScreen(scene.view, locate(p)))
      if (a && b) stroke(ctx, a, b, scene.colours.pencil, 1)
    }
  }
  ctx.setLineDash([])
}

/** How a curve is drawn: what alike curves have in common, so that they are one stroke of the brush. */
interface StrokeStyle {
  readonly tone: string
  readonly width: number
  readonly dash: number[]
}

interface StrokeBatch {
  readonly style: StrokeStyle
  readonly path: Path2D
  readonly troubled: (readonly Px[])[]
}

const SOLID: number[] = []

function styleOf(scene: Scene, entity: Entity): StrokeStyle {
  const { colours } = scene
  const troubled = scene.troubled.has(entity.id)
  const inked = pointsOf(entity).every((p) => isStill(scene, p))
  const tone = troubled ? colours.conflict : inked ? colours.ink : colours.pencil
  if (entity.role === 'outline') {
    if (scene.receding && !troubled) return { tone: colours.pencil, width: 0.9, dash: SOLID }
    return { tone, width: inked || troubled ? 2.4 : 1.2, dash: SOLID }
  }
  const dash = entity.role === 'centre' ? CHAIN : LONG_DASH
  return { tone, width: inked ? 1.2 : 0.9, dash }
}

function batchFor(batches: Map<string, StrokeBatch>, style: StrokeStyle): StrokeBatch {
  const key = `${style.tone} ${style.width} ${style.dash.join()}`
  const known = batches.get(key)
  if (known) return known
  const batch = { style, path: new Path2D(), troubled: [] }
  batches.set(key, batch)
  return batch
}

function chordsOf(piece: Piece, { view }: Scene): readonly Px[] {
  return pointsAlong(piece, CHORD_PX / view.scale).map((p) => toScreen(view, p))
}

/** Ends are rings or dots; centres are small crosses; rims of circles show only when looked at. */
function paintPoints(ctx: CanvasRenderingContext2D, scene: Scene, sketch: Sketch): void {
  const { colours, view } = scene
  const middles = new Set(sketch.entities.flatMap((e) => ('centre' in e ? [e.centre] : [])))
  const rims = new Set(sketch.entities.flatMap((e) => (e.kind === 'circle' ? [e.rim] : [])))
  const [dots, rings] = [new Path2D(), new Path2D()]
  const [troubledRings, holes] = [new Path2D(), new Path2D()]
  const [stillCrosses, looseCrosses] = [new Path2D(), new Path2D()]
  for (const p of sketch.points) {
    const marked = scene.picks.has(p.id) || scene.hover === p.id
    if (scene.receding && !marked) continue
    if (rims.has(p.id) && !marked) continue
    const at = toScreen(view, p)
    if (isClear(scene, at)) continue
    if (marked) pointHalo(ctx, scene, at, scene.picks.has(p.id))
    const still = isStill(scene, p.id)
    if (middles.has(p.id)) addCross(still ? stillCrosses : looseCrosses, at)
    else if (still) addDot(dots, at, 3)
    else {
      addDot(scene.troubled.has(p.id) ? troubledRings : rings, at, 4.1)
      addDot(holes, at, 2.7)
    }
  }
  // A ring is a dot with a smaller one on it, which takes a third of the time of a stroke.
  for (const [path, tone] of [
    [dots, colours.ink],
    [rings, colours.pencil],
    [troubledRings, colours.conflict],
    [holes, colours.paper],
  ] as const) {
    ctx.fillStyle = tone
    ctx.fill(path)
  }
  ctx.lineWidth = 1
  ctx.strokeStyle = colours.ink
  ctx.stroke(stillCrosses)
  ctx.strokeStyle = colours.pencil
  ctx.stroke(looseCrosses)
}

function pointHalo(
  ctx: CanvasRenderingContext2D,
  { colours }: Scene,
  at: Px,
  picked: boolean,
): void {
  ctx.beginPath()
  ctx.arc(at.x, at.y, 8, 0, 2 * Math.PI)
  ctx.fillStyle = colours.halo
  ctx.globalAlpha = picked ? 0.55 : 0.35
  ctx.fill()
  ctx.globalAlpha = 1
}

function addDot(path: Path2D, at: Px, radius: number): void {
  path.moveTo(at.x + radius, at.y)
  path.arc(at.x, at.y, radius, 0, 2 * Math.PI)
}

function addCross(path: Path2D, at: Px): void {
  path.moveTo(at.x - 4, at.y)
  path.lineTo(at.x + 4, at.y)
  path.moveTo(at.x, at.y - 4)
  path.lineTo(at.x, at.y + 4)
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
  if (overlay.band) paintBand(ctx, scene, overlay.band)
  for (const piece of overlay.rubber ?? []) {
    ctx.strokeStyle = colours.pencil
    ctx.lineWidth = 1.4
    ctx.lineCap = 'round'
    const path = new Path2D()
    addPiece(path, piece, scene.view)
    ctx.stroke(path)
  }
  if (overlay.guides && overlay.guides.length > 0) {
    ctx.setLineDash([2, 4])
    for (const [p, q] of overlay.guides) {
      stroke(ctx, toScreen(view, p), toScreen(view, q), colours.halo, 1.2)
    }
    ctx.setLineDash([])
  }
  if (overlay.box) {
    const [a, b] = overlay.box.map((p) => toScreen(view, p))
    if (a && b) {
      ctx.setLineDash(overlay.touching === true ? [2, 3] : [9, 3])
      ctx.strokeStyle = colours.halo
      ctx.lineWidth = 1.2
      ctx.strokeRect(a.x, a.y, b.x - a.x, b.y - a.y)
      ctx.setLineDash([])
    }
  }
  for (const place of overlay.marks ?? []) {
    const at = toScreen(view, place)
    ctx.beginPath()
    ctx.arc(at.x, at.y, 3.5, 0, 2 * Math.PI)
    ctx.fillStyle = colours.paper
    ctx.fill()
    ctx.strokeStyle = colours.pencil
    ctx.lineWidth = 1.4
    ctx.stroke()
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

/** What a curve departs from, as wide to both sides as it departs at most. */
function paintBand(
  ctx: CanvasRenderingContext2D,
  { view, colours }: Scene,
  { pieces, by }: NonNullable<Overlay['band']>,
): void {
  const path = new Path2D()
  pieces.forEach((piece, i) => addPiece(path, piece, view, 1, i > 0))
  ctx.globalAlpha = 0.45
  ctx.strokeStyle = colours.halo
  ctx.lineWidth = Math.max(1, 2 * by * view.scale)
  ctx.lineCap = 'butt'
  ctx.lineJoin = 'round'
  ctx.stroke(path)
  ctx.globalAlpha = 1
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

function haloAlong(ctx: CanvasRenderingContext2D, scene: Scene, path: Path2D): void {
  ctx.globalAlpha = 0.4
  ctx.strokeStyle = scene.colours.halo
  ctx.lineWidth = 9
  ctx.lineCap = 'round'
  ctx.lineJoin = 'round'
  ctx.stroke(path)
  ctx.globalAlpha = 1
}

/** A saw-tooth beside a curve: a disagreement is told by shape as well as by colour. */
function sawTooth(ctx: CanvasRenderingContext2D, points: readonly Px[], colour: string): void {
  ctx.beginPath()
  points.slice(1).forEach((b, i) => {
    const a = points[i] ?? b
    const length = Math.hypot(b.x - a.x, b.y - a.y)
    const [ux, uy] = [(b.x - a.x) / (length || 1), (b.y - a.y) / (length || 1)]
    const teeth = Math.max(1, Math.floor(length / 6))
    for (let k = 0; k <= teeth; k++) {
      const along = (k * length) / teeth
      const off = k % 2 === 0 ? 4 : 8
      const x = a.x + ux * along - uy * off
      const y = a.y + uy * along + ux * off
      if (k === 0 && i === 0) ctx.moveTo(x, y)
      else ctx.lineTo(x, y)
    }
  })
  ctx.strokeStyle = colour
  ctx.lineWidth = 1.2
  ctx.stroke()
}
