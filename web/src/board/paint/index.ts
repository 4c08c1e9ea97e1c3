import { roundLength } from '../view'
import type { Patch, Scene } from './scene'
import { paintCheck } from './check'
import { paintEnd } from './end'
import { paintGrid } from './grid'
import { paintMarks } from './marks'
import { paintKnurls, paintThreads, paintZones } from './threads'
import { paintPicture } from './picture'
import { paintAreas, paintRefs, paintSections, paintTool } from './section'
import { paintSizes } from './sizes'
import {
  paintAxis,
  paintBehind,
  paintBreak,
  paintFaults,
  paintOverlay,
  paintSketch,
} from './sketch'

export { changedPatch } from './changed'
export type { Scene } from './scene'

/** Paints the whole board, in CSS pixels; the context carries the device's scale. */
export function paintBoard(ctx: CanvasRenderingContext2D, scene: Scene): void {
  // Each picture begins alike, whatever the one before ended with.
  ctx.save()
  ctx.fillStyle = scene.colours.paper
  // A pane's size need not be whole pixels; the last ones are filled too.
  ctx.fillRect(0, 0, scene.width + 1, scene.height + 1)
  paintPicture(ctx, scene)
  paintGrid(ctx, scene)
  if (scene.end) paintEnd(ctx, scene, scene.end)
  else paintSections(ctx, scene)
  paintBehind(ctx, scene)
  paintTool(ctx, scene)
  paintAxis(ctx, scene)
  paintBreak(ctx, scene)
  paintAreas(ctx, scene)
  paintRefs(ctx, scene)
  paintSizes(ctx, scene)
  paintSketch(ctx, scene)
  paintCheck(ctx, scene)
  paintFaults(ctx, scene)
  paintThreads(ctx, scene)
  paintZones(ctx, scene)
  paintKnurls(ctx, scene)
  paintMarks(ctx, scene)
  paintOverlay(ctx, scene)
  paintScaleBar(ctx, scene)
  ctx.restore()
}

/** Paints a part of the board anew: whole pixels, so that nothing shows where it ends. */
export function paintPatch(ctx: CanvasRenderingContext2D, scene: Scene, patch: Patch): void {
  const ratio = ctx.getTransform().a
  const [left, top] = [patch[0], patch[1]].map((v) => Math.floor(v * ratio) / ratio)
  const [right, bottom] = [patch[2], patch[3]].map((v) => Math.ceil(v * ratio) / ratio)
  if (left === undefined || top === undefined || right === undefined || bottom === undefined) return
  ctx.save()
  ctx.beginPath()
  ctx.rect(left, top, right - left, bottom - top)
  ctx.clip()
  paintBoard(ctx, { ...scene, patch })
  ctx.restore()
}

/** A bar of a round length, so that a drawing without sizes has a scale too. */
function paintScaleBar(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { view, height, colours } = scene
  const width = roundLength(view, 110, scene.unit) * view.scale
  const y = height - 12
  ctx.beginPath()
  ctx.moveTo(14, y - 4)
  ctx.lineTo(14, y)
  ctx.lineTo(14 + width, y)
  ctx.lineTo(14 + width, y - 4)
  ctx.strokeStyle = colours.pencil
  ctx.lineWidth = 1
  ctx.stroke()
}
