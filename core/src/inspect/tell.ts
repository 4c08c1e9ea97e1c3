import { significant } from '../units'
import type { ShownUnit } from '../units/shown'
import type { Measured } from './picks'
import type { CheckState } from './sheet'

/** Decimals that mean something in a unit of length; other units are told in significant figures. */
const DECIMALS: Readonly<Record<string, number>> = {
  um: 1,
  mm: 3,
  cm: 4,
  m: 6,
  in: 4,
  deg: 3,
  rad: 5,
}

const FIGURES = 5

/** A value's figures in a unit, without the unit: no more digits than mean something. */
export function tellFigures(value: number, unit: ShownUnit): string {
  const told = value / unit.size
  const decimals = DECIMALS[unit.name]
  if (decimals === undefined) return trimmed(significant(told, FIGURES))
  return trimmed(told.toFixed(decimals))
}

/** A value with its unit. */
export function tellValue(value: number, unit: ShownUnit): string {
  const figures = tellFigures(value, unit)
  if (unit.name === '') return figures
  return unit.name === 'deg' ? `${figures}°` : `${figures} ${unitWords(unit)}`
}

/** A measured value with its unit, and how much less it may be where it is not exact. */
export function tellMeasured({ value, within }: Measured, unit: ShownUnit): string {
  const told = tellValue(value, unit)
  return within === undefined ? told : `${told} or up to ${tellValue(within, unit)} less`
}

/** A unit as it is printed. */
export const unitWords = ({ name }: ShownUnit): string =>
  name === 'um' ? 'µm' : name === 'deg' ? '°' : name

function trimmed(text: string): string {
  const plain = text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return plain === '-0' || plain === '' ? '0' : plain.replace('-', '−')
}

/** The tolerance of a row as on a drawing: ±0.1, +0.2/0, ≥, ≤. */
export function tellTolerance({ check, above, below, unit, target }: CheckState): string {
  if (target === undefined) return ''
  if (check.limit === 'least') return 'at least'
  if (check.limit === 'most') return 'at most'
  const [up, down] = [tellFigures(above, unit), tellFigures(below, unit)]
  if (up === down) return up === '0' ? 'exactly' : `±${up}`
  return `(${up === '0' ? '0' : `+${up}`} / ${down === '0' ? '0' : `−${down}`})`
}

/** Why a row fails, in a sentence with the figures. */
export function tellFailure(state: CheckState): string {
  const { difference, unit, above, below, check } = state
  if (difference === undefined) return ''
  const by = tellValue(Math.abs(difference), unit)
  const side = difference > 0 ? 'over' : 'under'
  if (check.limit !== 'about') {
    return `It lies ${by} ${side} the limit${state.span ? ' with values at theirs' : ''}.`
  }
  const allowed = tellValue(difference > 0 ? above : below, unit)
  const where = state.span ? ' at its limits' : ''
  return `It lies ${by} ${side} the target${where}; ${allowed} is allowed.`
}
