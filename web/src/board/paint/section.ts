import { edgeKey, liesOnAxis, loopsOf, type Section, type SectionEdge } from '@lathica/core/section'
import { edgesIn, type SectionRef } from '../refs'
import { toScreen } from '../view'
import { addPiece } from './curve'
import { isLineClear, isPieceClear } from './patch'
import type { Scene } from './scene'

/** Distance of hatch lines in pixels. */
const HATCH_PITCH = 9

/** The material: hatched half-section, its outline, and the mirror image faint below the axis. */
export function paintSections(ctx: CanvasRenderingContext2D, scene: Scene): void {
  for (const [number, section] of scene.sections.entries()) {
    const area = areaPath(section, scene)
    const mirrored = mirroredPath(area, scene)
    ctx.fillStyle = scene.colours.mirror
    ctx.fill(mirrored, 'evenodd')
    ctx.strokeStyle = scene.colours.rule
    ctx.lineWidth = 1
    ctx.stroke(surfacePath(section, scene, -1, () => true))
    paintShoulders(ctx, section, mirrored, scene)
    ctx.fillStyle = scene.colours.material
    ctx.fill(area, 'evenodd')
    paintHatch(ctx, area, scene, number % 2 === 1)
    ctx.strokeStyle = scene.colours.ink
    ctx.lineWidth = scene.receding ? 2.2 : 1.6
    ctx.lineJoin = 'round'
    ctx.stroke(
      surfacePath(section, scene, 1, (e) => scene.receding || !scene.drawnSteps.has(e.name.step)),
    )
  }
}

/** All that a section covers. */
export function areaPath(section: Section, { view }: Pick<Scene, 'view'>): Path2D {
  const path = new Path2D()
  for (const loop of loopsOf(section)) {
    loop.forEach((edge, i) => addPiece(path, edge.piece, view, 1, i > 0))
    path.closePath()
  }
  return path
}

/** Its image on the other side of the axis. */
export function mirroredPath(path: Path2D, { view }: Pick<Scene, 'view'>): Path2D {
  const { x, y } = view.origin
  const image = new Path2D()
  const flip = view.lie === 'lying' ? [1, 0, 0, -1, 0, 2 * y] : [-1, 0, 0, 1, 2 * x, 0]
  image.addPath(path, new DOMMatrix(flip))
  return image
}

/** The edges that are surfaces; those along the axis only close the area. */
function surfacePath(
  section: Section,
  scene: Scene,
  side: 1 | -1,
  wanted: (edge: SectionEdge) => boolean,
): Path2D {
  const path = new Path2D()
  for (const edge of loopsOf(section).flat()) {
    if (liesOnAxis(edge) || !wanted(edge) || isPieceClear(scene, edge.piece, side)) continue
    addPiece(path, edge.piece, scene.view, side)
  }
  return path
}

/** On the mirror image every corner is a circle seen from the side: a line across the material. */
function paintShoulders(
  ctx: CanvasRenderingContext2D,
  section: Section,
  material: Path2D,
  scene: Scene,
): void {
  const { view } = scene
  ctx.save()
  ctx.clip(material, 'evenodd')
  ctx.beginPath()
  for (const { outer } of section.regions) {
    for (const [i, { piece, name }] of outer.entries()) {
      const next = outer[(i + 1) % outer.length]
      // Parts of one free curve go on from one another without a corner.
      const isCurve = piece.kind === 'cubic' && next?.piece.kind === 'cubic'
      if (piece.to.y <= 0 || (isCurve && edgeKey(name) === edgeKey(next.name))) continue
      const a = toScreen(view, { x: piece.to.x, y: -piece.to.y })
      const b = toScreen(view, { x: piece.to.x, y: 0 })
      if (isLineClear(scene, a, b)) continue
      ctx.moveTo(a.x, a.y)
      ctx.lineTo(b.x, b.y)
    }
  }
  ctx.stroke()
  ctx.restore()
}

/** 45° hatch (ISO 128-3), moving with the part so that it does not swim while one pans. */
function paintHatch(
  ctx: CanvasRenderingContext2D,
  path: Path2D,
  scene: Scene,
  leaningLeft: boolean,
): void {
  const { origin } = scene.view
  const pattern = hatchPattern(ctx, scene.colours.hatch)
  if (!pattern) return
  const ratio = ctx.getTransform().a
  // Every other body leans its hatch the other way, so that neighbours are told apart.
  const way = leaningLeft ? -1 : 1
  pattern.setTransform(new DOMMatrix([way / ratio, 0, 0, 1 / ratio, origin.x, origin.y]))
  ctx.fillStyle = pattern
  ctx.fill(path, 'evenodd')
}

/** The outline of what the opened step adds or takes away, in long dashes. */
export function paintTool(ctx: CanvasRenderingContext2D, scene: Scene): void {
  if (!scene.tool) return
  ctx.setLineDash([7, 4])
  ctx.strokeStyle = scene.colours.accent
  ctx.lineWidth = 1.2
  ctx.stroke(surfacePath(scene.tool, scene, 1, () => true))
  ctx.setLineDash([])
}

/** Areas to choose from: the chosen ones in the tone of what is chosen, the others bare. */
export function paintAreas(ctx: CanvasRenderingContext2D, scene: Scene): void {
  for (const { region, chosen, hover } of scene.areas) {
    const area = areaPath({ regions: [region] }, scene)
    ctx.globalAlpha = chosen ? 0.4 : 0.75
    ctx.fillStyle = chosen ? scene.colours.halo : scene.colours.paper
    ctx.fill(area, 'evenodd')
    ctx.globalAlpha = 1
    if (!hover) continue
    ctx.strokeStyle = scene.colours.halo
    ctx.lineWidth = 4
    ctx.stroke(area)
  }
}

/** Faces, circular edges and points in the halo of what is chosen; the one under the pointer stronger. */
export function paintRefs(ctx: CanvasRenderingContext2D, scene: Scene): void {
  for (const ref of scene.marked) paintRef(ctx, scene, ref, 0.4)
  if (scene.hoverRef) paintRef(ctx, scene, scene.hoverRef, 0.7)
}

function paintRef(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  ref: SectionRef,
  strength: number,
): void {
  const { view, colours } = scene
  const { corner, pole } = ref
  ctx.globalAlpha = strength
  ctx.strokeStyle = colours.halo
  ctx.lineCap = 'round'
  for (const edge of edgesIn(ref)) {
    for (const side of [1, -1] as const) {
      const path = new Path2D()
      addPiece(path, edge.piece, view, side)
      ctx.lineWidth = side === 1 ? 7 : 4
      ctx.stroke(path)
    }
  }
  if (corner) {
    const at = toScreen(view, corner.at)
    const image = toScreen(view, { x: corner.at.x, y: -corner.at.y })
    ctx.lineWidth = 3
    ctx.beginPath()
    ctx.moveTo(at.x, at.y)
    ctx.lineTo(image.x, image.y)
    ctx.globalAlpha = strength / 2
    ctx.stroke()
    ctx.globalAlpha = strength
    ctx.fillStyle = colours.halo
    ctx.beginPath()
    ctx.arc(at.x, at.y, 6, 0, 2 * Math.PI)
    ctx.fill()
  }
  if (pole) {
    const at = toScreen(view, pole.at)
    ctx.fillStyle = colours.halo
    ctx.beginPath()
    ctx.arc(at.x, at.y, 6, 0, 2 * Math.PI)
    ctx.fill()
  }
  ctx.globalAlpha = 1
}

const patterns = new Map<string, CanvasPattern | null>()

/** One pitch of the hatch as a tile, which fills an area in one stroke of the brush. */
function hatchPattern(ctx: CanvasRenderingContext2D, colour: string): CanvasPattern | null {
  const ratio = ctx.getTransform().a
  const key = `${colour} ${ratio}`
  const known = patterns.get(key)
  if (known !== undefined) return known
  const side = Math.max(1, Math.round(HATCH_PITCH * ratio))
  const tile = document.createElement('canvas')
  tile.width = side
  tile.height = side
  const brush = tile.getContext('2d')
  if (!brush) return null
  brush.strokeStyle = colour
  brush.lineWidth = 0.9 * ratio
  // The line and its neighbours, so that the tile's corners are whole.
  for (const shift of [-side, 0, side]) {
    brush.moveTo(shift - side, 2 * side)
    brush.lineTo(shift + 2 * side, -side)
  }
  brush.stroke()
  const made = ctx.createPattern(tile, 'repeat')
  patterns.set(key, made)
  return made
}
