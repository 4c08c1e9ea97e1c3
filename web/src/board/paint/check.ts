import type { Vec } from '@lathica/core/geometry'
import { acrossPane, toScreen, type Px } from '../view'
import { addPiece } from './curve'
import type { Scene } from './scene'

type Check = NonNullable<Scene['check']>
type Of<K extends Check['kind']> = Extract<Check, { kind: K }>

/** How long the longest teeth of a comb are, in pixels, and beyond what none goes. */
const TOOTH = 46
const LONGEST = 80
/** What a tooth of that length stands for: so large a share of all teeth are no longer. */
const USUAL = 0.95

/** What is looked at in the shape of the outline. */
export function paintCheck(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { check } = scene
  if (!check) return
  ctx.save()
  if (check.kind === 'curvature') paintCurvature(ctx, scene, check)
  else if (check.kind === 'wall') paintWall(ctx, scene, check)
  else paintDraw(ctx, scene, check)
  ctx.restore()
}

function paintCurvature(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  { comb, inflections, jumps }: Of<'curvature'>,
): void {
  const { colours } = scene
  const longest = usual(comb.flat().map((t) => Math.abs(t.value)))
  for (const run of comb) {
    // Away from the centre of curvature, so that the comb stands outside what bulges.
    const teeth = run.map(({ at, left, value }) => tooth(scene, at, left, -value / longest))
    paintTeeth(ctx, teeth, colours.accent)
  }
  ctx.lineWidth = 1.6
  for (const place of inflections) diamond(ctx, toScreen(scene.view, place), colours.accent)
  for (const { at } of jumps) ring(ctx, toScreen(scene.view, at), 7, colours.conflict)
}

function paintWall(ctx: CanvasRenderingContext2D, scene: Scene, { runs, least }: Of<'wall'>): void {
  const { colours } = scene
  const longest = usual(runs.flat().map((t) => t.value))
  for (const run of runs) {
    const teeth = run.map(({ at, inward, value }) => tooth(scene, at, inward, -value / longest))
    paintTeeth(ctx, teeth, colours.halo)
  }
  if (!least) return
  const [from, to] = [least.at, along(least.at, least.inward, least.value)].map((p) =>
    toScreen(scene.view, p),
  )
  if (!from || !to) return
  ctx.strokeStyle = colours.conflict
  ctx.lineWidth = 2.5
  ctx.beginPath()
  ctx.moveTo(from.x, from.y)
  ctx.lineTo(to.x, to.y)
  ctx.stroke()
  ring(ctx, from, 6, colours.conflict)
}

function paintDraw(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  { drawn, parting }: Of<'draw'>,
): void {
  const { colours, view, width, height } = scene
  // What is fine stays as it is; what is too steep is beaded, what is held back barred.
  for (const [verdict, tone, weight, dash] of [
    ['steep', colours.halo, 5, [1, 8]],
    ['undercut', colours.conflict, 11, [2, 4]],
  ] as const) {
    const path = new Path2D()
    drawn.forEach((d, i) => {
      const before = drawn[i - 1]
      const goesOn = before?.verdict === verdict && before.piece.to === d.piece.from
      if (d.verdict === verdict) addPiece(path, d.piece, view, 1, goesOn)
    })
    ctx.strokeStyle = tone
    ctx.lineCap = verdict === 'steep' ? 'round' : 'butt'
    ctx.lineWidth = weight
    ctx.setLineDash([...dash])
    ctx.stroke(path)
  }
  ctx.lineCap = 'butt'
  const [a, b] = acrossPane(view, parting, width, height)
  ctx.strokeStyle = colours.inkSoft
  ctx.lineWidth = 1
  // A chain line with two dots tells a plane that is no edge (ISO 128-2, type 05).
  ctx.setLineDash([14, 3, 2, 3, 2, 3])
  ctx.beginPath()
  ctx.moveTo(a.x, a.y)
  ctx.lineTo(b.x, b.y)
  ctx.stroke()
  ctx.setLineDash([])
}

/** The value that so large a share of all are not above. */
function usual(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(USUAL * (sorted.length - 1))] || 1
}

const along = (p: Vec, way: Vec, far: number): Vec => ({
  x: p.x + way.x * far,
  y: p.y + way.y * far,
})

/** From a place of the outline to the end of what stands on it. @param share of the usual length, with its side */
function tooth({ view }: Scene, at: Vec, way: Vec, share: number): readonly [Px, Px] {
  const px = Math.min(LONGEST, Math.abs(share) * TOOTH) * Math.sign(share)
  return [toScreen(view, at), toScreen(view, along(at, way, px / view.scale))]
}

/** Teeth with a wash between them and a line along their ends. */
function paintTeeth(
  ctx: CanvasRenderingContext2D,
  teeth: readonly (readonly [Px, Px])[],
  colour: string,
): void {
  const [first, ...rest] = teeth
  if (!first) return
  ctx.strokeStyle = colour
  ctx.fillStyle = colour
  ctx.beginPath()
  ctx.moveTo(first[0].x, first[0].y)
  for (const [foot] of rest) ctx.lineTo(foot.x, foot.y)
  for (const [, tip] of [...teeth].reverse()) ctx.lineTo(tip.x, tip.y)
  ctx.closePath()
  ctx.globalAlpha = 0.16
  ctx.fill()
  ctx.globalAlpha = 0.5
  ctx.lineWidth = 0.8
  ctx.beginPath()
  for (const [foot, tip] of teeth) {
    ctx.moveTo(foot.x, foot.y)
    ctx.lineTo(tip.x, tip.y)
  }
  ctx.stroke()
  ctx.globalAlpha = 1
  ctx.lineWidth = 1.4
  ctx.beginPath()
  ctx.moveTo(first[1].x, first[1].y)
  for (const [, tip] of rest) ctx.lineTo(tip.x, tip.y)
  ctx.stroke()
}

function ring(ctx: CanvasRenderingContext2D, at: Px, radius: number, colour: string): void {
  ctx.strokeStyle = colour
  ctx.lineWidth = 2
  ctx.beginPath()
  ctx.arc(at.x, at.y, radius, 0, 2 * Math.PI)
  ctx.stroke()
}

function diamond(ctx: CanvasRenderingContext2D, { x, y }: Px, colour: string): void {
  ctx.fillStyle = colour
  ctx.beginPath()
  ctx.moveTo(x, y - 6)
  ctx.lineTo(x + 6, y)
  ctx.lineTo(x, y + 6)
  ctx.lineTo(x - 6, y)
  ctx.closePath()
  ctx.fill()
}
