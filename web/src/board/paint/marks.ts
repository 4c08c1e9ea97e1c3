import type { Px } from '../view'
import { paintPlate, type Plate } from './plate'
import { paintNotePlate } from './notePlate'
import { layPlates } from './lay'
import type { Scene } from './scene'

/** The sizes of the step that is looked at, and what is said of faces, on plates beside them. */
export function paintMarks(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { colours } = scene
  const { sizes, notes, general } = layPlates(scene)
  const leader = (foot: Px, plate: Plate, colour: string): void => {
    ctx.strokeStyle = colour
    ctx.lineWidth = 1
    ctx.beginPath()
    ctx.moveTo(foot.x, foot.y)
    ctx.lineTo(plate.x + plate.width / 2, plate.y + plate.height / 2)
    ctx.stroke()
    ctx.beginPath()
    ctx.arc(foot.x, foot.y, 2.4, 0, 2 * Math.PI)
    ctx.fillStyle = colour
    ctx.fill()
  }
  for (const { foot, plate, words } of sizes) {
    leader(foot, plate, colours.ink)
    paintPlate(ctx, words, plate, colours)
  }
  // A leader may run behind the plate of another note.
  for (const { foot, plate, mark } of notes) {
    leader(foot, plate, mark.wrong ? colours.conflict : colours.inkSoft)
  }
  for (const { plate, mark } of notes) {
    paintNotePlate(ctx, mark.cells, plate, colours, mark.wrong)
  }
  for (const { plate, cells } of general) paintNotePlate(ctx, cells, plate, colours, false)
}
