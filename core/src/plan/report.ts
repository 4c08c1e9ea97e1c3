import {
  CHARACTER,
  drawingOf,
  paperOf,
  rectangle,
  shortened,
  spaceOf,
  widthOf,
  type Drawing,
  type Group,
  type Item,
  type Page,
} from '../drawing'
import { line, vec, type Piece } from '../geometry'
import { NO_PLAN, type InspectionPlan, type PlanPiece } from '../part'
import type { PartState } from '../route'
import { judged, pieceVerdict, rowFigures, standing, valuesOfRow } from './judge'
import { shownValue, unitOfRow } from './read'
import { fieldOf, planRows, type PlanRow } from './rows'

/** Heights and widths of the report in mm. */
const HEAD = 24
const ROW = 6.5
const LETTER = 2.3
const SMALL = 1.8
/** So many pieces stand side by side; more come on further pages. */
const PIECES = 5
const COLUMNS = [
  { words: 'no.', width: 12 },
  { words: 'what', width: 30 },
  { words: 'drawing', width: 40 },
  { words: 'lower', width: 16 },
  { words: 'upper', width: 16 },
  { words: 'unit', width: 9 },
  { words: 'instrument', width: 40 },
  { words: 'field', width: 11 },
] as const
const PIECE = 15
/** Where a value lies between its limits is drawn in the last column. */
const STRIP = 18
/** Letters are made so small at most where a text is long. */
const LEAST = 1.6

/**
 * The report of what was measured, as pages: all rows with their limits, the pieces beside them, what is out in frames.
 * @param date as it is to be written
 */
export function planReport(
  state: PartState,
  drawings: readonly (Drawing | undefined)[],
  date: string,
): Page[] {
  const plan = drawingOf(state.part).plan ?? NO_PLAN
  const rows = planRows(state)
  const paper = paperOf('A4', false)
  const space = spaceOf(paper)
  const perPage = Math.floor((space.height - HEAD - 2 * ROW - 6) / ROW)
  const stacks = chunks(rows, perPage)
  const sets = plan.pieces.length === 0 ? [[]] : chunks(plan.pieces, PIECES)
  const pages = sets.flatMap((pieces) => stacks.map((own) => ({ pieces, own })))
  return pages.map(({ pieces, own }, i): Page => {
    const items = [
      ...headItems(state, plan, rows, date, `${i + 1} / ${pages.length}`),
      ...tableItems(state, plan, own, pieces, drawings),
      ...(own === stacks.at(-1) ? verdictItems(plan, rows, own.length, pieces) : []),
    ]
    const group: Group = { role: 'words', id: '', said: 'Inspection report', items }
    return { paper, lines: 0.35, groups: [group] }
  })
}

function chunks<T>(all: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.max(1, Math.ceil(all.length / size)) }, (_, i) =>
    all.slice(i * size, (i + 1) * size),
  )
}

const words = (text: string, x: number, y: number, height = LETTER): Item => ({
  ...{ kind: 'words', at: vec(x, y), height, turned: false, text },
})

const stroke = (kind: 'wide' | 'narrow', runs: readonly (readonly Piece[])[]): Item => ({
  ...{ kind: 'stroke', line: kind, runs },
})

const A4 = spaceOf(paperOf('A4', false))
const LEFT = A4.x
const TOP = A4.y + A4.height

/** How many of some things: `1 piece`, `5 pieces`. */
const counted = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`

function headItems(
  { part }: PartState,
  plan: InspectionPlan,
  rows: readonly PlanRow[],
  date: string,
  page: string,
): Item[] {
  const { title } = drawingOf(part)
  const verdicts = plan.pieces.map((p) => pieceVerdict(rows, plan, p.id))
  const count = (of: string): number => verdicts.filter((v) => v === of).length
  const about = [
    title.number === '' ? '' : `drawing ${title.number}`,
    title.revision === '' ? '' : `revision ${title.revision}`,
    date,
  ]
  const sum = `${counted(plan.pieces.length, 'piece')}: ${count('good')} good, ${count('bad')} bad, ${count('open')} open`
  return [
    words(`Inspection report: ${shortened(part.name, 120, 5)}`, LEFT, TOP - 7, 4.2),
    words(about.filter((a) => a !== '').join(', '), LEFT, TOP - 13),
    words(sum, LEFT, TOP - 18),
    words(page, LEFT + A4.width - widthOf(page, LETTER), TOP - 7),
    ...(title.owner === ''
      ? []
      : [words(title.owner, LEFT + A4.width - widthOf(title.owner, LETTER), TOP - 13)]),
  ]
}

/** Where each column begins, from the left of the frame. */
const STARTS = COLUMNS.reduce<number[]>((all, c) => [...all, (all.at(-1) ?? 0) + c.width], [0])
const PIECES_AT = STARTS.at(-1) ?? 0

function tableItems(
  state: PartState,
  plan: InspectionPlan,
  rows: readonly PlanRow[],
  pieces: readonly PlanPiece[],
  drawings: readonly (Drawing | undefined)[],
): Item[] {
  const { units } = state.part
  const at = (i: number): number => TOP - HEAD - (i + 1) * ROW
  const cell = (text: string, x: number, width: number, y: number, height = LETTER): Item[] => {
    const room = (width - 2) / (Math.max(1, text.length) * CHARACTER)
    const own = Math.max(Math.min(height, LEAST), Math.min(height, room))
    const fitting = shortened(text, width - 2, own)
    return fitting === '' ? [] : [words(fitting, LEFT + x + 1, y + (ROW - own) / 2, own)]
  }
  const head = [
    ...COLUMNS.flatMap((c, i) => cell(c.words, STARTS[i] ?? 0, c.width, at(0), SMALL)),
    ...pieces.flatMap((p, i) => cell(p.name, PIECES_AT + i * PIECE, PIECE, at(0))),
  ]
  const body = rows.flatMap((row, i) => {
    const y = at(i + 1)
    const limit = (value: number | undefined): string =>
      value === undefined ? '' : shownValue(row, value, units)
    const texts = [
      ...[row.number, row.what, row.written, limit(row.lower), limit(row.upper)],
      ...[unitOfRow(row.measure, units), row.instrument, fieldOf(row, drawings)],
    ]
    const values = valuesOfRow(plan, row.id)
    const measured = pieces.flatMap((p, n): Item[] => {
      const value = values.get(p.id)
      if (value === undefined) return []
      const x = PIECES_AT + n * PIECE
      const isBad = judged(row, value) === 'bad'
      return [
        ...cell(shownValue(row, value, units), x, PIECE, y),
        ...(isBad
          ? [stroke('wide', [rectangle(LEFT + x + 0.4, y + 0.6, PIECE - 0.8, ROW - 1.2)])]
          : []),
      ]
    })
    return [
      ...texts.flatMap((t, n) => cell(t, STARTS[n] ?? 0, COLUMNS[n]?.width ?? 0, y)),
      ...measured,
      ...stripItems(row, pieces, values, y),
    ]
  })
  const width = PIECES_AT + PIECES * PIECE + STRIP
  const levels = Array.from({ length: rows.length + 2 }, (_, i) => {
    const y = at(i - 1)
    return [line(vec(LEFT, y), vec(LEFT + width, y))]
  })
  return [...head, ...body, stroke('narrow', levels)]
}

/** A short scale between the limits, with a mark for every piece; what is out stands at its end. */
function stripItems(
  row: PlanRow,
  pieces: readonly PlanPiece[],
  values: ReturnType<typeof valuesOfRow>,
  y: number,
): Item[] {
  const from = LEFT + PIECES_AT + PIECES * PIECE + 2
  const [middle, half] = [from + (STRIP - 4) / 2, (STRIP - 4) / 2]
  const shown = pieces.flatMap((p) => {
    const value = values.get(p.id)
    const at = typeof value === 'number' ? standing(row, value) : undefined
    return at === undefined ? [] : [Math.max(-1.25, Math.min(1.25, at))]
  })
  if (shown.length === 0) return []
  const level = y + ROW / 2
  const mark = (x: number, height: number): Piece[] => [
    line(vec(x, level - height), vec(x, level + height)),
  ]
  const reach = half / 1.25
  return [
    stroke('narrow', [
      [line(vec(middle - reach, level), vec(middle + reach, level))],
      ...[-1, 0, 1].map((s) => mark(middle + s * reach, 1)),
    ]),
    stroke(
      'wide',
      shown.map((s) => mark(middle + s * reach, 1.6)),
    ),
  ]
}

/** Whether each piece is good, below the last row. */
function verdictItems(
  plan: InspectionPlan,
  rows: readonly PlanRow[],
  above: number,
  pieces: readonly PlanPiece[],
): Item[] {
  const y = TOP - HEAD - (above + 2) * ROW
  if (pieces.length === 0) return []
  const out = rows.filter((r) => rowFigures(r, plan).bad > 0).map((r) => r.number)
  const told = out.length === 0 ? '' : `out of their limits: ${out.join(', ')}`
  const most = Math.floor(PIECES_AT / (LETTER * CHARACTER)) - 10
  return [
    words(`piece   ${told}`.slice(0, most), LEFT + 1, y + (ROW - LETTER) / 2),
    ...pieces.map((p, i) =>
      words(
        pieceVerdict(rows, plan, p.id),
        LEFT + PIECES_AT + i * PIECE + 1,
        y + (ROW - LETTER) / 2,
      ),
    ),
  ]
}
