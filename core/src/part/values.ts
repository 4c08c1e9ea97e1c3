import { measureOf } from '../constraints'
import { evaluateTable, type Definition, type ValueTable } from '../formula'
import { once } from '../once'
import { fail, type Problem } from '../result'
import { LARGEST_LENGTH } from '../tolerances'
import type { Size, Sketch } from '../sketch'
import type { Part } from './types'

/** Every formula of a part, evaluated. */
export interface PartValues {
  readonly table: ValueTable
  /** What is wrong with a named value's formula, by its name. */
  readonly problems: ReadonlyMap<string, Problem>
  /** The driving sizes of a profile; their ids are counted within it. */
  readonly sizesOf: (sketchId: string) => SketchSizes
}

/** Driving sizes of one profile. */
export interface SketchSizes {
  /** Those that have a usable value, by size id, in mm and radians. */
  readonly values: ReadonlyMap<string, number>
  /** What is wrong with the others' formulas, by size id. */
  readonly problems: ReadonlyMap<string, Problem>
}

/** Values by the formulas they came from: moving points, as a drag does, changes none of them. */
const byFormulas = new WeakMap<
  Part['values'],
  {
    readonly units: Part['units']
    readonly profiles: readonly Pick<Sketch, 'id' | 'sizes'>[]
    readonly values: PartValues
  }
>()

/** Evaluates named values and sizes together, since each may read the others. */
export const valuesOf = once((part: Part): PartValues => {
  const before = byFormulas.get(part.values)
  const same =
    before?.units === part.units &&
    before.profiles.length === part.sketches.length &&
    part.sketches.every((s, i) => {
      const known = before.profiles[i]
      return s.sizes === known?.sizes && s.id === known.id
    })
  const values = same ? before.values : evaluateAll(part)
  byFormulas.set(part.values, { units: part.units, profiles: part.sketches, values })
  return values
})

function evaluateAll(part: Part): PartValues {
  const driving = part.sketches.flatMap((s) => s.sizes.filter((size) => !size.reference))
  const definitions: Definition[] = [
    ...part.values,
    ...driving.map((s) => ({ name: s.name, formula: s.formula, measure: measureOf(s) })),
  ]
  const table = evaluateTable(definitions, part.units)
  const problems = new Map<string, Problem>()
  for (const value of part.values) {
    const result = table.get(value.name)
    if (result && !result.ok) problems.set(value.name, result.problem)
  }
  const sizes = new Map(part.sketches.map((s) => [s.id, sketchSizes(s.sizes, table)]))
  return { table, problems, sizesOf: (id) => sizes.get(id) ?? NO_SIZES }
}

const NO_SIZES: SketchSizes = { values: new Map(), problems: new Map() }

function sketchSizes(sizes: readonly Size[], table: ValueTable): SketchSizes {
  const values = new Map<string, number>()
  const problems = new Map<string, Problem>()
  for (const size of sizes) {
    const result = size.reference ? undefined : table.get(size.name)
    if (!result) continue
    const problem = result.ok ? sizeProblem(size, result.value) : result.problem
    if (problem) problems.set(size.id, problem)
    else if (result.ok) values.set(size.id, result.value)
  }
  return { values, problems }
}

/** Why a value cannot be a size's, if so. @param value in mm or radians */
export function sizeProblem(size: Pick<Size, 'kind'>, value: number): Problem | undefined {
  const angle = measureOf(size) === 'angle'
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
