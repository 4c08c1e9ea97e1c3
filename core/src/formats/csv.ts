import Papa from 'papaparse'
import {
  checkStates,
  figureWord,
  FIGURE_KINDS,
  tellFigures,
  unitOfFigure,
  unitWords,
  type CheckState,
} from '../inspect'
import {
  BODY_FIGURES,
  PICK_FIGURES,
  PLAY_FIGURES,
  type Figure,
  type NewCheck,
  type Part,
} from '../part'
import { fail, succeed, type Result } from '../result'
import type { PartState } from '../route'
import { unitCalled } from '../units/shown'

/**
 * Texts that a spreadsheet would take for a formula get a mark before them, and so do those that begin with that mark;
 * plain numbers with a sign are none.
 */
const FORMULAE = /^(?![+-]\d+(\.\d+)?$)[=@+\-'\u0000-\u001f]/
/** A mark that was put before a text. */
const MARKED = /^'(?=[=@+\-'\u0000-\u001f])/

/** Rows of cells as CSV (RFC 4180). */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  return `${Papa.unparse(rows as (string | number)[][], { escapeFormulae: FORMULAE })}\r\n`
}

const COLUMNS = [
  'name',
  'figure',
  'of',
  'unit',
  'limit',
  'target',
  'above',
  'below',
  'every limit',
] as const

/** An inspection sheet as CSV: what each row is and should be, and how it stands. */
export function writeSheet(state: PartState): string {
  const head = [...COLUMNS, 'value', 'difference', 'verdict']
  const rows = checkStates(state).map((row) => [...rowOf(row, state.part), ...standingOf(row)])
  return writeCsv([head, ...rows])
}

function rowOf({ check, unit }: CheckState, part: Part): string[] {
  const { name, figure, limit, target, above, below, everyLimit } = check
  return [
    name,
    figureWord(figure.kind),
    ofWords(figure, part),
    unit.name,
    limit,
    target,
    above,
    below,
    everyLimit === true ? 'yes' : '',
  ]
}

function standingOf({ measured, difference, unit, verdict }: CheckState): string[] {
  const tell = (value: number | undefined): string =>
    value === undefined ? '' : tellFigures(value, unit).replace('−', '-')
  return [tell(measured?.value), tell(difference), verdict]
}

/** What a figure is of: bodies by name, picks as body and key, a height to fill to. */
function ofWords(figure: Figure, part: Part): string {
  const nameOf = (id: string): string => quoted(part.bodies.find((b) => b.id === id)?.name ?? id)
  if ('picks' in figure) return figure.picks.map((p) => `${p.body} ${p.key}`.trim()).join('; ')
  if ('other' in figure) return `${nameOf(figure.body)}; ${nameOf(figure.other)}`
  if (figure.kind === 'capacity') return [nameOf(figure.body), figure.height].join('; ')
  return figure.body === '' ? '' : nameOf(figure.body)
}

/** A name in quotes where it would not come back as it is otherwise. */
const quoted = (name: string): string =>
  /[;"]|^\s|\s$/.test(name) ? `"${name.replaceAll('"', '""')}"` : name

/** Names between semicolons; those in quotes may hold some. */
const namesIn = (text: string): string[] =>
  (text.match(/\s*"(?:[^"]|"")*"\s*|[^;]+/g) ?? []).map((found) => {
    const name = found.trim()
    return name.startsWith('"') ? name.slice(1, -1).replaceAll('""', '"') : name
  })

/** Longer files are no sheets. */
const LARGEST_SHEET = 500_000

/**
 * Reads the rows of a sheet. Columns may stand in any order and be left out but for `figure`; those
 * that tell how a row stands are passed over. A row that has no meaning is refused with its number.
 */
export function readSheet(text: string, part: Part): Result<readonly NewCheck[]> {
  if (text.length > LARGEST_SHEET) {
    return fail(
      'csv.large',
      'This file is too large for a sheet.',
      'Check that it is the right one.',
    )
  }
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  if (parsed.meta.fields?.includes('figure') !== true) {
    return fail(
      'csv.columns',
      'This file has no column called “figure”.',
      `Its first row names the columns: ${COLUMNS.join(', ')}.`,
    )
  }
  const rows: NewCheck[] = []
  for (const [i, cells] of parsed.data.entries()) {
    const row = readRow(cells, part)
    if (!row.ok) {
      const { problem } = row
      return fail(problem.code, `Row ${i + 2}: ${problem.message}`, problem.mend)
    }
    rows.push(row.value)
  }
  return rows.length > 0
    ? succeed(rows)
    : fail('csv.empty', 'This file holds no rows.', 'Put one row under the names of the columns.')
}

function readRow(cells: Readonly<Record<string, string>>, part: Part): Result<NewCheck> {
  const cell = (name: (typeof COLUMNS)[number]): string =>
    (cells[name] ?? '').replace(MARKED, '').trim()
  const figure = readFigure(cell('figure'), cell('of'), part)
  if (!figure.ok) return figure
  const unit = cell('unit')
  const usual = unitOfFigure(figure.value.kind, part)
  const chosen = unit === '' ? usual : unitCalled(unit)
  if (!chosen || chosen.measure !== usual.measure) {
    const mend = `Write one such as ${unitWords(usual)}, or leave it empty.`
    return fail('csv.unit', `“${unit}” is no unit of ${cell('figure')}.`, mend)
  }
  const limit = cell('limit') === '' ? 'about' : cell('limit')
  if (limit !== 'about' && limit !== 'least' && limit !== 'most') {
    return fail('csv.limit', `“${limit}” is no limit.`, 'Write about, least or most.')
  }
  const texts = {
    name: cell('name'),
    target: cell('target'),
    above: cell('above'),
    below: cell('below'),
  }
  const long = Object.values(texts).some((t) => t.length > 120)
  if (long) return fail('csv.long', 'A cell is too long.', 'Keep it under 120 letters.')
  const every = ['yes', 'true', '1'].includes(cell('every limit').toLowerCase())
  const more = every ? { everyLimit: true } : {}
  return succeed({ ...texts, figure: figure.value, unit: chosen.name, limit, ...more })
}

function readFigure(word: string, of: string, part: Part): Result<Figure> {
  const called = FIGURE_KINDS.find((k) => figureWord(k) === word.toLowerCase())
  const kind = called ?? FIGURE_KINDS.find((k) => k === word)
  if (!kind) {
    const mend = `Known are ${FIGURE_KINDS.map((k) => figureWord(k)).join(', ')}.`
    return fail('csv.figure', `There is no figure called “${word}”.`, mend)
  }
  const names = of === '' ? [] : namesIn(of)
  const bodyCalled = (name: string | undefined): string | undefined =>
    part.bodies.find((b) => b.name === name || b.id === name)?.id
  const lost = (name: string): Result<never> =>
    fail('csv.body', `There is no body called “${name}”.`, 'Check its name in the column “of”.')
  if (isOneOf(PICK_FIGURES, kind)) {
    const picks = names.map((name) => {
      const [body = '', ...key] = name.split(' ')
      return key.length === 0 ? { body: '', key: body } : { body, key: key.join(' ') }
    })
    if (picks.length === 0) return fail('csv.picks', 'It names no picks.', 'Fill the column “of”.')
    return succeed({ kind, picks })
  }
  if (isOneOf(PLAY_FIGURES, kind)) {
    const [body, other] = [bodyCalled(names[0]), bodyCalled(names[1])]
    if (body === undefined || other === undefined) return lost(of)
    return succeed({ kind, body, other })
  }
  const body = names[0] === undefined ? '' : bodyCalled(names[0])
  if (body === undefined) return lost(names[0] ?? '')
  if (isOneOf(BODY_FIGURES, kind)) return succeed({ kind, body })
  return succeed({
    kind: 'capacity',
    body: body || (part.bodies[0]?.id ?? ''),
    height: names[1] ?? '',
  })
}

function isOneOf<T extends string>(kinds: readonly T[], kind: string): kind is T {
  return (kinds as readonly string[]).includes(kind)
}
