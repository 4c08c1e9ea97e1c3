import type { Toleranced } from '@lathica/core/vary'
import type { UnitSettings } from '@lathica/core/units'
import { limitsText } from '@lathica/core/formula'
import { tellValue } from '@lathica/core/inspect'
import { usualUnit } from '@lathica/core/units/shown'

/** How far a value may be off, as on a drawing: ±0.1, or both deviations. */
export const limitsWords = (of: Toleranced, units: UnitSettings): string =>
  limitsText(of, of.measure, units)

/** A value in the part's unit. */
export const nominalWords = ({ nominal, measure }: Toleranced, units: UnitSettings): string =>
  tellValue(nominal, usualUnit(measure, units))

/**
 * A tolerance of a width about the middle of another, as it is typed: no wider than it is told to be.
 * @param width in mm or radians
 */
export function narrowed(of: Toleranced, width: number, units: UnitSettings): string {
  const { size } = usualUnit(of.measure, units)
  const middle = (of.upper + of.lower) / 2
  const grain = 10 ** Math.floor(Math.log10(width / size) - 1)
  // Rounded inwards, to two figures of the width.
  const up = Math.floor((middle + width / 2) / size / grain + 1e-9) * grain
  const low = Math.ceil((middle - width / 2) / size / grain - 1e-9) * grain
  const digits = Math.max(0, -Math.floor(Math.log10(grain) + 1e-9))
  const told = (v: number): string => (Math.abs(v) < grain / 2 ? '0' : v.toFixed(digits))
  const plus = (v: number): string => (v > grain / 2 ? `+${told(v)}` : told(v))
  if (Math.abs(up + low) < grain / 2) return `±${told(up)}`
  return `${plus(up)} ${plus(low)}`
}
