import { line, vec, type Piece } from '../../geometry'
import type { TitleFields } from '../../part'
import type { Group, Item } from '../items'
import { CHARACTER, shortened } from '../lettering'
import { ring } from '../views/turned'
import { rectangle } from './frame'
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

/** Wide as drawings have room for on A4, and high, in mm (ISO 7200:2004, 5.1). */
export const TITLE_WIDTH = 180
export const TITLE_HEIGHT = 40

/** A field: where it stands in the block from its lower left corner, its label, and what is in it. */
interface Field {
  readonly room: Room
  readonly label: string
  readonly value: string
  /** Height of its letters in mm, less where they would not fit. */
  readonly letter: number
}

/** The title block, in the lower right corner of the frame (ISO 7200:2004). */
export function titleOf(paper: Paper, fields: TitleFields, own: TitleOwn): Group {
  const space = spaceOf(paper)
  const width = Math.min(TITLE_WIDTH, space.width)
  const left = space.x + space.width - width
  const by = width / TITLE_WIDTH
  const all = layout(fields, own).map((f) => ({
    ...f,
    room: { ...f.room, x: left + f.room.x * by, y: space.y + f.room.y, width: f.room.width * by },
  }))
  const items: Item[] = all.flatMap(fieldItems)
  const symbol = all.find((f) => f.label === 'projection')?.room
  if (symbol) items.push(...projectionSymbol(symbol, own.projection))
  const frame: Item = {
    ...{ kind: 'stroke', line: 'wide', runs: [rectangle(left, space.y, width, TITLE_HEIGHT)] },
  }
  return { role: 'title', id: '', said: 'Title block', items: [...items, frame] }
}

function layout(f: TitleFields, own: TitleOwn): Field[] {
  const field = (
    x: number,
    y: number,
    width: number,
    height: number,
    label: string,
    value: string,
    letter = 2.5,
  ): Field => ({ room: { x, y, width, height }, label, value, letter })
  return [
    field(0, 24, 62, 16, 'owner', f.owner, 3.5),
    field(0, 16, 31, 8, 'drawn by', f.creator),
    field(31, 16, 31, 8, 'approved by', f.approver),
    field(0, 8, 31, 8, 'date of issue', f.date),
    field(31, 8, 31, 8, 'status', f.status),
    field(0, 0, 62, 8, 'document type', 'part drawing'),
    field(62, 24, 73, 16, 'title', own.name, 5),
    field(62, 16, 73, 8, 'material', own.material),
    field(62, 8, 73, 8, 'general tolerances', own.general),
    field(62, 0, 36.5, 8, 'mass', own.mass),
    field(98.5, 0, 36.5, 8, 'scale', own.scale, 3.5),
    field(135, 24, 45, 16, 'number', f.number, 3.5),
    field(135, 8, 45, 16, 'projection', ''),
    field(135, 0, 22.5, 8, 'revision', f.revision),
    field(157.5, 0, 22.5, 8, 'sheet', own.sheet),
  ]
}

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
  const [large, small, long] = [4, 2, 9]
  const ringAt = cx + (method === 'first' ? 1 : -1) * 8
  const coneFrom = cx + (method === 'first' ? -1 : 1) * 8 - long / 2
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
