import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  FIGURE_KINDS,
  METRIC,
  SHOWN_UNITS,
  addChecks,
  createPart,
  figureWord,
  measureOfFigure,
  perform,
  readSheet,
  tellFigures,
  tellValue,
  unitCalled,
  unitsFor,
  usualUnit,
  evaluate,
  writeSheet,
  type Figure,
  type Measure,
  type NewCheck,
  type Part,
} from '../src'

const unit = (name: string) => {
  const found = unitCalled(name)
  if (!found) throw new Error(`there is no ${name}`)
  return found
}

describe('figures with their units', () => {
  test('have no more digits than mean something', () => {
    expect(tellValue(40, unit('mm'))).toBe('40 mm')
    expect(tellValue(40.00049, unit('mm'))).toBe('40 mm')
    expect(tellValue(-0.0001, unit('mm'))).toBe('0 mm')
    expect(tellValue(-1.5, unit('mm'))).toBe('−1.5 mm')
    expect(tellValue(25.4, unit('in'))).toBe('1 in')
    expect(tellValue(Math.PI / 3, unit('deg'))).toBe('60°')
    expect(tellValue(0.012, unit('um'))).toBe('12 µm')
    expect(tellValue(1_284_321, unit('kg'))).toBe('1284.3 kg')
    expect(tellValue(1.2345678e9, unit('kg·m²'))).toBe('1.2346 kg·m²')
    expect(tellFigures(Number.NaN, unit('cm³'))).toBe('–')
  })

  test('are told in a unit of their own kind, whatever the part is in', () => {
    const measures: Measure[] = ['length', 'angle', 'mass', 'area', 'volume', 'inertia', 'density']
    for (const length of ['mm', 'cm', 'm', 'in'] as const) {
      for (const mass of ['g', 'kg', 'lb'] as const) {
        for (const measure of measures) {
          expect(usualUnit(measure, { ...METRIC, length, mass }).measure).toBe(measure)
        }
      }
    }
  })

  test('each come back by the name they are written with', () => {
    for (const shown of SHOWN_UNITS) {
      expect(unitCalled(shown.name)).toBe(shown)
      const typed = shown.name.replace('²', '^2').replace('³', '^3').replace('·', '*')
      expect(unitCalled(typed)).toBe(shown)
    }
    expect(unitsFor('angle').map((u) => u.name)).toEqual(['deg', 'rad'])
  })

  test('of a standing part travel up and down', () => {
    expect(figureWord('travelLeft', 'standing')).toBe('travel downwards')
    expect(figureWord('travelLeft')).toBe('travel to the left')
    const words = FIGURE_KINDS.map((k) => figureWord(k))
    expect(new Set(words).size).toBe(words.length)
  })
})

/** A part of two bodies without anything drawn. */
const base = createPart({ name: 'Float' })
const two: Part = {
  ...base,
  bodies: [
    { ...(base.bodies[0] ?? { id: 'body1' }), id: 'body1', name: 'shell' },
    { ...(base.bodies[0] ?? { id: 'body1' }), id: 'body2', name: 'rod, long' },
  ] as Part['bodies'],
}

const anyFigure: fc.Arbitrary<Figure> = fc
  .record({
    kind: fc.constantFrom(...FIGURE_KINDS),
    body: fc.constantFrom('body1', 'body2'),
    height: fc.constantFrom('', '20 mm', '1/3'),
    keys: fc.array(fc.constantFrom('step3/l4', 'step3/l4|step9/round(step3/l4+step3/l5)', 'axis'), {
      minLength: 1,
      maxLength: 3,
    }),
  })
  .map(({ kind, body, height, keys }): Figure => {
    switch (kind) {
      case 'capacity':
        return { kind, body, height }
      case 'gap':
      case 'radialPlay':
      case 'axialPlay':
      case 'travelLeft':
      case 'travelRight':
        return { kind, body, other: body === 'body1' ? 'body2' : 'body1' }
      case 'distance':
      case 'axial':
      case 'radial':
      case 'axes':
      case 'angle':
      case 'pickDiameter':
      case 'pickRadius':
      case 'pickLength':
      case 'pickArea':
        return { kind, picks: keys.map((key) => ({ body: key === 'axis' ? '' : body, key })) }
      default:
        return { kind, body }
    }
  })

const text = fc.constantFrom('', '12', '0.5 mm', 'wall*2', 'a "quoted", b', '=1+1', '−3')

const anyRow: fc.Arbitrary<NewCheck> = fc
  .record({
    figure: anyFigure,
    name: fc.constantFrom('', 'seat', 'width; of the seat', 'line\nbreak'),
    limit: fc.constantFrom('about', 'least', 'most'),
    target: text,
    above: text,
    below: text,
    pick: fc.nat(20),
  })
  .map(({ pick, ...row }) => {
    const units = unitsFor(measureOfFigure(row.figure.kind))
    return { ...row, unit: units[pick % units.length]?.name ?? '' } as NewCheck
  })

describe('any sheet', () => {
  test('goes out as CSV and comes in as the same rows', () => {
    fc.assert(
      fc.property(fc.array(anyRow, { minLength: 1, maxLength: 8 }), (rows) => {
        const made = perform(two, addChecks(rows))
        if (!made.ok) throw new Error(made.problem.message)
        const read = readSheet(writeSheet(evaluate(made.value)), two)
        if (!read.ok) throw new Error(read.problem.message)
        // A cell that a spreadsheet would run comes back with the quote that keeps it from that.
        const plain = (value: unknown): unknown =>
          JSON.parse(JSON.stringify(value).replaceAll('"\'=', '"='))
        expect(plain(read.value)).toEqual(rows)
      }),
      { numRuns: 200 },
    )
  })

  test('is never read without a sentence, whatever is in the file', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), fc.boolean(), (junk, headed) => {
        const read = readSheet(headed ? `figure,of,unit\n${junk}` : junk, two)
        if (!read.ok) {
          expect(read.problem.message.length).toBeGreaterThan(10)
          expect(read.problem.mend.length).toBeGreaterThan(10)
        }
      }),
      { numRuns: 300 },
    )
  })
})
