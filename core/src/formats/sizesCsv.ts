import { describeItem, measureOf } from '../constraints'
import { valuesOf } from '../part'
import type { PartState } from '../route'
import { unitScale, type Measure, type UnitSettings } from '../units'
import { writeCsv } from './csv'

const COLUMNS = ['of', 'name', 'what', 'formula', 'value', 'unit', 'kind'] as const

/**
 * All named values and all sizes of profiles as CSV: what was typed, and what it comes to in the part's own units.
 * @returns undefined when there are none
 */
export function writeSizes({ part, sketches }: PartState): string | undefined {
  const { table } = valuesOf(part)
  const values = part.values.map(({ name, measure, formula }) => {
    const result = table.get(name)
    const told = result?.ok === true ? shown(result.value, measure, part.units) : ['', '']
    return ['part', name, 'named value', formula, ...told, result?.ok === true ? 'typed' : 'wrong']
  })
  const sizes = part.sketches.flatMap((sketch) =>
    sketch.sizes.map((size) => {
      const state = sketches.get(sketch.id)
      const measured = state?.measured.get(size.id)
      const told = measured === undefined ? ['', ''] : shown(measured, measureOf(size), part.units)
      const isWrong = state?.sizeProblems.has(size.id) === true
      const kind = size.reference ? 'measured' : isWrong ? 'wrong' : 'typed'
      const words = describeItem(sketch, size)
      return [
        ...[`profile ${sketch.name}`, size.name, words],
        ...[size.reference ? '' : size.formula, ...told, kind],
      ]
    }),
  )
  const rows = [...values, ...sizes]
  return rows.length === 0 ? undefined : writeCsv([COLUMNS, ...rows])
}

/** What values that are neither lengths nor angles are kept in. */
const BASE: Readonly<Record<Exclude<Measure, 'length' | 'angle'>, string>> = {
  ...{ mass: 'g', density: 'g/mm3', number: '', area: 'mm2', volume: 'mm3', inertia: 'g mm2' },
}

/** A value to twelve figures, lengths and angles in the part's own unit, and that unit. */
function shown(value: number, measure: Measure, units: UnitSettings): readonly [string, string] {
  const told = (x: number): string => String(Number(x.toPrecision(12)))
  if (measure === 'length') return [told(value / unitScale('length', units)), units.length]
  if (measure === 'angle') return [told(value / unitScale('angle', units)), units.angle]
  return [told(value), BASE[measure]]
}
