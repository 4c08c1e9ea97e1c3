import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { METRIC, evaluateFormula, evaluateTable, type Measure, type Result } from '../src'

const table = evaluateTable(
  [
    { name: 'bore', formula: '10', measure: 'length' },
    { name: 'wall', formula: 'bore / 4', measure: 'length' },
    { name: 'teeth', formula: '5', measure: 'number' },
  ],
  METRIC,
)

const evaluate = (text: string, want: Measure = 'length'): Result<number> =>
  evaluateFormula(text, { want, units: METRIC, lookup: table.lookup })

const value = (text: string, want: Measure = 'length'): number => {
  const result = evaluate(text, want)
  if (!result.ok) throw new Error(result.problem.message)
  return result.value
}

const problem = (text: string, want: Measure = 'length'): { code: string; at: string } => {
  const result = evaluate(text, want)
  if (result.ok) throw new Error(`${text} gave ${result.value}`)
  const { at, code } = result.problem
  expect(result.problem.mend).not.toBe('')
  return { code, at: at ? text.slice(at.from, at.to) : '' }
}

describe('formulas', () => {
  it.each([
    ['12', 12],
    ['3.5 in', 88.9],
    ['3.5in + 2', 90.9],
    ['1/2 in', 12.7],
    ['bore/2 + 3mm', 8],
    ['bore/2 + 3', 8],
    ['2*wall', 5],
    ['sqrt(bore^2 + 4^2)', Math.sqrt(116)],
    ['-(2 - 5) × 2', 6],
    ['1e1 + .5', 10.5],
    ['2^3^0', 2],
    ['max(3, wall, 1 cm)', 10],
    ['bore * sin(30°)', 5],
    ['bore * cos(60)', 5],
    ['round(bore / 3)', 3],
    ['teeth * 2 mm', 10],
    ['2 ft', 609.6],
    ['12/2 mm', 6],
    ['bore/2 - 1/4 in', 5 - 6.35],
    ['6/1 1/2', 4],
    ['1 1/2', 1.5],
    ['2*1 1/2 in', 76.2],
    ['3-5/16 in', 84.1375],
    ['3 - 5/16', 2.6875],
    ['20-3-5/16 in', 20 - 84.1375],
    ['1\' 2 1/2"', 368.3],
    ['5\'-3"', 1600.2],
    ['6\' - 3"', 1752.6],
    ['3/8"', 9.525],
    ['3,5', 3.5],
    ['0,125 in', 3.175],
    ['(3,5 + 1) * 2', 9],
    ['max(3,5)', 5],
    ['max(3, (1,5 + 2))', 3.5],
    ['(2 + 3) mm', 5],
    ['sqrt(4 cm^2)', 20],
    ['-2^2', -4],
    ['2^-1', 0.5],
  ])('reads %s as %f mm', (text, mm) => {
    expect(value(text)).toBeCloseTo(mm, 12)
  })

  it('takes bare numbers for angles in degrees and keeps radians that are named', () => {
    expect(value('180', 'angle')).toBeCloseTo(Math.PI, 14)
    expect(value('atan(1) + 15', 'angle')).toBeCloseTo(Math.PI / 3, 14)
    expect(value('1 rad', 'angle')).toBe(1)
  })

  it.each([
    ['2*(', 'formula.syntax', ''],
    ['12mm)', 'formula.syntax', ')'],
    ['bore + lenght', 'formula.name', 'lenght'],
    ['1 + 30deg', 'formula.dimension', ''],
    ['bore + 2 kg', 'formula.dimension', ''],
    ['1,234', 'formula.comma', '1,234'],
    ['3,5.2', 'formula.comma', ','],
    ['12/2b', 'formula.product', '2b'],
    ['bore/2wall', 'formula.product', '2wall'],
    ['2(3)', 'formula.product', '2('],
    ['(2)(3)', 'formula.product', '('],
    ['bore wall', 'formula.product', 'bore wall'],
    ['1/2pi', 'formula.product', '2pi'],
    ['1 3/2', 'formula.product', '1 3'],
    ['0x10', 'formula.number', '0x10'],
    ['0b11 mm', 'formula.number', '0b11'],
    ['2 3', 'formula.product', '2 3'],
    ['bore"', 'formula.character', '"'],
    ['12 = 3', 'formula.character', '='],
    ['"a"', 'formula.character', '"'],
    ['1/0', 'formula.overflow', '1/0'],
    ['1e999', 'formula.overflow', '1e999'],
    ['10^400', 'formula.overflow', ''],
    ['sqrt(0 - 1)', 'formula.domain', ''],
    ['sqrt(1, 2)', 'formula.arguments', 'sqrt'],
    ['constructor(1)', 'formula.function', 'constructor'],
    ['__proto__', 'formula.name', '__proto__'],
    ['   ', 'formula.empty', ''],
    ['1'.repeat(500), 'formula.long', ''],
    ['2 ^ bore', 'formula.dimension', ''],
  ])('refuses %s with a place and a mend', (text, code, at) => {
    const found = problem(text)
    expect(found.code).toBe(code)
    if (at !== '') expect(found.at).toContain(at)
  })

  it('says which kinds of unit do not fit', () => {
    const result = evaluate('30°')
    expect(result.ok ? '' : result.problem.message).toBe(
      'This field takes a length; the formula gives an angle.',
    )
  })

  it('follows chains and circles of any length', () => {
    const chain = Array.from({ length: 20_000 }, (_, i) => ({
      name: `v${i}`,
      formula: i === 19_999 ? '1 mm' : `v${i + 1} + 1`,
      measure: 'length' as const,
    }))
    expect(evaluateTable(chain, METRIC).get('v0')).toEqual({ ok: true, value: 20_000 })
    const circle = chain.map((d, i) => (i === 19_999 ? { ...d, formula: 'v0' } : d))
    const told = evaluateTable(circle, METRIC).get('v7')
    expect(told?.ok === false && told.problem.code).toBe('formula.cycle')
  })

  it('spells out circles, and tells every member of one alike', () => {
    const circle = evaluateTable(
      [
        { name: 'a', formula: 'b + 1', measure: 'length' },
        { name: 'b', formula: 'c', measure: 'length' },
        { name: 'c', formula: 'a', measure: 'length' },
        { name: 'free', formula: '4', measure: 'length' },
      ],
      METRIC,
    )
    for (const name of ['a', 'b', 'c']) {
      const result = circle.get(name)
      expect(result?.ok).toBe(false)
      if (result && !result.ok) expect(result.problem.code).toBe('formula.cycle')
    }
    expect(circle.get('free')).toEqual({ ok: true, value: 4 })
  })

  it('never throws and never gives a number that is none, whatever is typed', () => {
    const pieces = fc.constantFrom(
      ...'0123456789.+-*/^()[]{},;=° in mm bore sqrt ! % \' " x'.split(/(?=.)/),
      'sin(',
    )
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 20 }), (typed) => {
        const result = evaluate(typed.join(''))
        return result.ok ? Number.isFinite(result.value) : result.problem.mend !== ''
      }),
      { numRuns: 2000 },
    )
  })
})
