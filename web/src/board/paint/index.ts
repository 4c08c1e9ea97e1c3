import { roundLength } from '../view'
import type { Scene } from './scene'
import { paintEnd } from './end'
import { paintGrid } from './grid'
import { paintMarks } from './marks'
import { paintAreas, paintRefs, paintSections, paintTool } from './section'
import { paintSizes } from './sizes'
import { paintAxis, paintFaults, paintOverlay, paintSketch } from './sketch'

export type { Scene } from './scene'

/** Paints the whole board, in CSS pixels; the context carries the device's scale. */
export function paintBoard(ctx: CanvasRenderingContext2D, scene: Scene): void {
  ctx.fillStyle = scene.colours.paper
  // A pane's size need not be whole pixels; the last ones are filled too.
  ctx.fillRect(0, 0, scene.width + 1, scene.height + 1)
  paintGrid(ctx, scene)
  if (scene.end) paintEnd(ctx, scene, scene.end)
  else paintSections(ctx, scene)
  paintTool(ctx, scene)
  paintAxis(ctx, scene)
  paintAreas(ctx, scene)
  paintRefs(ctx, scene)
  paintSizes(ctx, scene)
  paintSketch(ctx, scene)
  paintFaults(ctx, scene)
  paintMarks(ctx, scene)
  paintOverlay(ctx, scene)
  paintScaleBar(ctx, scene)
}

/** A bar of a round length, so that a drawing without sizes has a scale too. */
function paintScaleBar(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { view, height, colours } = scene
  const width = roundLength(view, 110) * view.scale
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
