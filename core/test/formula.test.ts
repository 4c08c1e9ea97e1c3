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
    ['3,5', 'formula.comma', ','],
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
