import { UNITS, type Measure, type UnitSettings } from './index'

/** A unit that figures are told in. */
export interface ShownUnit {
  /** As it stands behind a figure, and as a formula may write it too: cm³ or cm^3. */
  readonly name: string
  readonly measure: Measure
  /** One of it in mm, rad, g and their products. */
  readonly size: number
}

const size = (name: string): number => UNITS.get(name)?.value ?? 1

const LENGTHS = ['um', 'mm', 'cm', 'm', 'in']
const MASSES = ['mg', 'g', 'kg', 'lb']

/** Every unit figures are told in, by what they measure. */
export const SHOWN_UNITS: readonly ShownUnit[] = [
  ...LENGTHS.map((name) => shown(name, 'length', size(name))),
  shown('deg', 'angle', size('deg')),
  shown('rad', 'angle', 1),
  ...MASSES.map((name) => shown(name, 'mass', size(name))),
  ...['mm', 'cm', 'm', 'in'].map((name) => shown(`${name}²`, 'area', size(name) ** 2)),
  ...['mm', 'cm', 'm', 'in'].map((name) => shown(`${name}³`, 'volume', size(name) ** 3)),
  shown('ml', 'volume', size('ml')),
  shown('litre', 'volume', size('litre')),
  shown('g·mm²', 'inertia', 1),
  shown('kg·cm²', 'inertia', 1e5),
  shown('kg·m²', 'inertia', 1e9),
  shown('lb·in²', 'inertia', size('lb') * size('in') ** 2),
  shown('g/cm³', 'density', 1e-3),
  shown('kg/m³', 'density', 1e-6),
]

function shown(name: string, measure: Measure, unitSize: number): ShownUnit {
  return { name, measure, size: unitSize }
}

/** The unit of a name, however its powers and products are written: cm³, cm^3, cm3. */
export function unitCalled(text: string): ShownUnit | undefined {
  const plain = (name: string): string =>
    name
      .trim()
      .replace(/\^?2$/, '²')
      .replace(/\^?3$/, '³')
      .replace(/[*. ]/g, '·')
      .replace('μ', 'u')
      .replace('µ', 'u')
      .replace('°', 'deg')
  return SHOWN_UNITS.find((u) => plain(u.name) === plain(text))
}

/** The units a figure can be told in. */
export const unitsFor = (measure: Measure): readonly ShownUnit[] =>
  SHOWN_UNITS.filter((u) => u.measure === measure)

/** The unit a part's figures of a kind are told in, unless another was chosen. */
export function usualUnit(measure: Measure, units: UnitSettings): ShownUnit {
  const inch = units.length === 'in'
  const names: Readonly<Record<Measure, string>> = {
    length: units.length,
    angle: units.angle,
    mass: units.mass,
    area: inch ? 'in²' : units.length === 'm' ? 'm²' : 'cm²',
    volume: inch ? 'in³' : units.length === 'm' ? 'm³' : 'cm³',
    inertia: units.mass === 'lb' ? 'lb·in²' : units.mass === 'kg' ? 'kg·cm²' : 'g·mm²',
    density: 'g/cm³',
    number: '',
  }
  return unitCalled(names[measure]) ?? shown('', measure, 1)
}
