import {
  DIMENSIONS,
  UNITS,
  dimensionName,
  sameDimension,
  unitScale,
  type Dimension,
  type Measure,
  type Quantity,
  type UnitSettings,
} from '../units'
import { fail, succeed, type Result, type TextRange } from '../result'
import { parseFormula, type Formula, type Operator } from './parse'
import { readTolerance, splitTolerance, type Tolerance } from './tolerance'

export interface FormulaContext {
  /** What the field wants; a bare number is then meant in the part's unit of it. */
  readonly want: Measure
  readonly units: UnitSettings
  /** The unit of a bare number, in mm, rad, g and their products, where it is not the part's. */
  readonly bare?: number
  /** Finds a named value; undefined when there is none of that name. */
  readonly lookup: (name: string) => Result<Quantity> | undefined
}

const NUMBER = DIMENSIONS.number

type Evaluated = Result<Quantity>

/**
 * Evaluates a formula to one number in mm, rad, g or g/mm³.
 * A number without a unit beside a length counts in the part's length unit, beside an angle in its
 * angle unit; trigonometric functions take bare numbers as angles in the part's unit.
 */
export function evaluateFormula(text: string, context: FormulaContext): Result<number> {
  const value = valueOf(text, context)
  if (!value.ok) return value
  const tolerance = toleranceIn(text, value.value, context)
  return tolerance.ok ? value : tolerance
}

/**
 * The tolerance that is written behind a formula's value.
 * @returns undefined where there is none, with its limits in mm or radians
 */
export function evaluateTolerance(
  text: string,
  context: FormulaContext,
): Result<Tolerance | undefined> {
  if (!splitTolerance(text).tolerance) return succeed(undefined)
  const value = valueOf(text, context)
  return value.ok ? toleranceIn(text, value.value, context) : value
}

function toleranceIn(
  text: string,
  nominal: number,
  context: FormulaContext,
): Result<Tolerance | undefined> {
  const { tolerance } = splitTolerance(text)
  if (!tolerance) return succeed(undefined)
  const { want } = context
  if (want !== 'length' && want !== 'angle') {
    return fail('tolerance.kind', 'Only lengths and angles have tolerances.', 'Leave it out.', {
      at: tolerance.at,
    })
  }
  return readTolerance(tolerance, nominal, want === 'length', (part) => valueOf(part, context))
}

function valueOf(text: string, context: FormulaContext): Result<number> {
  const parsed = parseFormula(text)
  if (!parsed.ok) return parsed
  const result = evaluate(parsed.value, context)
  if (!result.ok) return result
  const { value, dimension } = result.value
  const wanted = DIMENSIONS[context.want]
  if (!Number.isFinite(value)) return overflow({ from: 0, to: text.length })
  if (sameDimension(dimension, wanted)) return succeed(value)
  if (sameDimension(dimension, NUMBER)) {
    const scaled = value * (context.bare ?? unitScale(context.want, context.units))
    return Number.isFinite(scaled) ? succeed(scaled) : overflow({ from: 0, to: text.length })
  }
  return fail(
    'formula.dimension',
    `This field takes ${dimensionName(wanted)}; the formula gives ${dimensionName(dimension)}.`,
    `Check the units: for instance 12 ${EXAMPLE[context.want]}.`,
    { at: { from: 0, to: text.length } },
  )
}

/** A unit that a field of each kind takes. */
const EXAMPLE: Readonly<Record<Measure, string>> = {
  length: 'mm',
  angle: 'deg',
  mass: 'g',
  density: 'g/cm^3',
  number: '',
  area: 'cm^2',
  volume: 'cm^3',
  inertia: 'g*mm^2',
}

function overflow(at: TextRange): Result<never> {
  return fail(
    'formula.overflow',
    'The value is too large or divides by zero.',
    'Check for a zero below a division line or a very large power.',
    { at },
  )
}

function evaluate(node: Formula, context: FormulaContext): Evaluated {
  switch (node.kind) {
    case 'number':
      return succeed({ value: node.value, dimension: NUMBER })
    case 'name':
      return evaluateName(node.name, node.at, context)
    case 'operation':
      return evaluateOperation(node.operator, node.args, node.at, context)
    case 'call':
      return evaluateCall(node.name, node.args, node.at, context)
  }
}

function evaluateName(name: string, at: TextRange, context: FormulaContext): Evaluated {
  if (name === 'pi') return succeed({ value: Math.PI, dimension: NUMBER })
  const found = context.lookup(name)
  if (found) return found.ok ? found : { ok: false, problem: { ...found.problem, at } }
  const unit = UNITS.get(name)
  if (unit) return succeed(unit)
  return fail(
    'formula.name',
    `There is no value or unit called “${name}”.`,
    'Add it to the named values, or correct its spelling.',
    { at },
  )
}

function evaluateOperation(
  operator: Operator,
  args: readonly Formula[],
  at: TextRange,
  context: FormulaContext,
): Evaluated {
  const values: Quantity[] = []
  for (const arg of args) {
    const value = evaluate(arg, context)
    if (!value.ok) return value
    values.push(value.value)
  }
  const [a, b] = values
  if (!a) return overflow(at)
  if (operator === 'negate') return succeed({ value: -a.value, dimension: a.dimension })
  if (!b) return overflow(at)
  switch (operator) {
    case '+':
    case '-':
      return add(a, b, operator === '+' ? 1 : -1, at, context.units)
    case '*':
      return succeed({ value: a.value * b.value, dimension: combine(a.dimension, b.dimension, 1) })
    case '/':
      if (b.value === 0) return overflow(at)
      return succeed({ value: a.value / b.value, dimension: combine(a.dimension, b.dimension, -1) })
    case '^':
      return power(a, b, at)
  }
}

function add(
  a: Quantity,
  b: Quantity,
  sign: 1 | -1,
  at: TextRange,
  units: UnitSettings,
): Evaluated {
  const x = sameDimension(a.dimension, NUMBER) ? adopt(a, b.dimension, units) : a
  const y = sameDimension(b.dimension, NUMBER) ? adopt(b, a.dimension, units) : b
  if (!sameDimension(x.dimension, y.dimension)) {
    return fail(
      'formula.dimension',
      `${capital(dimensionName(x.dimension))} and ${dimensionName(y.dimension)} cannot be added.`,
      'Give both the same kind of unit.',
      { at },
    )
  }
  return succeed({ value: x.value + sign * y.value, dimension: x.dimension })
}

/** A bare number beside a quantity counts in the part's units of that quantity: 4 + area is mm². */
function adopt(q: Quantity, dimension: Dimension, units: UnitSettings): Quantity {
  const { length, angle, mass } = dimension
  const scale =
    unitScale('length', units) ** length *
    unitScale('angle', units) ** angle *
    unitScale('mass', units) ** mass
  return { value: q.value * scale, dimension }
}

function power(base: Quantity, exponent: Quantity, at: TextRange): Evaluated {
  if (!sameDimension(exponent.dimension, NUMBER)) {
    return fail('formula.dimension', 'An exponent has no unit.', 'Use a bare number behind ^.', {
      at,
    })
  }
  const value = base.value ** exponent.value
  if (!Number.isFinite(value)) return overflow(at)
  const { length, angle, mass } = base.dimension
  const e = exponent.value
  return succeed({ value, dimension: { length: length * e, angle: angle * e, mass: mass * e } })
}

function combine(a: Dimension, b: Dimension, sign: 1 | -1): Dimension {
  return {
    length: a.length + sign * b.length,
    angle: a.angle + sign * b.angle,
    mass: a.mass + sign * b.mass,
  }
}

interface FormulaFunction {
  readonly arity: number | 'some'
  readonly apply: (args: readonly Quantity[], units: UnitSettings) => Quantity | undefined
}

const trigonometric = (f: (rad: number) => number): FormulaFunction => ({
  arity: 1,
  apply: ([a], units) => {
    if (!a) return undefined
    const angle = sameDimension(a.dimension, NUMBER) ? adopt(a, DIMENSIONS.angle, units) : a
    if (!sameDimension(angle.dimension, DIMENSIONS.angle)) return undefined
    return { value: f(angle.value), dimension: NUMBER }
  },
})

const inverse = (f: (x: number) => number): FormulaFunction => ({
  arity: 1,
  apply: ([a]) =>
    a && sameDimension(a.dimension, NUMBER)
      ? { value: f(a.value), dimension: DIMENSIONS.angle }
      : undefined,
})

const keeping = (f: (x: number) => number): FormulaFunction => ({
  arity: 1,
  apply: ([a]) => a && { value: f(a.value), dimension: a.dimension },
})

/** Rounds in the part's own unit, as the designer sees the figure. */
const rounding = (f: (x: number) => number): FormulaFunction => ({
  arity: 1,
  apply: ([a], units) => {
    if (!a) return undefined
    const scale = adopt({ value: 1, dimension: NUMBER }, a.dimension, units).value
    return { value: f(a.value / scale) * scale, dimension: a.dimension }
  },
})

const choosing = (f: (...x: number[]) => number): FormulaFunction => ({
  arity: 'some',
  apply: (args, units) => {
    const typed = args.find((a) => !sameDimension(a.dimension, NUMBER)) ?? args[0]
    if (!typed) return undefined
    const same = args.map((a) =>
      sameDimension(a.dimension, NUMBER) ? adopt(a, typed.dimension, units) : a,
    )
    if (!same.every((a) => sameDimension(a.dimension, typed.dimension))) return undefined
    return { value: f(...same.map((a) => a.value)), dimension: typed.dimension }
  },
})

const FUNCTIONS: ReadonlyMap<string, FormulaFunction> = new Map<string, FormulaFunction>([
  ['sin', trigonometric(Math.sin)],
  ['cos', trigonometric(Math.cos)],
  ['tan', trigonometric(Math.tan)],
  ['asin', inverse(Math.asin)],
  ['acos', inverse(Math.acos)],
  ['atan', inverse(Math.atan)],
  ['abs', keeping(Math.abs)],
  ['round', rounding(Math.round)],
  ['floor', rounding(Math.floor)],
  ['ceil', rounding(Math.ceil)],
  ['min', choosing(Math.min)],
  ['max', choosing(Math.max)],
  [
    'sqrt',
    {
      arity: 1,
      apply: ([a]) => a && { value: Math.sqrt(a.value), dimension: half(a.dimension) },
    },
  ],
])

/** Names that cannot be given to values, since formulas read them otherwise. */
export function isReservedName(name: string): boolean {
  return name === 'pi' || UNITS.has(name) || FUNCTIONS.has(name)
}

function half(d: Dimension): Dimension {
  return { length: d.length / 2, angle: d.angle / 2, mass: d.mass / 2 }
}

function evaluateCall(
  name: string,
  args: readonly Formula[],
  at: TextRange,
  context: FormulaContext,
): Evaluated {
  const fn = FUNCTIONS.get(name)
  if (!fn) {
    const names = [...FUNCTIONS.keys()].join(', ')
    return fail('formula.function', `There is no function “${name}”.`, `Known: ${names}.`, { at })
  }
  if (args.length === 0 || (fn.arity !== 'some' && fn.arity !== args.length)) {
    const many = fn.arity === 'some' ? 'at least one value' : 'one value'
    return fail(
      'formula.arguments',
      `${name} takes ${many} in its brackets.`,
      `As in ${name}(2).`,
      {
        at,
      },
    )
  }
  const values: Quantity[] = []
  for (const arg of args) {
    const value = evaluate(arg, context)
    if (!value.ok) return value
    values.push(value.value)
  }
  const result = fn.apply(values, context.units)
  if (!result) {
    return fail('formula.dimension', `${name} cannot take these units.`, 'Check the units.', { at })
  }
  if (!Number.isFinite(result.value)) {
    return fail('formula.domain', `${name} has no value there.`, 'Check what is in its brackets.', {
      at,
    })
  }
  return succeed(result)
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
