import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  DIMENSIONS,
  METRIC,
  UNITS,
  dimensionName,
  evaluateFormula,
  formatAngle,
  formatLength,
  formatMass,
  significant,
  unitScale,
  type UnitSettings,
} from '../src'

const INCHES: UnitSettings = { length: 'in', angle: 'deg', mass: 'lb' }

describe('lengths on labels', () => {
  it.each([
    [24, '24'],
    [24.5, '24.5'],
    [0.1 + 0.2, '0.3'],
    [12.3456, '12.346'],
    [-0.00001, '0'],
    [1200, '1200'],
  ])('%d mm are told as %s', (mm, text) => {
    expect(formatLength(mm, METRIC)).toBe(text)
  })

  it('are told in the part’s unit, with the digits that mean something there', () => {
    expect(formatLength(25.4, INCHES)).toBe('1')
    expect(formatLength(3.175, INCHES)).toBe('0.125')
    expect(formatLength(1000, { ...METRIC, length: 'm' })).toBe('1')
    expect(formatLength(12.5, { ...METRIC, length: 'cm' })).toBe('1.25')
  })

  it('mean the same when they are typed in again, to the last digit shown', () => {
    const context = { want: 'length' as const, units: METRIC, lookup: () => undefined }
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 5000, noNaN: true }), (mm) => {
        const typed = evaluateFormula(formatLength(mm, METRIC), context)
        expect(typed.ok && Math.abs(typed.value - mm)).toBeLessThanOrEqual(0.0005001)
      }),
    )
  })
})

describe('angles and masses on labels', () => {
  it('tell angles in degrees or radians', () => {
    expect(formatAngle(Math.PI / 4, METRIC)).toBe('45°')
    expect(formatAngle(1.5, { ...METRIC, angle: 'rad' })).toBe('1.5 rad')
  })

  it('tell masses in grams below a kilogram, with four figures', () => {
    expect(formatMass(826.64, METRIC)).toBe('826.6 g')
    expect(formatMass(1284.2, METRIC)).toBe('1.284 kg')
    expect(formatMass(0.01234, METRIC)).toBe('0.01234 g')
    expect(formatMass(453.59237, INCHES)).toBe('1.000 lb')
  })

  it('never show exponents or what is no number', () => {
    expect(significant(1e-9, 4)).toBe('0.000000001000')
    expect(significant(NaN, 4)).toBe('–')
    expect(significant(Infinity, 4)).toBe('–')
    expect(significant(0, 4)).toBe('0')
    fc.assert(
      fc.property(fc.double({ min: -1e12, max: 1e12, noNaN: true }), (value) => {
        expect(significant(value, 4)).toMatch(/^-?\d+(\.\d+)?$/)
      }),
    )
  })
})

describe('units', () => {
  it('have the sizes that the standards define', () => {
    expect(UNITS.get('in')?.value).toBe(25.4)
    expect(UNITS.get('ft')?.value).toBeCloseTo(12 * 25.4, 12)
    expect(UNITS.get('lb')?.value).toBe(453.59237)
    expect(UNITS.get('deg')?.value).toBeCloseTo(Math.PI / 180, 15)
  })

  it('scale fields to millimetres, radians, grams and g/mm³', () => {
    expect(unitScale('length', INCHES)).toBe(25.4)
    expect(unitScale('mass', METRIC)).toBe(1000)
    expect(unitScale('density', METRIC)).toBe(1e-3)
    expect(unitScale('number', METRIC)).toBe(1)
  })

  it('are called by their kind in sentences', () => {
    expect(dimensionName(DIMENSIONS.length)).toBe('a length')
    expect(dimensionName({ length: 2, angle: 0, mass: 0 })).toBe('an area')
    expect(dimensionName({ length: 3, angle: 0, mass: 0 })).toBe('a volume')
    expect(dimensionName(DIMENSIONS.density)).toBe('a density')
    expect(dimensionName({ length: 1, angle: 1, mass: 0 })).toBe('a mixed unit')
  })
})
