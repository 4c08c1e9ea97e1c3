/**
 * Quantities and units. Inside the computation every number is in millimetres, radians and grams;
 * units exist only where people or files read and write.
 */

/** Exponents of length, angle and mass. */
export interface Dimension {
  readonly length: number
  readonly angle: number
  readonly mass: number
}

/** What a field can ask for. */
export type Measure =
  'length' | 'angle' | 'mass' | 'density' | 'number' | 'area' | 'volume' | 'inertia'

export const DIMENSIONS: Readonly<Record<Measure, Dimension>> = {
  length: { length: 1, angle: 0, mass: 0 },
  angle: { length: 0, angle: 1, mass: 0 },
  mass: { length: 0, angle: 0, mass: 1 },
  density: { length: -3, angle: 0, mass: 1 },
  number: { length: 0, angle: 0, mass: 0 },
  area: { length: 2, angle: 0, mass: 0 },
  volume: { length: 3, angle: 0, mass: 0 },
  inertia: { length: 2, angle: 0, mass: 1 },
}

/** A value in mm, rad and g, with its dimension. */
export interface Quantity {
  readonly value: number
  readonly dimension: Dimension
}

export type LengthUnit = 'mm' | 'cm' | 'm' | 'in'
export type AngleUnit = 'deg' | 'rad'
export type MassUnit = 'g' | 'kg' | 'lb'

/** The units a part is shown in, and in which its bare numbers are meant. */
export interface UnitSettings {
  readonly length: LengthUnit
  readonly angle: AngleUnit
  readonly mass: MassUnit
}

export const METRIC: UnitSettings = { length: 'mm', angle: 'deg', mass: 'kg' }

/** The international pound of 1959 in grams, exact by definition. */
const POUND = 453.59237

/** Every unit a formula may name, with its size in mm, rad or g. */
export const UNITS: ReadonlyMap<string, Quantity> = new Map<string, Quantity>([
  ['um', length(1e-3)],
  ['mm', length(1)],
  ['cm', length(10)],
  ['m', length(1000)],
  ['in', length(25.4)],
  ['inch', length(25.4)],
  ['ft', length(304.8)],
  ['deg', { value: Math.PI / 180, dimension: DIMENSIONS.angle }],
  ['rad', { value: 1, dimension: DIMENSIONS.angle }],
  ['mg', mass(1e-3)],
  ['g', mass(1)],
  ['kg', mass(1000)],
  ['lb', mass(POUND)],
  ['ml', { value: 1e3, dimension: DIMENSIONS.volume }],
  ['litre', { value: 1e6, dimension: DIMENSIONS.volume }],
])

function length(value: number): Quantity {
  return { value, dimension: DIMENSIONS.length }
}

function mass(value: number): Quantity {
  return { value, dimension: DIMENSIONS.mass }
}

export function sameDimension(a: Dimension, b: Dimension): boolean {
  return a.length === b.length && a.angle === b.angle && a.mass === b.mass
}

/** The word for a dimension in a sentence: "a length", "an area", "a number without a unit". */
export function dimensionName(d: Dimension): string {
  if (sameDimension(d, DIMENSIONS.number)) return 'a number without a unit'
  if (sameDimension(d, DIMENSIONS.angle)) return 'an angle'
  if (sameDimension(d, DIMENSIONS.mass)) return 'a mass'
  if (sameDimension(d, DIMENSIONS.density)) return 'a density'
  if (sameDimension(d, DIMENSIONS.inertia)) return 'a moment of inertia'
  if (d.angle === 0 && d.mass === 0) {
    if (d.length === 1) return 'a length'
    if (d.length === 2) return 'an area'
    if (d.length === 3) return 'a volume'
  }
  return 'a mixed unit'
}

/** The size of one unit of a measure, in mm, rad, g or g/mm³, as the settings have it. */
export function unitScale(measure: Measure, units: UnitSettings): number {
  switch (measure) {
    case 'length':
      return UNITS.get(units.length)?.value ?? 1
    case 'angle':
      return UNITS.get(units.angle)?.value ?? 1
    case 'mass':
      return UNITS.get(units.mass)?.value ?? 1
    // Densities are told in g/cm³ wherever they are shown.
    case 'density':
      return 1e-3
    case 'number':
      return 1
    case 'area':
      return unitScale('length', units) ** 2
    case 'volume':
      return unitScale('length', units) ** 3
    case 'inertia':
      return unitScale('mass', units) * unitScale('length', units) ** 2
  }
}

const DECIMALS: Readonly<Record<LengthUnit, number>> = { mm: 3, cm: 4, m: 6, in: 4 }

/**
 * A length for a label: at most the digits that mean something in the unit, no trailing zeros.
 * @param mm length in millimetres
 */
export function formatLength(mm: number, units: UnitSettings): string {
  return trimZeros((mm / unitScale('length', units)).toFixed(DECIMALS[units.length]))
}

/** An angle for a label. @param rad angle in radians */
export function formatAngle(rad: number, units: UnitSettings): string {
  if (units.angle === 'rad') return `${trimZeros(rad.toFixed(5))} rad`
  return `${trimZeros(((rad * 180) / Math.PI).toFixed(3))}°`
}

/** A mass with its unit: grams below a kilogram, four figures. @param g mass in grams */
export function formatMass(g: number, units: UnitSettings): string {
  if (units.mass === 'lb') return `${significant(g / POUND, 4)} lb`
  if (units.mass === 'kg' && Math.abs(g) >= 1000) return `${significant(g / 1000, 4)} kg`
  return `${significant(g, 4)} g`
}

/** A number with so many significant figures, never in exponent form. */
export function significant(value: number, figures: number): string {
  if (!Number.isFinite(value)) return '–'
  if (value === 0) return '0'
  const magnitude = Math.floor(Math.log10(Math.abs(value)))
  const decimals = Math.min(12, Math.max(0, figures - 1 - magnitude))
  return value.toFixed(decimals)
}

function trimZeros(text: string): string {
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return trimmed === '-0' ? '0' : trimmed
}
