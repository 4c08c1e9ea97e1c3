import { boundsOf, type Piece } from '../geometry'
import { locator, piecesOf, type Role, type Sketch } from '../sketch'
import type { Part } from '../part'
import { escaped, num, pathOf } from './svg'

/** Room round the drawing, and widths of lines as ISO 128-2 has them in a group of 0.5, in mm. */
const MARGIN = 5
const WIDE = 0.5
const NARROW = 0.25

/** Long dashes for construction lines, dashes and dots for centre lines (ISO 128-2, line types 03 and 04.1). */
const DASHES: Readonly<Record<Role, string>> = {
  outline: '',
  construction: ' stroke-dasharray="6 1.5"',
  centre: ' stroke-dasharray="6 0.75 0.25 0.75"',
}

/**
 * A profile as SVG in mm, as it is drawn: its outline, and what guides it in dashes. Where the drawing's zero is, there
 * the datum lies; profiles of standing parts are drawn upright.
 * @returns undefined when nothing is drawn
 */
export function writeProfileSvg(sketch: Sketch, lie: Part['lie']): string | undefined {
  const locate = locator(sketch)
  const drawn = sketch.entities.map((e) => ({ role: e.role, pieces: piecesOf(e, locate) }))
  const pieces = drawn.flatMap((d) => [...d.pieces])
  if (pieces.length === 0) return undefined
  const turned = lie === 'standing' && sketch.plane === 'half'
  const boxes = pieces.map(boundsOf)
  const [left, right] = [
    Math.min(0, ...boxes.map((b) => b.min.x)) - MARGIN,
    Math.max(0, ...boxes.map((b) => b.max.x)) + MARGIN,
  ]
  const [low, high] = [
    Math.min(0, ...boxes.map((b) => b.min.y)) - MARGIN,
    Math.max(0, ...boxes.map((b) => b.max.y)) + MARGIN,
  ]
  const [w, h] = turned ? [high - low, right - left] : [right - left, high - low]
  const [u, v] = turned ? [low, -right] : [left, -high]
  const path = (role: Role, run: readonly Piece[]): string => {
    const width = role === 'outline' ? WIDE : NARROW
    return `<path stroke-width="${width}"${DASHES[role]} d="${pathOf(run, turned ? 1 : -1)}"/>`
  }
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${num(w)}mm" height="${num(h)}mm" viewBox="${[u, v, w, h].map(num).join(' ')}">`,
    `<title>${escaped(sketch.name)}</title>`,
    '<desc>Half-section of a turned part; lengths in mm, the datum at zero.</desc>',
    `<g fill="none" stroke="#000" stroke-linejoin="round"${turned ? ' transform="rotate(-90)"' : ''}>`,
    ...drawn.filter((d) => d.pieces.length > 0).map((d) => path(d.role, d.pieces)),
    '</g>',
    '</svg>',
    '',
  ].join('\n')
}
