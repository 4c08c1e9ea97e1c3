import { vec } from '../../geometry'
import { materialOf } from '../../inspect'
import type { PartState } from '../../route'
import { limitsText } from '../../formula'
import { PLAIN_BLOCK, sumOf, type DrawingSetup, type Part, type Revision } from '../../part'
import { formatLength, formatMass } from '../../units'
import { tolerancedIn } from '../../vary'
import { saidText, type Asked } from '../asked'
import type { Group, Item } from '../items'
import { CHARACTER, shortened, wrapped } from '../lettering'
import { badgeItems, badgeRadius } from '../layout/badges'
import type { Badge, BadgesFor } from '../layout/marks'
import { cellContent } from '../layout/contents'
import { straight, type Placed, type Style } from '../layout/marks'
import { plot } from '../layout/space'
import { generalNotes, type NoteLine, type NoteSetting } from '../noted'
import { rectangle } from './frame'
import { spaceOf, type Paper, type Room } from './sizes'
import { blockOf, type Block } from './title'

/** What stands beside the title block. */
export interface BandAsk extends Pick<NoteSetting, 'isHere' | 'hidden'> {
  readonly state: PartState
  readonly drawing: DrawingSetup
  /** Sizes that have no place on a view. */
  readonly beside: readonly Asked[]
  /** Badges that a line gets, by its id and what it says. */
  readonly badgesFor: BadgesFor
}

/** Left of the title block: what holds for the whole part; above the block the list of its bodies and what was released. */
export function bandOf(
  ask: BandAsk,
  paper: Paper,
  style: Style,
): {
  readonly groups: readonly Group[]
  readonly height: number
  readonly placed: readonly Placed[]
} {
  const { state, beside, isHere } = ask
  const space = spaceOf(paper)
  const block = blockOf(ask.drawing, space)
  const list = tableOn(space, block, 0, bodyRows(state, isHere), LIST_COLUMNS)
  const released = tableOn(
    space,
    block,
    list.height,
    revisionRows(ask.drawing.revisions),
    REVISION_COLUMNS,
  )
  const tables = list.height + released.height
  // Tables are as wide as the plain block, whatever one’s own is.
  const wide = tables > 0 ? Math.max(block.width, Math.min(TABLE_WIDTH, space.width)) : block.width
  const isBeside = space.width >= wide + 70
  const notes: NoteLine[] = [
    ...generalNotes(state, ask),
    ...beside.map((b): NoteLine => {
      const told = b.lines.map(saidText).join(', ')
      const said = b.named === undefined ? told : `${b.named}: ${told}`
      return { id: b.id, said, cells: [{ words: said }] }
    }),
    ...fitLines(state.part).map((words): NoteLine => ({ id: '', said: words, cells: [{ words }] })),
  ]
  const room = isBeside ? space.width - wide - 6 : space.width - 6
  const step = style.letter * 1.9
  const lines = notes.flatMap((n) => fold(n, room, style))
  const base = isBeside ? space.y + 4 : space.y + block.height + tables + 4
  const placed: Placed[] = []
  const items = lines.flatMap(({ id, said, cells, isFirst }, i): Item[] => {
    const at = vec(space.x + 3, base + (lines.length - 1 - i) * step)
    const kinds = id !== '' && isFirst ? ask.badgesFor({ id, said }) : []
    const r = badgeRadius(style)
    const badges = kinds.map((kind, n): Badge => ({
      ...{ kind, centre: vec(at.x + r + n * (2 * r + 1), at.y + style.letter / 2) },
    }))
    const aside = badges.length * (2 * r + 1)
    const [first] = cells
    const inset = first && 'words' in first ? style.letter / 2 : 0
    const drawn = cellContent(cells, false, style).draw(
      vec(at.x + aside - inset, at.y - style.letter / 2),
    )
    if (id === '') return [...drawn]
    const stays = plot(at.x, at.y, at.x, at.y)
    placed.push({
      ...{ id, said, at, badges, labels: [stays], lines: [], moves: straight(vec(0, 0)) },
      isFixed: true,
      items: [...badges.flatMap((b) => badgeItems(b.kind, b.centre, style)), ...drawn],
    })
    return []
  })
  const groups: Group[] = [
    ...(list.items.length > 0
      ? [{ role: 'words' as const, id: 'list', said: 'List of parts', items: list.items }]
      : []),
    ...(released.items.length > 0
      ? [{ role: 'words' as const, id: 'revisions', said: 'Revisions', items: released.items }]
      : []),
    ...(items.length > 0 ? [{ role: 'words' as const, id: 'notes', said: 'Notes', items }] : []),
  ]
  const noted = lines.length === 0 ? 0 : lines.length * step + 4
  return {
    ...{ groups, placed },
    height: isBeside ? Math.max(noted, block.height + tables) : block.height + tables + noted,
  }
}

/** What classes of tolerances come to, each once: their limits beside the nominal size (ISO 286-1:2010). */
function fitLines(part: Part): string[] {
  const lines = tolerancedIn(part).flatMap((t) => {
    if (!t.own || t.measure !== 'length' || !/^[A-Za-z]/.test(t.written)) return []
    const size = formatLength(t.nominal, part.units)
    return [`${size} ${t.written}: ${limitsText(t, 'length', part.units)}`]
  })
  return [...new Set(lines)]
}

/** Words too long for the room, in several lines. */
function fold(
  note: NoteLine,
  room: number,
  { letter }: Style,
): (NoteLine & { readonly isFirst: boolean })[] {
  const [only] = note.cells
  if (note.cells.length !== 1 || !only || !('words' in only)) return [{ ...note, isFirst: true }]
  const most = Math.max(12, Math.floor(room / (letter * CHARACTER)) - 5)
  return wrapped(only.words, most).map((words, i) => ({
    ...{ ...note, cells: [{ words }], isFirst: i === 0 },
  }))
}

/** Columns of the list of bodies, and of the table of revisions, in mm from the left. */
const LIST_COLUMNS = [0, 14, 34, 104, 150]
const REVISION_COLUMNS = [0, 14, 110, 150]
/** Later revisions only, where there are more. */
const MOST_REVISIONS = 6

const revisionRows = (revisions: readonly Revision[]): string[][] =>
  revisions.length === 0
    ? []
    : [
        ['rev.', 'change', 'date', 'by'],
        ...revisions.slice(-MOST_REVISIONS).map((r) => [r.mark, r.words, r.date, r.by]),
      ]

/** The bodies by their numbers, from below (ISO 7573:2008). */
function bodyRows(state: PartState, isHere: (body: string) => boolean): string[][] {
  const own = state.bodies.filter(
    (b) => !b.reference && b.section.regions.length > 0 && isHere(b.bodyId),
  )
  if (own.length < 2) return []
  const { part } = state
  return [
    ['item', 'number of', 'name', 'material', 'mass'],
    ...own.map((b, i) => [
      String(i + 1),
      '1',
      part.bodies.find((p) => p.id === b.bodyId)?.name ?? '',
      materialOf(part, b.bodyId)?.name ?? '',
      Number.isFinite(b.mass) ? formatMass(b.mass, part.units) : '',
    ]),
  ]
}

const ROW = 7
const TABLE_WIDTH = sumOf(PLAIN_BLOCK.columns)

/** A table above the title block, its first row below. @param above how far above it, in mm */
function tableOn(
  space: Room,
  block: Block,
  above: number,
  rows: readonly (readonly string[])[],
  starts: readonly number[],
): { readonly items: Item[]; readonly height: number } {
  const width = Math.min(TABLE_WIDTH, space.width)
  const left = space.x + space.width - width
  const columns = [...starts, width]
  const items: Item[] = rows.flatMap((cells, i) =>
    cells.flatMap((text, j): Item[] => {
      const x = left + (columns[j] ?? 0)
      const y = space.y + block.height + above + i * ROW
      const w = (columns[j + 1] ?? width) - (columns[j] ?? 0)
      const letter = i === 0 ? 1.8 : 2.5
      const shown = shortened(text, w - 2, letter)
      return [
        { kind: 'stroke', line: 'narrow', runs: [rectangle(x, y, w, ROW)] },
        ...(shown === ''
          ? []
          : [
              {
                kind: 'words' as const,
                at: vec(x + 1.2, y + (ROW - letter) / 2),
                height: letter,
                turned: false,
                text: shown,
              },
            ]),
      ]
    }),
  )
  return { items, height: rows.length * ROW }
}
