import { describe, expect, test } from 'vitest'
import {
  evaluateFormula,
  evaluateTolerance,
  parseFormula,
  splitTolerance,
} from '@lathica/core/formula'
import type { UnitSettings } from '@lathica/core/units'

const MM: UnitSettings = { length: 'mm', angle: 'deg', mass: 'kg' }
const context = (want: 'length' | 'angle' | 'number' = 'length', units = MM) => ({
  ...{ want, units },
  lookup: (name: string) =>
    name === 'seat' || name === 'm6'
      ? ({ ok: true, value: { value: 35, dimension: { length: 1, angle: 0, mass: 0 } } } as const)
      : undefined,
})
function told(text: string, want: 'length' | 'angle' | 'number' = 'length', units = MM): unknown {
  const [value, tolerance] = [
    evaluateFormula(text, context(want, units)),
    evaluateTolerance(text, context(want, units)),
  ]
  if (!value.ok) return value.problem.code
  if (!tolerance.ok) return tolerance.problem.code
  const round = (v: number): number => Math.round(1e9 * v) / 1e9 || 0
  const limits = tolerance.value
  return limits
    ? [round(value.value), round(limits.upper), round(limits.lower)]
    : round(value.value)
}

describe('a tolerance behind a value', () => {
  test('as a class, with and without a space, behind numbers, units, names and formulas', () => {
    expect(told('35 k6')).toEqual([35, 0.018, 0.002])
    expect(told('35k6')).toEqual([35, 0.018, 0.002])
    expect(told('35 H7')).toEqual([35, 0.025, 0])
    expect(told(' 3.5 cm h9 ')).toEqual([35, 0, -0.062])
    expect(told('seat JS7')).toEqual([35, 0.0125, -0.0125])
    expect(told('2 * 10 + 5 f7')).toEqual([25, -0.02, -0.041])
    expect(told('(seat - 5) g6')).toEqual([30, -0.007, -0.02])
    expect(told('35 e8')).toEqual([35, -0.05, -0.089])
    expect(evaluateTolerance('35 k6', context())).toMatchObject({ value: { words: 'k6' } })
  })

  test('as much to either side, and as two deviations, in the unit of the field or their own', () => {
    expect(told('24 ±0.05')).toEqual([24, 0.05, -0.05])
    expect(told('24+/-0.05')).toEqual([24, 0.05, -0.05])
    expect(told('24 ± 0.002 in')).toEqual([24, 0.0508, -0.0508])
    expect(told('1 in ±0.001 in')).toEqual([25.4, 0.0254, -0.0254])
    expect(told('40 +0.1 0')).toEqual([40, 0.1, 0])
    expect(told('40 0 -0.2')).toEqual([40, 0, -0.2])
    expect(told('40 −0.1 −0.25')).toEqual([40, -0.1, -0.25])
    expect(told('40 +0,1 -0,05')).toEqual([40, 0.1, -0.05])
    const degree = Math.PI / 180
    expect(evaluateTolerance('30 ±0.5', context('angle'))).toMatchObject({
      value: { upper: 0.5 * degree },
    })
    expect(told('2 +0.001 0', 'length', { ...MM, length: 'in' })).toEqual([50.8, 0.0254, 0])
  })

  test('what adds, or is a number or a name of its own, is no tolerance', () => {
    expect(told('40 + 5 - 3')).toBe(42)
    expect(told('40+5-3')).toBe(42)
    expect(told('40 +5')).toBe(45)
    expect(told('40 - 0.2 + 0')).toBe(39.8)
    expect(told('35e2')).toBe(3500)
    expect(told('seat + m6')).toBe(70)
    expect(told('seat - m6')).toBe(0)
    expect(told('seat*m6/35')).toBe('formula.dimension')
    expect(told('1 1/2 in')).toBe(38.1)
    expect(told('40 0 0')).toBe('formula.product')
    expect(told('2 m')).toBe(2000)
    expect(splitTolerance('min(3, 4)').tolerance).toBeUndefined()
    expect(splitTolerance('2 * (3 + 4) H7')).toMatchObject({ value: '2 * (3 + 4)' })
  })

  test('is refused where it has no meaning, with the words it is about', () => {
    expect(told('5000 H7')).toBe('tolerance.size')
    expect(told('35 q6')).toBe('tolerance.letter')
    expect(told('35 h27')).toBe('tolerance.grade')
    expect(told('20 t6')).toBe('tolerance.none')
    expect(told('40 -0.1 +0.1')).toBe('tolerance.reversed')
    expect(told('40 0 +0.1')).toBe('tolerance.reversed')
    expect(told('40 ±0')).toBe('tolerance.sign')
    expect(told('40 ±-1')).toBe('tolerance.sign')
    expect(told('40 ±x')).toBe('formula.name')
    expect(told('30 H7', 'angle')).toBe('tolerance.length')
    expect(told('6 ±1', 'number')).toBe('tolerance.kind')
    const wrong = evaluateFormula('35 q6', context())
    expect(wrong.ok || wrong.problem.at).toEqual({ from: 3, to: 5 })
    expect(parseFormula('35 k6').ok).toBe(true)
  })
})
