import { controlOf, pointAt, radiusOf, sweepOf, type Piece, type Vec } from '../geometry'

/**
 * Pieces that follow one another as an SVG path (SVG 2, 9.3): lines, arcs and cubics as they are.
 * @param side −1 above the axis, as y of a picture goes down; 1 for the image below it
 */
export function pathOf(pieces: readonly Piece[], side: 1 | -1): string {
  const [first] = pieces
  if (!first) return ''
  const at = ({ x, y }: Vec): string => `${num(x)} ${num(side * y)}`
  const drawn = pieces.map((piece): string => {
    if (piece.kind === 'line') return `L${at(piece.to)}`
    if (piece.kind === 'cubic') return `C${controlOf(piece).slice(1).map(at).join(' ')}`
    // Of a picture's y downwards, what runs counter-clockwise above the axis runs clockwise below it.
    const turn = piece.counterClockwise === side < 0 ? 0 : 1
    const r = num(radiusOf(piece))
    const large = Math.abs(sweepOf(piece)) / 2 > Math.PI ? 1 : 0
    // Half by half, so that even a full circle has two ends.
    const halves = [pointAt(piece, 0.5), piece.to]
    return halves.map((to) => `A${r} ${r} 0 ${large} ${turn} ${at(to)}`).join('')
  })
  return `M${at(first.from)}${drawn.join('')}`
}

/** To a nanometre. */
export const num = (value: number): string => String(Number(value.toFixed(6)) + 0)

export const escaped = (text: string): string =>
  text.replace(/[<>&"]/g, (c) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;' })[c] ?? '&quot;')
