import { evaluateTable, type Definition, type ValueTable } from '../formula'
import { fail, type Problem } from '../result'
import { LARGEST_LENGTH } from '../tolerances'
import type { Size } from '../sketch'
import type { Part } from './types'

/** Every formula of a part, evaluated. */
export interface PartValues {
  readonly table: ValueTable
  /** Driving sizes that have a usable value, by size id, in mm and radians. */
  readonly sizes: ReadonlyMap<string, number>
  /** What is wrong with a size's or a named value's formula, by size id or value name. */
  readonly problems: ReadonlyMap<string, Problem>
}

const memo = new WeakMap<Part, PartValues>()

/** Values by the formulas they came from: moving points, as a drag does, changes none of them. */
const byFormulas = new WeakMap<
  Part['values'],
  {
    readonly units: Part['units']
    readonly sizes: readonly (readonly Size[])[]
    readonly values: PartValues
  }
>()

/** Evaluates named values and sizes together, since each may read the others. */
export function valuesOf(part: Part): PartValues {
  const known = memo.get(part)
  if (known) return known
  const before = byFormulas.get(part.values)
  const same =
    before?.units === part.units &&
    before.sizes.length === part.sketches.length &&
    part.sketches.every((s, i) => s.sizes === before.sizes[i])
  const values = same ? before.values : evaluateAll(part)
  memo.set(part, values)
  byFormulas.set(part.values, {
    units: part.units,
    sizes: part.sketches.map((s) => s.sizes),
    values,
  })
  return values
}

function evaluateAll(part: Part): PartValues {
  const driving = part.sketches.flatMap((s) => s.sizes.filter((size) => !size.reference))
  const definitions: Definition[] = [
    ...part.values,
    ...driving.map((s) => ({ name: s.name, formula: s.formula, measure: measureOf(s) })),
  ]
  const table = evaluateTable(definitions, part.units)
  const sizes = new Map<string, number>()
  const problems = new Map<string, Problem>()
  for (const value of part.values) {
    const result = table.get(value.name)
    if (result && !result.ok) problems.set(value.name, result.problem)
  }
  for (const size of driving) {
    const result = table.get(size.name)
    if (!result) continue
    const problem = result.ok ? sizeProblem(size, result.value) : result.problem
    if (problem) problems.set(size.id, problem)
    else if (result.ok) sizes.set(size.id, result.value)
  }
  return { table, sizes, problems }
}

/** What kind of value a size takes. */
export function measureOf(size: Pick<Size, 'kind'>): 'length' | 'angle' {
  return size.kind === 'angle' ? 'angle' : 'length'
}

/** Why a value cannot be a size's, if so. @param value in mm or radians */
export function sizeProblem(size: Pick<Size, 'kind'>, value: number): Problem | undefined {
  const angle = size.kind === 'angle'
  if (value <= 0) {
    const mend = angle
      ? 'For lines along one another, use a constraint instead.'
      : 'For nought, let the points meet or lie on the axis instead.'
    return fail('size.notPositive', 'A size is greater than zero.', mend).problem
  }
  if (angle && value >= Math.PI) {
    return fail('size.angle', 'An angle lies between 0° and 180°.', 'Take it from the other side.')
      .problem
  }
  if (!angle && value > LARGEST_LENGTH) {
    const mend = 'The largest length is 1 km; check the unit.'
    return fail('size.huge', 'This size is too large.', mend).problem
  }
  return undefined
}
