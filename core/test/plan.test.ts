import { readFileSync } from 'node:fs'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { drawSheet, numbersAnew, numbersOf } from '../src/drawing'
import {
  addPieces,
  chooseInstrument,
  createHistory,
  edit,
  measure,
  measureBlock,
  numberAnew,
  removePiece,
  undo,
  type Command,
} from '../src/edit'
import { EXPORTERS, readPartFile, writePartFile } from '../src/formats'
import type { Part } from '../src/part'
import {
  judged,
  pieceVerdict,
  planReport,
  planRows,
  readBlock,
  readMeasured,
  rowFigures,
  standing,
  type PlanRow,
} from '../src/plan'
import { evaluate } from '../src/route'
import { METRIC } from '../src/units'

function demo(name: string): Part {
  const url = new URL(`../../demo/${name}.lathica.json`, import.meta.url)
  const read = readPartFile(readFileSync(url, 'utf8'))
  if (!read.ok) throw new Error(read.problem.message)
  // Without what was measured of trial pieces.
  const { drawing, ...part } = read.value
  if (!drawing) return part
  const { title, sheets, revisions } = drawing
  return { ...part, drawing: { title, sheets, revisions } }
}

function after(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((p, command) => {
    const made = command.run(p)
    if (!made.ok) throw new Error(made.problem.message)
    return made.value
  }, part)
}

const rowsOf = (part: Part): readonly PlanRow[] => planRows(evaluate(part))
function rowCalled(part: Part, written: string): PlanRow {
  const row = rowsOf(part).find((r) => r.written === written)
  if (!row) throw new Error(`nothing asks ${written}`)
  return row
}

describe('the inspection plan', () => {
  it('asks every value with its limits, and every note that asks something', () => {
    const part = demo('spindle')
    const rows = rowsOf(part)
    expect(rowCalled(part, '112 ±0.15')).toMatchObject({
      ...{ what: 'length', nominal: 112, lower: 111.85, upper: 112.15, instrument: 'caliper' },
    })
    // ISO 286: 20 k6 is +15 to +2 µm.
    const seat = rowCalled(part, '⌀20 k6')
    expect(seat.lower).toBeCloseTo(20.002, 9)
    expect(seat.upper).toBeCloseTo(20.015, 9)
    expect(seat.instrument).toBe('micrometer')
    expect(rowCalled(part, '⌀28')).toMatchObject({ lower: 27.8, upper: 28.2 })
    expect(rows.find((r) => r.what === 'thread')).toMatchObject({ measure: 'seen' })
    const roughness = rows.filter((r) => r.what === 'roughness Ra')
    expect(roughness.map((r) => r.upper).sort()).toEqual([0.8, 0.8, 3.2])
    const runOut = rows.find((r) => r.what === 'circular run-out')
    expect(runOut).toMatchObject({ lower: 0, measure: 'length' })
    // Datums ask nothing themselves.
    expect(rows.some((r) => /^[A-Z]$/.test(r.written))).toBe(false)
    expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length)
    // Each has a number that stands on the sheet, where its field is.
    const sheet = drawSheet(evaluate(part))
    for (const row of rows) {
      const label = sheet?.labels.get(row.label)
      expect(label?.number).toBe(Number.parseInt(row.number))
      expect(label?.field).toMatch(/^[A-F][1-8]$/)
    }
  })

  it('asks all that a call-out tells in rows of their own', () => {
    const rows = rowsOf(demo('end-bearing-housing'))
    const holes = rows.filter((r) => r.written.startsWith('6 × ⌀6.6'))
    expect(holes.map((r) => [r.what, r.nominal])).toEqual([
      ['diameter', 6.6],
      ['count', 6],
      ['head diameter', 11],
      ['head depth', 6.4],
      ['circle', 74],
      ['start', Math.PI / 6],
    ])
    expect(new Set(holes.map((r) => r.number.split('.')[0])).size).toBe(1)
    expect(holes.find((r) => r.what === 'count')).toMatchObject({ lower: 6, upper: 6 })
  })

  it('judges at the limits themselves as good, and beyond them as bad', () => {
    const row = rowCalled(demo('spindle'), '112 ±0.15')
    expect(judged(row, 112.15)).toBe('good')
    expect(judged(row, 111.85)).toBe('good')
    expect(judged(row, 112.151)).toBe('bad')
    expect(judged(row, 111.849)).toBe('bad')
    expect(judged(row, 'bad')).toBe('bad')
    expect(judged(row, undefined)).toBe('open')
    expect(standing(row, 112)).toBeCloseTo(0, 9)
    expect(standing(row, 112.15)).toBeCloseTo(1, 9)
  })

  it('keeps numbers that were given once, whatever comes and goes', () => {
    const part = demo('spindle')
    const before = numbersOf(evaluate(part))
    const kept = after(part, addPieces([...before.keys()]))
    expect(numbersOf(evaluate(kept))).toEqual(before)
    // A size becomes a reference: its number is not given again.
    const [profile, ...others] = kept.sketches
    if (!profile) throw new Error('the profile is gone')
    const sizes = profile.sizes.map((s) => (s.name === 'len1' ? { ...s, reference: true } : s))
    const less = { ...kept, sketches: [{ ...profile, sizes }, ...others] }
    const now = numbersOf(evaluate(less))
    expect(now.size).toBe(before.size - 1)
    for (const [id, number] of now) expect(before.get(id)).toBe(number)
    // Numbered anew there is no gap.
    const renumbered = after(less, numberAnew(numbersAnew(evaluate(less))))
    const anew = numbersOf(evaluate(renumbered))
    expect([...anew.values()]).toEqual([...anew.values()].map((_, i) => i + 1))
    // And they are kept from then on: the size that comes back is the last.
    const back = numbersOf(evaluate({ ...renumbered, sketches: kept.sketches }))
    for (const [id, number] of anew) expect(back.get(id)).toBe(number)
    expect(back.size).toBe(anew.size + 1)
  })

  it('takes figures with a comma, words for good and bad, and tells what it cannot read', () => {
    const row = rowCalled(demo('spindle'), '112 ±0.15')
    expect(readMeasured(row, ' 112,04 ', METRIC)).toEqual({ ok: true, value: 112.04 })
    expect(readMeasured(row, '', METRIC)).toEqual({ ok: true, value: undefined })
    expect(readMeasured(row, 'Good', METRIC)).toEqual({ ok: true, value: 'good' })
    expect(readMeasured(row, '−0.5', METRIC)).toEqual({ ok: true, value: -0.5 })
    for (const text of ['999999999', '1,234.5', '1e3', 'x', '--1', '.', '1 2', '=1+1', '0x10']) {
      expect(readMeasured(row, text, METRIC).ok).toBe(false)
    }
    const inch = readMeasured(row, '4.41', { ...METRIC, length: 'in' })
    expect(inch.ok && inch.value).toBeCloseTo(4.41 * 25.4, 9)
    const thread = rowsOf(demo('spindle')).find((r) => r.what === 'thread')
    expect(thread && readMeasured(thread, '16', METRIC).ok).toBe(false)
  })

  it('takes a block whole or not at all, making the pieces that are missing', () => {
    const part = demo('spindle')
    const rows = rowsOf(part)
    const first = rows[0] as PlanRow
    const ids = [...numbersOf(evaluate(part)).keys()]
    const block = '24\t24.1\t23.95\r\n\t20.01\t20.02\r\n'
    const read = readBlock(rows, 0, block, METRIC)
    if (!read.ok) throw new Error(read.problem.message)
    expect(read.value).toMatchObject({ columns: 3 })
    const { values, columns } = read.value
    const filled = after(part, measureBlock(ids, values, 0, columns))
    const plan = filled.drawing?.plan
    expect(plan?.pieces.map((p) => p.name)).toEqual(['1', '2', '3'])
    expect(plan?.measured).toHaveLength(5)
    expect(plan && rowFigures(first, plan)).toMatchObject({ count: 3, bad: 0, least: 23.95 })
    const bad = readBlock(rows, 0, '24\tabout 24\n', METRIC)
    expect(!bad.ok && bad.problem.message).toContain('line 1, column 2')
    const long = readBlock(rows, rows.length - 1, '1\n2\n3\n', METRIC)
    expect(!long.ok && long.problem.code).toBe('plan.long')
    // A piece that is taken off takes its values with it.
    const [one] = plan?.pieces ?? []
    const less = after(filled, removePiece(one?.id ?? ''))
    expect(less.drawing?.plan?.measured).toHaveLength(4)
  })

  it('calls a piece good only once all that can be judged is good', () => {
    const part = demo('winding-wheel')
    const general = { ...part, general: 'm' as const }
    const rows = rowsOf(general)
    expect(rows.every((r) => r.lower !== undefined)).toBe(true)
    const ids = [...numbersOf(evaluate(general)).keys()]
    const begun = after(general, addPieces(ids))
    const piece = begun.drawing?.plan?.pieces[0]?.id ?? ''
    const values = rows.map((r) => ({ row: r.id, piece, value: r.nominal ?? 0 }))
    const verdict = (p: Part) => pieceVerdict(rows, p.drawing?.plan ?? (undefined as never), piece)
    expect(verdict(begun)).toBe('open')
    expect(verdict(after(begun, measure(ids, values.slice(1))))).toBe('open')
    const all = after(begun, measure(ids, values))
    expect(verdict(all)).toBe('good')
    const [first] = values
    if (!first) throw new Error('nothing is asked')
    const off = { ...first, value: (first.value as number) + 5 }
    expect(verdict(after(all, measure(ids, [off])))).toBe('bad')
  })

  it('is kept with the part, undone with it, and written as CSV and as pages', () => {
    const part = demo('spindle')
    const row = rowCalled(part, '112 ±0.15')
    const ids = [...numbersOf(evaluate(part)).keys()]
    let history = createHistory(part)
    for (const command of [addPieces(ids, 2), chooseInstrument(ids, row.id, 'length gauge')]) {
      const made = edit(history, command)
      if (!made.ok) throw new Error(made.problem.message)
      history = made.value
    }
    expect(undo(undo(history)).part.drawing).toEqual(part.drawing)
    const [a, b] = history.part.drawing?.plan?.pieces ?? []
    const full = after(
      history.part,
      measure(ids, [
        { row: row.id, piece: a?.id ?? '', value: 112.01 },
        { row: row.id, piece: b?.id ?? '', value: 112.4 },
      ]),
    )
    const read = readPartFile(writePartFile(full))
    expect(read.ok && read.value.drawing).toEqual(full.drawing)
    const csv = EXPORTERS.find((e) => e.id === 'plan')
    const written = csv?.write(evaluate(full), { tolerance: 0.1, at: new Date() })
    if (!written?.ok || typeof written.value !== 'string') throw new Error('no CSV')
    const cells = Papa.parse<string[]>(written.value.trim()).data
    expect(cells[0]?.slice(-3)).toEqual(['1', '2', 'out'])
    const line = cells.find((c) => c[2] === '112 ±0.15')
    expect(line?.slice(3, 8)).toEqual(['112', '111.85', '112.15', 'mm', 'length gauge'])
    expect(line?.[8]).toMatch(/^[A-F][1-8]$/)
    expect(line?.slice(9)).toEqual(['112.01', '112.4', '1'])
    expect(cells.at(-1)?.slice(-3)).toEqual(['open', 'bad', '1'])
    // Every row stands on a page, and what is out in a frame.
    const pages = planReport(evaluate(full), [drawSheet(evaluate(full))], '2026-11-30')
    const words = pages.flatMap((p) =>
      p.groups.flatMap((g) => g.items.flatMap((i) => (i.kind === 'words' ? [i.text] : []))),
    )
    for (const r of rowsOf(full)) expect(words).toContain(r.number)
    expect(words).toContain('112.4')
    const frames = pages.flatMap((p) =>
      p.groups.flatMap((g) =>
        g.items.filter((i) => i.kind === 'stroke' && i.line === 'wide' && i.runs[0]?.length === 4),
      ),
    )
    expect(frames).toHaveLength(1)
  })
})
