import type { Vec } from '@lathica/core/geometry'
import { toScreen, type Px } from '../view'
import { overlap, paintPlate, plateFor, type Plate } from './plate'
import type { Scene } from './scene'

/** From a face to the plate with its size, in pixels. */
const AWAY = 26
/** Plates that would lie on one another are put further out, by steps of this. */
const STEP = 22
/** Where none is free outwards, they go so far to the side. */
const BESIDE = 40
/** How high the label of a size is, in pixels. */
const LABEL_HIGH = 20

/** The sizes of the step that is looked at, on plates beside its faces. */
export function paintMarks(ctx: CanvasRenderingContext2D, scene: Scene): void {
  const { view, colours, width, height } = scene
  // The labels of sizes lie over the picture: plates keep clear of them.
  const placed: Plate[] = scene.sizes.map(({ label, width: wide }) => ({
    ...{ x: label.x - wide / 2, y: label.y - LABEL_HIGH / 2 },
    ...{ width: wide, height: LABEL_HIGH },
  }))
  for (const { at, words, out } of scene.marks) {
    const foot = toScreen(view, at)
    if (foot.x < 0 || foot.y < 0 || foot.x > width || foot.y > height) continue
    const plate = clearPlate(ctx, words, foot, directionOf(out, view.lie), placed, scene)
    if (!plate) continue
    placed.push(plate)
    ctx.strokeStyle = colours.ink
    ctx.lineWidth = 1
    ctx.beginPath()
    ctx.moveTo(foot.x, foot.y)
    ctx.lineTo(plate.x + plate.width / 2, plate.y + plate.height / 2)
    ctx.stroke()
    ctx.beginPath()
    ctx.arc(foot.x, foot.y, 2.4, 0, 2 * Math.PI)
    ctx.fillStyle = colours.ink
    ctx.fill()
    paintPlate(ctx, words, plate, colours)
  }
}

/** The way out of the material on the pane, square to the axis: plates stand in the clear. */
function directionOf(out: Vec, lie: 'lying' | 'standing'): Px {
  const away = out.y < -0.2 ? -1 : 1
  return lie === 'lying' ? { x: 0, y: -away } : { x: away, y: 0 }
}

/** The nearest place outwards of a face where its plate lies on no other, beside it where none is free. */
function clearPlate(
  ctx: CanvasRenderingContext2D,
  words: string,
  foot: Px,
  way: Px,
  placed: readonly Plate[],
  { width, height }: Scene,
): Plate | undefined {
  const bare = plateFor(ctx, words, { x: 0, y: 0 })
  const reach = Math.abs(way.x) * (bare.width / 2)
  for (const aside of [0, 1, -1]) {
    for (let far = 0; far < 8; far++) {
      const away = AWAY + far * STEP
      const beside = aside * (bare.width / 2 + BESIDE) * Math.abs(way.y)
      const at = {
        x: foot.x + way.x * (away + reach) + beside - bare.width / 2,
        y: foot.y + way.y * away - bare.height / 2 - Math.abs(way.x) * far * 6,
      }
      const plate = {
        ...bare,
        x: Math.min(width - bare.width - 2, Math.max(2, at.x)),
        y: Math.min(height - bare.height - 2, Math.max(2, at.y)),
      }
      if (!placed.some((p) => overlap(p, plate))) return plate
    }
  }
  return undefined
}
