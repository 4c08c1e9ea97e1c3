import { line, vec, type Piece, type Vec } from '../../geometry'
import type { Group, Item } from '../items'
import { widthOf } from '../lettering'
import { spaceOf, type Paper } from './sizes'

/** Fields of the grid along the edges are so long, counted from the middle, in mm (ISO 5457:1999, 4.4). */
const FIELD = 50
/** Width of the strip that they stand in, and height of their letters, in mm. */
const STRIP = 5
const LETTER = 3.5
/** How far centring marks reach into the frame, in mm (ISO 5457:1999, 4.3). */
const INTO = 5
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ'

/** Frame, grid and centring marks (ISO 5457:1999, 4.2 to 4.4). */
export function frameOf(paper: Paper): Group {
  const { x, y, width, height } = spaceOf(paper)
  const [right, top] = [x + width, y + height]
  const items: Item[] = [
    { kind: 'stroke', line: 'wide', runs: [rectangle(x, y, width, height)] },
    { kind: 'stroke', line: 'wide', runs: centringMarks(paper) },
  ]
  const marks: Piece[][] = []
  const words = (text: string, at: Vec): void => {
    const start = vec(at.x - widthOf(text, LETTER) / 2, at.y - LETTER / 2)
    items.push({ kind: 'words', at: start, height: LETTER, turned: false, text })
  }
  // On A4 they stand above and on the right only.
  const isSmall = paper.name === 'A4'
  fieldsOf(paper.width / 2, x, right).forEach(([from, to], i) => {
    const edges = isSmall ? [top] : [top, y - STRIP]
    for (const low of edges) {
      if (from > x) marks.push([line(vec(from, low), vec(from, low + STRIP))])
      if (to - from > 2 * LETTER) words(String(i + 1), vec((from + to) / 2, low + STRIP / 2))
    }
  })
  const rows = fieldsOf(paper.height / 2, y, top)
  rows.forEach(([from, to], i) => {
    const edges = isSmall ? [right] : [right, x - STRIP]
    for (const low of edges) {
      if (from > y) marks.push([line(vec(low, from), vec(low + STRIP, from))])
      // Letters run from the top down.
      const letter = LETTERS[rows.length - 1 - i] ?? ''
      if (to - from > 2 * LETTER) words(letter, vec(low + STRIP / 2, (from + to) / 2))
    }
  })
  items.push({ kind: 'stroke', line: 'narrow', runs: marks })
  return { role: 'frame', id: '', said: '', items }
}

/** The field of the grid that a place lies in, as in `C4`. */
export function fieldAt(paper: Paper, { x, y }: Vec): string {
  const space = spaceOf(paper)
  const columns = fieldsOf(paper.width / 2, space.x, space.x + space.width)
  const rows = fieldsOf(paper.height / 2, space.y, space.y + space.height)
  const within = (fields: [number, number][], at: number): number =>
    Math.max(
      0,
      fields.findIndex(([from, to]) => at >= from && at <= to),
    )
  return `${LETTERS[rows.length - 1 - within(rows, y)] ?? ''}${within(columns, x) + 1}`
}

/** From the middle to both sides; what is left over at the ends is a field of its own. */
function fieldsOf(middle: number, from: number, to: number): [number, number][] {
  const stops = [from]
  const first = middle - Math.floor((middle - from) / FIELD) * FIELD
  for (let at = first; at < to - 1; at += FIELD) if (at > from + 1) stops.push(at)
  stops.push(to)
  return stops.slice(1).map((end, i) => [stops[i] ?? from, end])
}

function centringMarks(paper: Paper): Piece[][] {
  const { x, y, width, height } = spaceOf(paper)
  const [cx, cy] = [paper.width / 2, paper.height / 2]
  return [
    [line(vec(0, cy), vec(x + INTO, cy))],
    [line(vec(paper.width, cy), vec(x + width - INTO, cy))],
    [line(vec(cx, 0), vec(cx, y + INTO))],
    [line(vec(cx, paper.height), vec(cx, y + height - INTO))],
  ]
}

export function rectangle(x: number, y: number, w: number, h: number): Piece[] {
  const [a, b, c, d] = [vec(x, y), vec(x + w, y), vec(x + w, y + h), vec(x, y + h)]
  return [line(a, b), line(b, c), line(c, d), line(d, a)]
}
