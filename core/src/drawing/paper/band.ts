import { vec } from '../../geometry'
import { materialOf } from '../../inspect'
import type { PartState } from '../../route'
import { limitsText } from '../../formula'
import type { Part } from '../../part'
import { formatLength, formatMass } from '../../units'
import { tolerancedIn } from '../../vary'
import { saidText, type Asked } from '../asked'
import type { Group, Item } from '../items'
import { CHARACTER, shortened, wrapped } from '../lettering'
import { cellContent } from '../layout/contents'
import type { Style } from '../layout/marks'
import { generalNotes } from '../noted'
import { rectangle } from './frame'
import { spaceOf, type Paper, type Room } from './sizes'
import { TITLE_HEIGHT, TITLE_WIDTH } from './title'

/** Left of the title block: what holds for the whole part; and the list of its bodies above the block. */
export function bandOf(
  state: PartState,
  paper: Paper,
  style: Style,
  beside: readonly Asked[],
): { readonly groups: readonly Group[]; readonly height: number } {
  const space = spaceOf(paper)
  const isBeside = space.width >= TITLE_WIDTH + 70
  const list = bodyList(state, space)
  const notes: (readonly { words: string; symbol?: string }[])[] = [
    ...generalNotes(state),
    ...beside.map((b) => [{ words: b.lines.map(saidText).join(', ') }]),
    ...fitLines(state.part).map((words) => [{ words }]),
  ]
  const room = isBeside ? space.width - TITLE_WIDTH - 6 : space.width - 6
  const step = style.letter * 1.9
  const lines = notes.flatMap((cells) => fold(cells, room, style))
  const base = isBeside ? space.y + 4 : space.y + TITLE_HEIGHT + list.height + 4
  const items = lines.flatMap((cells, i): Item[] => {
    const at = vec(space.x + 3, base + (lines.length - 1 - i) * step)
    return cellContent(
      cells.map((c) => (c.symbol === undefined ? { words: c.words } : { symbol: c.symbol })),
      false,
      style,
    )
      .draw(
        vec(
          at.x - (cells[0]?.symbol === undefined ? style.letter / 2 : 0),
          at.y - style.letter / 2,
        ),
      )
      .slice()
  })
  const groups: Group[] = [
    ...(list.items.length > 0
      ? [{ role: 'words' as const, id: 'list', said: 'List of parts', items: list.items }]
      : []),
    ...(items.length > 0 ? [{ role: 'words' as const, id: 'notes', said: 'Notes', items }] : []),
  ]
  const noted = lines.length === 0 ? 0 : lines.length * step + 4
  return {
    groups,
    height: isBeside
      ? Math.max(noted, TITLE_HEIGHT + list.height)
      : TITLE_HEIGHT + list.height + noted,
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
function fold<C extends { words: string; symbol?: string }>(
  cells: readonly C[],
  room: number,
  { letter }: Style,
): { words: string; symbol?: string }[][] {
  const [only] = cells
  if (cells.length !== 1 || !only || only.symbol !== undefined) return [[...cells]]
  const most = Math.max(12, Math.floor(room / (letter * CHARACTER)) - 2)
  return wrapped(only.words, most).map((words) => [{ words }])
}

/** The bodies by their numbers, from below (ISO 7573:2008). */
function bodyList(
  state: PartState,
  space: Room,
): { readonly items: Item[]; readonly height: number } {
  const own = state.bodies.filter((b) => !b.reference && b.section.regions.length > 0)
  if (own.length < 2) return { items: [], height: 0 }
  const { part } = state
  const width = Math.min(TITLE_WIDTH, space.width)
  const left = space.x + space.width - width
  const row = 7
  const columns = [0, 14, 34, 104, 150, width]
  const rows = [
    ['item', 'number of', 'name', 'material', 'mass'],
    ...own.map((b, i) => [
      String(i + 1),
      '1',
      part.bodies.find((p) => p.id === b.bodyId)?.name ?? '',
      materialOf(part, b.bodyId)?.name ?? '',
      Number.isFinite(b.mass) ? formatMass(b.mass, part.units) : '',
    ]),
  ]
  const items: Item[] = rows.flatMap((cells, i) =>
    cells.flatMap((text, j): Item[] => {
      const x = left + (columns[j] ?? 0)
      const y = space.y + TITLE_HEIGHT + i * row
      const w = (columns[j + 1] ?? width) - (columns[j] ?? 0)
      const letter = i === 0 ? 1.8 : 2.5
      const shown = shortened(text, w - 2, letter)
      return [
        { kind: 'stroke', line: 'narrow', runs: [rectangle(x, y, w, row)] },
        ...(shown === ''
          ? []
          : [
              {
                kind: 'words' as const,
                at: vec(x + 1.2, y + (row - letter) / 2),
                height: letter,
                turned: false,
                text: shown,
              },
            ]),
      ]
    }),
  )
  return { items, height: rows.length * row }
}
