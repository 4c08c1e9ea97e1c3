import type { Colours } from '../colours'
import type { Px } from '../view'

/** A rectangle in pixels. */
export interface Plate {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

const HIGH = 19

/** How large a plate words need, from its upper left corner. */
export function plateFor(ctx: CanvasRenderingContext2D, words: string, at: Px): Plate {
  ctx.font = '12px "IBM Plex Mono", monospace'
  return { ...at, width: ctx.measureText(words).width + 12, height: HIGH }
}

export const overlap = (a: Plate, b: Plate): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

/** Words on a plate of ink. */
export function paintPlate(
  ctx: CanvasRenderingContext2D,
  words: string,
  { x, y, width, height }: Plate,
  colours: Colours,
): void {
  ctx.font = '12px "IBM Plex Mono", monospace'
  ctx.fillStyle = colours.ink
  ctx.beginPath()
  ctx.roundRect(x, y, width, height, 3)
  ctx.fill()
  ctx.fillStyle = colours.paper
  ctx.textBaseline = 'middle'
  ctx.textAlign = 'left'
  ctx.fillText(words, x + 6, y + height / 2 + 0.5)
}
