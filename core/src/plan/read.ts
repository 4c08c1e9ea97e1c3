import type { MeasuredValue } from '../part'
import { fail, succeed, type Result } from '../result'
import { LARGEST_LENGTH } from '../tolerances'
import { unitScale, type UnitSettings } from '../units'
import type { PlanRow } from './rows'

type Value = MeasuredValue['value']

const GOOD = ['good', 'ok', 'yes', 'pass', '+', '✓']
const BAD = ['bad', 'not ok', 'no', 'fail', '-', '✗']

/**
 * What was typed or pasted for a row, in the units of the part: a figure, or good or bad. Undefined for nothing.
 * A comma is taken as the decimal sign, as long as there is no point too.
 */
export function readMeasured(
  row: Pick<PlanRow, 'measure' | 'number'>,
  text: string,
  units: UnitSettings,
): Result<Value | undefined> {
  const plain = text.trim().toLowerCase()
  if (plain === '') return succeed(undefined)
  if (GOOD.includes(plain)) return succeed('good')
  if (BAD.includes(plain)) return succeed('bad')
  if (row.measure === 'seen') {
    return fail(
      'plan.word',
      `“${shortened(text)}” is neither good nor bad.`,
      'Type good or bad: there is no figure to measure here.',
    )
  }
  const figure = /^[-+−]?\d{0,9}([.,]\d{0,12})?$/.test(plain) && /\d/.test(plain)
  const value = Number(plain.replace('−', '-').replace(',', '.'))
  if (!figure || !Number.isFinite(value)) {
    return fail(
      'plan.figure',
      `“${shortened(text)}” is no figure.`,
      'Type one as in 20.004, or good or bad.',
    )
  }
  const read = value * scaleOf(row.measure, units)
  if (Math.abs(read) > LARGEST_LENGTH) {
    return fail('plan.large', `“${shortened(text)}” is larger than any part.`, 'Check its digits.')
  }
  return succeed(read)
}

const shortened = (text: string): string => {
  const trimmed = text.trim()
  return trimmed.length > 24 ? `${trimmed.slice(0, 24)}…` : trimmed
}

/** A unit that figures of a row are typed in, in mm or radians. */
export function scaleOf(measure: PlanRow['measure'], units: UnitSettings): number {
  return measure === 'length' || measure === 'angle' ? unitScale(measure, units) : 1
}

/** Its name, as it stands behind figures. */
export function unitOfRow(measure: PlanRow['measure'], units: UnitSettings): string {
  switch (measure) {
    case 'length':
      return units.length
    case 'angle':
      return units.angle === 'deg' ? '°' : 'rad'
    case 'µm':
      return 'µm'
    case 'number':
    case 'seen':
      return ''
  }
}

/** A figure of a row as it is shown, without its unit. */
export function shownValue(
  row: Pick<PlanRow, 'measure'>,
  value: Value,
  units: UnitSettings,
): string {
  if (typeof value === 'string') return value
  return String(Number((value / scaleOf(row.measure, units)).toFixed(DIGITS)))
}

/** Digits behind the point: a tenth of a micrometre, where the unit is mm. */
const DIGITS = 6

/** What a block of cells holds. */
export interface Pasted {
  readonly values: readonly {
    readonly row: string
    readonly column: number
    readonly value: Value
  }[]
  /** Columns it has. */
  readonly columns: number
}

/**
 * A block from a spreadsheet: lines are rows of the plan from one on, columns are pieces. Empty cells change nothing.
 * Nothing of it is taken where one cell cannot be read: that one is told.
 */
export function readBlock(
  rows: readonly PlanRow[],
  from: number,
  text: string,
  units: UnitSettings,
): Result<Pasted> {
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n$/, '').split('\n')
  const cells = lines.map((l) => l.split('\t'))
  if (cells.length > rows.length - from) {
    return fail(
      'plan.long',
      `The block has ${cells.length} lines, but only ${rows.length - from} rows follow.`,
      'Begin higher up, or copy fewer lines.',
    )
  }
  const values: Pasted['values'][number][] = []
  for (const [i, line] of cells.entries()) {
    const row = rows[from + i]
    if (!row) continue
    for (const [column, cell] of line.entries()) {
      const read = readMeasured(row, cell, units)
      if (!read.ok) {
        const { message, mend } = read.problem
        return fail(
          'plan.cell',
          `In line ${i + 1}, column ${column + 1} of the block: ${message}`,
          mend ?? 'Correct it there and paste again.',
        )
      }
      if (read.value !== undefined) values.push({ row: row.id, column, value: read.value })
    }
  }
  return succeed({ values, columns: Math.max(...cells.map((c) => c.length)) })
}
