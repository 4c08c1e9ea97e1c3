import { DIMENSIONS, type Measure, type Quantity, type UnitSettings } from '../units'
import { fail, succeed, type Result } from '../result'
import { evaluateFormula } from './evaluate'

/** Something with a name and a formula that other formulas may read. */
export interface Definition {
  readonly name: string
  readonly formula: string
  readonly measure: Measure
}

/** Evaluated definitions by name. */
export interface ValueTable {
  readonly get: (name: string) => Result<number> | undefined
  readonly lookup: (name: string) => Result<Quantity> | undefined
}

/**
 * Evaluates definitions that may read one another, each in mm, rad, g or g/mm³.
 * A definition that reads itself, directly or round about, gets a problem that spells the circle.
 */
export function evaluateTable(definitions: readonly Definition[], units: UnitSettings): ValueTable {
  const byName = new Map(definitions.map((d) => [d.name, d]))
  const done = new Map<string, Result<number>>()
  const open: string[] = []

  const valueOf = (name: string): Result<number> | undefined => {
    const definition = byName.get(name)
    if (!definition) return undefined
    const known = done.get(name)
    if (known) return known
    if (open.includes(name)) {
      const circle = [...open.slice(open.indexOf(name)), name].join(' → ')
      return fail(
        'formula.cycle',
        `These values read each other in a circle: ${circle}.`,
        'Give one of them a plain number.',
      )
    }
    open.push(name)
    const result = evaluateFormula(definition.formula, { want: definition.measure, units, lookup })
    open.pop()
    // What depends on an open circle is judged again from its own start, so that each is told alike.
    const cyclic = !result.ok && result.problem.code === 'formula.cycle'
    if (!cyclic || open.length === 0) done.set(name, result)
    return result
  }

  const lookup = (name: string): Result<Quantity> | undefined => {
    const value = valueOf(name)
    const definition = byName.get(name)
    if (!value || !definition) return undefined
    if (!value.ok) return value
    return succeed({ value: value.value, dimension: DIMENSIONS[definition.measure] })
  }

  return { get: valueOf, lookup }
}
