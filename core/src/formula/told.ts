import { succeed } from '../result'
import { formatAngle, formatLength, unitScale, type UnitSettings } from '../units'
import { evaluateFormula } from './evaluate'
import { readTolerance, splitTolerance, type Tolerance } from './tolerance'

/** How tolerances are shown beside values: as they are written, by what they come to, or both. */
export const TOLERANCE_WAYS = ['written', 'limits', 'both'] as const
export type ToleranceWay = (typeof TOLERANCE_WAYS)[number]

/** Digits of limits in mm and inch. */
const DIGITS = { mm: 3, cm: 4, m: 6, in: 4 } as const

function signed(value: number, measure: 'length' | 'angle', units: UnitSettings): string {
  if (value === 0) return '0'
  const digits = measure === 'length' ? DIGITS[units.length] : 3
  const told = (Math.abs(value) / unitScale(measure, units)).toFixed(digits)
  return `${value < 0 ? '−' : '+'}${told.includes('.') ? told.replace(/\.?0+$/, '') : told}`
}

/** The limits of a tolerance as they are written: ±0.1, or both with their signs. */
export function limitsText(
  { upper, lower }: Pick<Tolerance, 'upper' | 'lower'>,
  measure: 'length' | 'angle',
  units: UnitSettings,
): string {
  if (Math.abs(upper + lower) < 1e-12) return `±${signed(upper, measure, units).slice(1)}`
  return `${signed(upper, measure, units)}/${signed(lower, measure, units)}`
}

/**
 * What stands behind a value on a drawing for the tolerance written behind its formula; empty where there is none.
 * @param nominal the value in mm or radians
 */
export function toleranceText(
  formula: string,
  nominal: number,
  measure: 'length' | 'angle',
  units: UnitSettings,
  way: ToleranceWay,
): string {
  const { tolerance } = splitTolerance(formula)
  if (!tolerance) return ''
  const lookup = (): undefined => undefined
  const read = readTolerance(tolerance, nominal, measure === 'length', (text) => {
    const value = evaluateFormula(text, { want: measure, units, lookup })
    return value.ok ? succeed(value.value) : value
  })
  if (!read.ok) return formula.slice(tolerance.at.from, tolerance.at.to)
  const envelope = tolerance.envelope === true ? ' Ⓔ' : ''
  const limits = limitsText(read.value, measure, units)
  if (read.value.kind !== 'class') return limits + envelope
  if (way === 'written') return read.value.words + envelope
  return (way === 'limits' ? limits : `${read.value.words} (${limits})`) + envelope
}

/** The least and the greatest a value may be, in the part's unit. */
export function limitSizes(
  nominal: number,
  { upper, lower }: Pick<Tolerance, 'upper' | 'lower'>,
  measure: 'length' | 'angle',
  units: UnitSettings,
): readonly [string, string] {
  const told = (v: number): string =>
    measure === 'length' ? formatLength(v, units) : formatAngle(v, units)
  return [told(nominal + lower), told(nominal + upper)]
}
