import { describeItem, measureOf, referencesOf } from '../constraints'
import {
  evaluateTolerance,
  parseFormula,
  namesIn,
  splitTolerance,
  evaluateFormula,
} from '../formula'
import { once } from '../once'
import { locator, type Size, type Sketch } from '../sketch'
import { fail, succeed } from '../result'
import type { Command } from '../edit'
import { fieldWords, formulasIn, type Fields } from '../part/fields'
import { valuesOf, type KnownStep, type Part, type Step } from '../part'
import { STEP_KINDS, settle } from '../route'
import {
  generalAngle,
  generalBevel,
  generalLength,
  type GeneralClass,
  type Limits,
} from '../standards'

/** A value of a part that may be off: a named value, a size of a profile, or a figure of a step. */
export interface Toleranced extends Limits {
  /** What it is: `value/NAME`, `size/SKETCH/ID`, or `step/ID/FIELD/…`. */
  readonly id: string
  /** In words, for lists. */
  readonly words: string
  readonly measure: 'length' | 'angle'
  /** In mm or radians. */
  readonly nominal: number
  /** The tolerance as it is written; of a general one the standard and its class. */
  readonly written: string
  /** False where it is the general tolerance of the part. */
  readonly own: boolean
  /** What it follows that has a tolerance already: it is off by both, a chain that is closed. */
  readonly follows: readonly string[]
}

/** Every value of a part that may be off, in the order of values, profiles and steps. */
export const tolerancedIn = once((part: Part): readonly Toleranced[] => [
  ...part.values.flatMap((v) => {
    const { measure } = v
    if (measure !== 'length' && measure !== 'angle') return []
    return own(part, v.formula, { id: `value/${v.name}`, words: v.name, measure }) ?? []
  }),
  ...part.sketches.flatMap((sketch) => {
    const { values } = valuesOf(part).sizesOf(sketch.id)
    return sketch.sizes.flatMap((size) => {
      const nominal = values.get(size.id)
      if (size.reference || nominal === undefined) return []
      const [words = ''] = describeItem(sketch, size).split(`, ${size.name} = `)
      const what = {
        id: `size/${sketch.id}/${size.id}`,
        words: `${words} (${size.name})`,
        measure: measureOf(size),
      }
      const how: GeneralRule =
        what.measure === 'length' ? generalLength : (g) => generalAngle(g, shorterLeg(sketch, size))
      return own(part, size.formula, what) ?? general(part, size.formula, what, nominal, how) ?? []
    })
  }),
  ...part.route.flatMap((step) => {
    if (step.aside || !isKnown(step)) return []
    const { name, fields } = STEP_KINDS[step.kind]
    return formulasIn(fields as Fields, step).flatMap(({ path, formula, measure }) => {
      if (measure === 'number' || formula.trim() === '') return []
      const field = path.filter((p) => typeof p === 'string').at(-1) ?? ''
      const words = `${fieldWords(String(field))} of ${name} ${step.number}`
      const what = { id: ['step', step.id, ...path].join('/'), words, measure }
      const nominal = evaluateFormula(formula, contextOf(part, measure))
      if (!nominal.ok) return []
      // Bevels have a table of their own; of other angles of steps no leg is known.
      const how: GeneralRule =
        measure === 'angle'
          ? () => undefined
          : step.kind === 'chamfer'
            ? generalBevel
            : generalLength
      return own(part, formula, what) ?? general(part, formula, what, nominal.value, how) ?? []
    })
  }),
])

/** The shorter leg of an angle in mm: of the lines it is between, or of the one that it stands on. */
function shorterLeg(sketch: Sketch, size: Size): number {
  const locate = locator(sketch)
  const legs = referencesOf(size).flatMap((id) => {
    const entity = sketch.entities.find((e) => e.id === id)
    if (entity?.kind !== 'line') return []
    const [a, b] = [locate(entity.from), locate(entity.to)]
    return [Math.hypot(a.x - b.x, a.y - b.y)]
  })
  return Math.min(...legs)
}

const isKnown = (step: Step): step is KnownStep => Object.hasOwn(STEP_KINDS, step.kind)

type What = Pick<Toleranced, 'id' | 'words' | 'measure'>

const contextOf = (part: Part, want: 'length' | 'angle') => ({
  want,
  units: part.units,
  lookup: valuesOf(part).table.lookup,
})

/** With the tolerance that is written behind it; undefined where there is none. */
function own(part: Part, formula: string, what: What): Toleranced | undefined {
  const { value: text, tolerance } = splitTolerance(formula)
  if (!tolerance) return undefined
  const context = contextOf(part, what.measure)
  const [nominal, limits] = [evaluateFormula(formula, context), evaluateTolerance(formula, context)]
  if (!nominal.ok || !limits.ok || !limits.value) return undefined
  const { upper, lower } = limits.value
  const written = formula.slice(text.length).trim()
  const follows = toleratedNames(part, text)
  return { ...what, nominal: nominal.value, upper, lower, written, own: true, follows }
}

/** How far a value without a tolerance may be off by a class of general ones; undefined where none is given. */
type GeneralRule = (general: GeneralClass, nominal: number) => number | undefined

/** With the part's general tolerance. What is the same as a value that has a tolerance is off as that is. */
function general(
  part: Part,
  formula: string,
  what: What,
  nominal: number,
  how: GeneralRule,
): Toleranced | undefined {
  const by = part.general && how(part.general, nominal)
  if (by === undefined || toleratedNames(part, formula).length > 0) return undefined
  const written = `ISO 2768-${part.general ?? ''}`
  return { ...what, nominal, upper: by, lower: -by, written, own: false, follows: [] }
}

/** The values and sizes with tolerances of their own that a formula reads, itself or through others. */
function toleratedNames(part: Part, formula: string, seen = new Set<string>()): readonly string[] {
  const parsed = parseFormula(splitTolerance(formula).value)
  if (!parsed.ok) return []
  return namesIn(parsed.value).flatMap((name) => {
    if (seen.has(name)) return []
    seen.add(name)
    const other = formulaOf(part, name)
    if (other === undefined) return []
    const own = splitTolerance(other).tolerance === undefined ? [] : [name]
    return [...own, ...toleratedNames(part, other, seen)]
  })
}

const formulaOf = (part: Part, name: string): string | undefined => formulasByName(part).get(name)

/** What is typed for every name that formulas can read; named values come before sizes. */
const formulasByName = once(
  (part: Part): ReadonlyMap<string, string> =>
    new Map(
      [
        ...part.sketches.flatMap((s) => s.sizes.filter((size) => !size.reference)),
        ...part.values,
      ].map(({ name, formula }) => [name, formula]),
    ),
)

/**
 * The part with some of its values off.
 * @param off by what is off, how far above its nominal value, in mm or radians
 */
export function withValuesOff(part: Part, off: ReadonlyMap<string, number>): Part {
  const changes = tolerancedIn(part).flatMap((of) => {
    const by = off.get(of.id) ?? 0
    return by === 0 ? [] : [{ of, by }]
  })
  if (changes.length === 0) return part
  return settle(changes.reduce((here, { of, by }) => changedAt(here, of, by), part))
}

function changedAt(part: Part, { id, measure }: Toleranced, by: number): Part {
  const unit = measure === 'angle' ? 'rad' : 'mm'
  return withFormula(part, id, (formula) => {
    const { value } = splitTolerance(formula)
    return `(${value}) ${by < 0 ? '-' : '+'} ${Math.abs(by)} ${unit}`
  })
}

/** Writes another tolerance behind a value; the value stays. */
export function setTolerance(of: Pick<Toleranced, 'id'>, written: string): Command {
  return {
    label: 'set tolerance',
    run: (part) => {
      const changed = withFormula(part, of.id, (formula) =>
        `${splitTolerance(formula).value.trimEnd()} ${written}`.trimEnd(),
      )
      const isRead = written === '' || tolerancedIn(changed).some((t) => t.id === of.id && t.own)
      if (isRead) return succeed(changed)
      return fail('tolerance.write', `“${written}” is no tolerance here.`, 'Type one as in ±0.05.')
    },
  }
}

/** The part with the formula of a value of it changed. */
function withFormula(part: Part, id: string, shifted: (formula: string) => string): Part {
  const [of = '', first = '', ...path] = id.split('/')
  if (of === 'value') {
    const values = part.values.map((v) =>
      v.name === first ? { ...v, formula: shifted(v.formula) } : v,
    )
    return { ...part, values }
  }
  if (of === 'size') {
    const sketches = part.sketches.map((s) =>
      s.id === first
        ? {
            ...s,
            sizes: s.sizes.map((size) =>
              size.id === path[0] ? { ...size, formula: shifted(size.formula) } : size,
            ),
          }
        : s,
    )
    return { ...part, sketches }
  }
  const route = part.route.map((step) =>
    step.id === first ? (replaced(step, path, shifted) as Step) : step,
  )
  return { ...part, route }
}

/** A document with the text at the end of a way replaced. */
function replaced(
  value: unknown,
  [first, ...rest]: readonly string[],
  change: (text: string) => string,
): unknown {
  if (first === undefined) return typeof value === 'string' ? change(value) : value
  if (Array.isArray(value)) {
    return value.map((item: unknown, i) =>
      String(i) === first ? replaced(item, rest, change) : item,
    )
  }
  if (typeof value !== 'object' || value === null) return value
  const inner = (value as Record<string, unknown>)[first]
  return { ...value, [first]: replaced(inner, rest, change) }
}
