import { line, vec, type Piece } from '../../geometry'
import {
  PLAIN_BLOCK,
  sumOf,
  type BlockField,
  type DrawingSetup,
  type TitleBlock,
  type TitleFields,
} from '../../part'
import type { Group, Item } from '../items'
import { CHARACTER, shortened } from '../lettering'
import { ring } from '../views/turned'
import { rectangle } from './frame'
import { markItems } from './mark'
import { spaceOf, type Paper, type Room } from './sizes'

/** What the part says itself. */
export interface TitleOwn {
  readonly name: string
  readonly material: string
  readonly mass: string
  readonly general: string
  readonly scale: string
  readonly projection: 'first' | 'third'
  readonly sheet: string
}

/** The block of a drawing, and how wide and high it is, in mm: a sheet that is narrower has it narrower. */
export function blockOf({ block = PLAIN_BLOCK }: DrawingSetup, { width }: Room): Block {
  return {
    block,
    width: Math.min(sumOf(block.columns), width),
    height: sumOf(block.rows),
  }
}

export interface Block {
  readonly block: TitleBlock
  readonly width: number
  readonly height: number
}

/** A field: where it stands on the sheet, its label, and what is in it. */
interface Field {
  readonly room: Room
  readonly label: string
  readonly value: string
  /** Height of its letters in mm, less where they would not fit. */
  readonly letter: number
}

/** The title block, in the lower right corner of the frame (ISO 7200:2004). */
export function titleOf(
  paper: Paper,
  { block, width, height }: Block,
  fields: TitleFields,
  own: TitleOwn,
): Group {
  const space = spaceOf(paper)
  const by = width / sumOf(block.columns)
  const corner = vec(space.x + space.width - width, space.y + height)
  const before = (lines: readonly number[], n: number): number => sumOf(lines.slice(0, n))
  const values = valuesOf(paper, fields, own)
  const items = block.cells.flatMap((c): Item[] => {
    const [x, w] = [
      before(block.columns, c.column),
      sumOf(block.columns.slice(c.column, c.column + c.across)),
    ]
    const high = sumOf(block.rows.slice(c.row, c.row + c.down))
    const room: Room = {
      ...{ x: corner.x + x * by, y: corner.y - before(block.rows, c.row) - high },
      ...{ width: w * by, height: high },
    }
    const value = c.shows === 'words' ? c.words : c.shows === 'mark' ? '' : values[c.shows]
    return [
      ...fieldItems({ room, label: c.label, value, letter: c.letter }),
      ...(c.shows === 'projection' ? projectionSymbol(room, own.projection) : []),
      ...(c.shows === 'mark' && block.mark ? markItems(block.mark, room, c.label !== '') : []),
    ]
  })
  const frame: Item = {
    ...{ kind: 'stroke', line: 'wide' },
    runs: [rectangle(corner.x, space.y, width, height)],
  }
  return { role: 'title', id: '', said: 'Title block', items: [...items, frame] }
}

const valuesOf = (
  paper: Paper,
  fields: TitleFields,
  own: TitleOwn,
): Readonly<Record<BlockField, string>> => ({
  ...{ owner: fields.owner, number: fields.number, creator: fields.creator },
  ...{ approver: fields.approver, date: fields.date, revision: fields.revision },
  ...{ status: fields.status, title: own.name, type: 'part drawing', scale: own.scale },
  ...{ sheet: own.sheet, paper: paper.name, material: own.material, mass: own.mass },
  ...{ general: own.general, projection: '' },
})

const LABEL = 1.8

function fieldItems({ room, label, value, letter }: Field): Item[] {
  const fitting = Math.min(letter, (room.width - 3) / (Math.max(1, [...value].length) * CHARACTER))
  const height = Math.max(1.8, fitting)
  const text = shortened(value, room.width - 3, height)
  const top = room.y + room.height
  const words = (t: string, y: number, h: number): Item[] =>
    t === '' ? [] : [{ kind: 'words', at: vec(room.x + 1.5, y), height: h, turned: false, text: t }]
  return [
    { kind: 'stroke', line: 'narrow', runs: [rectangle(room.x, room.y, room.width, room.height)] },
    ...words(label, top - LABEL - 1, LABEL),
    ...words(
      text,
      room.y + (room.height - LABEL - 1.4 - height) / 2 + (room.height > 10 ? 0.6 : 0.3),
      height,
    ),
  ]
}

/** A cone from beside and from its end; which end stands where tells the method (ISO 5456-2:1996, 5.1 and 5.2). */
function projectionSymbol({ x, y, width, height }: Room, method: 'first' | 'third'): Item[] {
  const [cx, cy] = [x + width / 2, y + height / 2 - 1.2]
  // Smaller in a cell that is.
  const size = Math.min(1, (width - 2) / 30, (height - 2) / 12.4)
  const [large, small, long, apart] = [4 * size, 2 * size, 9 * size, 8 * size]
  const ringAt = cx + (method === 'first' ? 1 : -1) * apart
  const coneFrom = cx + (method === 'first' ? -1 : 1) * apart - long / 2
  // Its small end looks to the left, from where the circles are seen: in the first angle they stand on the right.
  const [left, right] = [coneFrom, coneFrom + long]
  const [near, far] = [small, large]
  const cone: Piece[] = [
    line(vec(left, cy - near), vec(right, cy - far)),
    line(vec(right, cy - far), vec(right, cy + far)),
    line(vec(right, cy + far), vec(left, cy + near)),
    line(vec(left, cy + near), vec(left, cy - near)),
  ]
  const centre = vec(ringAt, cy)
  return [
    { kind: 'stroke', line: 'wide', runs: [cone, ring(centre, large), ring(centre, small)] },
    {
      ...{ kind: 'stroke', line: 'centre' },
      runs: [
        [line(vec(left - 1.5, cy), vec(right + 1.5, cy))],
        [line(vec(ringAt - large - 1.5, cy), vec(ringAt + large + 1.5, cy))],
        [line(vec(ringAt, cy - large - 1.5), vec(ringAt, cy + large + 1.5))],
      ],
    },
  ]
}
