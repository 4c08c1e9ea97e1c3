import type { Colours } from '../colours'
import type { Plate } from './plate'
import type { Note } from '@lathica/core/part'
import { noteCells, type Cell } from '@lathica/core/notes'
import { wordCells } from '../../notes/kind'

const HIGH = 20
const SYMBOL = 16
const BESIDE = 5
const FONT = '12px "IBM Plex Mono", monospace'

/** A note in cells: a frame has one for its symbol, one for its zone, and one for each datum (ISO 1101). */
export const cellsOf = (note: Note, words: string): readonly Cell[] =>
  noteCells(note, words).flatMap((cell) => ('words' in cell ? wordCells(cell.words) : [cell]))

const widthOf = (ctx: CanvasRenderingContext2D, cell: Cell): number =>
  2 * BESIDE + ('words' in cell ? ctx.measureText(cell.words).width : SYMBOL)

/** How large a plate cells need. */
export function notePlateFor(ctx: CanvasRenderingContext2D, cells: readonly Cell[]): Plate {
  ctx.font = FONT
  const width = cells.reduce((sum, cell) => sum + widthOf(ctx, cell), 0)
  return { x: 0, y: 0, width, height: HIGH }
}

/** Cells side by side on paper, in ink; what cannot stand as it is in the colour of conflicts. */
export function paintNotePlate(
  ctx: CanvasRenderingContext2D,
  cells: readonly Cell[],
  { x, y, width, height }: Plate,
  colours: Colours,
  wrong: boolean,
): void {
  const ink = wrong ? colours.conflict : colours.ink
  ctx.font = FONT
  ctx.fillStyle = colours.paper
  ctx.fillRect(x, y, width, height)
  ctx.strokeStyle = ink
  ctx.lineWidth = 1
  ctx.strokeRect(x + 0.5, y + 0.5, width - 1, height - 1)
  ctx.textBaseline = 'middle'
  ctx.textAlign = 'left'
  let left = x
  cells.forEach((cell, i) => {
    if (i > 0) {
      ctx.beginPath()
      ctx.moveTo(left + 0.5, y)
      ctx.lineTo(left + 0.5, y + height)
      ctx.stroke()
    }
    if ('words' in cell) {
      ctx.fillStyle = ink
      ctx.fillText(cell.words, left + BESIDE, y + height / 2 + 0.5)
    } else {
      ctx.save()
      ctx.translate(left + BESIDE, y + (height - SYMBOL) / 2)
      ctx.lineWidth = 1.2
      ctx.stroke(new Path2D(cell.symbol))
      ctx.restore()
    }
    left += widthOf(ctx, cell)
  })
}
