import { DIMENSIONS, type Measure, type Quantity, type UnitSettings } from '../units'
import { fail, succeed, type Result } from '../result'
import { evaluateFormula } from './evaluate'
import { namesIn, parseFormula } from './parse'

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

/** Circles of more names than this, the first twice, are told by their ends. */
const MOST_SPELLED = 12

/**
 * Evaluates definitions that may read one another, each in mm, rad, g or g/mm³.
 * A definition that reads itself, directly or round about, gets a problem that spells the circle.
 */
export function evaluateTable(definitions: readonly Definition[], units: UnitSettings): ValueTable {
  const byName = new Map(definitions.map((d) => [d.name, d]))
  const done = new Map<string, Result<number>>()

  /** Names of a definition that are defined here, each once. */
  const readBy = (name: string): readonly string[] => {
    const parsed = parseFormula(byName.get(name)?.formula ?? '')
    return parsed.ok ? namesIn(parsed.value).filter((n) => byName.has(n)) : []
  }

  /** A circle is told to every member of it from its own start. */
  const tellCircle = (members: readonly string[]): void => {
    const count = members.length
    members.forEach((name, i) => {
      // Of long circles only the ends are spelled out: each has as many tellings as members.
      const from = (start: number, many: number): string[] =>
        Array.from({ length: many }, (_, k) => members[(i + start + k) % count] ?? '')
      const few =
        count + 1 > MOST_SPELLED ? [...from(0, 6), '…', ...from(count - 4, 5)] : from(0, count + 1)
      done.set(
        name,
        fail(
          'formula.cycle',
          `These values read each other in a circle: ${few.join(' → ')}.`,
          'Give one of them a plain number.',
        ),
      )
    })
  }

  /** Evaluates what a definition reads before it, with a stack of its own: chains may be long. */
  const valueOf = (name: string): Result<number> | undefined => {
    if (!byName.has(name)) return undefined
    const path = [{ name, reads: readBy(name), next: 0 }]
    const depthOf = new Map([[name, 0]])
    while (path.length > 0 && !done.has(name)) {
      const top = path[path.length - 1]
      if (!top) break
      const read = done.has(top.name) ? undefined : top.reads[top.next++]
      const depth = read === undefined ? undefined : depthOf.get(read)
      if (depth !== undefined) tellCircle(path.slice(depth).map((p) => p.name))
      else if (read !== undefined && !done.has(read)) {
        depthOf.set(read, path.length)
        path.push({ name: read, reads: readBy(read), next: 0 })
      } else if (read === undefined) {
        const definition = byName.get(top.name)
        if (definition && !done.has(top.name)) {
          const { formula, measure } = definition
          done.set(top.name, evaluateFormula(formula, { want: measure, units, lookup }))
        }
        path.pop()
        depthOf.delete(top.name)
      }
    }
    return done.get(name)
  }

  const lookup = (name: string): Result<Quantity> | undefined => {
    const value = done.get(name)
    const definition = byName.get(name)
    if (!value || !definition) return undefined
    if (!value.ok) return value
    return succeed({ value: value.value, dimension: DIMENSIONS[definition.measure] })
  }

  return {
    get: valueOf,
    lookup: (name) => {
      valueOf(name)
      return lookup(name)
    },
  }
}
