import { readFileSync, readdirSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import {
  addChecks,
  addRevolve,
  addSize,
  addStep,
  changeSize,
  drawChain,
  fittingSizes,
} from '@lathica/core/edit'
import { cornersOf, edgeKey, edgesOf } from '@lathica/core/section'
import {
  createPart,
  type Figure,
  type MeasurePick,
  type Part,
  type StepKind,
} from '@lathica/core/part'
import { STEP_KINDS, evaluate } from '@lathica/core/route'
import { checkStatesAt, figureValue, tellFailure } from '@lathica/core/inspect'
import { readPart, readSheet, toDocument, writeSheet } from '@lathica/core/formats'
import {
  FIT_ADVICE,
  fitOf,
  setFit,
  adviceFor,
  spansOf,
  tolerancedIn,
  trialsOf,
  variationOf,
  withValuesOff,
} from '@lathica/core/vary'
import { formulasIn, type Fields } from '../src/part/fields'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const at = (x: number, y: number, more: object = {}) => ({ at: { x, y }, ...more })
const never = (): never => {
  throw new Error('there is nothing')
}

/** A plain spindle of three lands of ⌀20, ⌀30 and ⌀24, ends at 20, 50 and 74, with its lengths and diameters sized. */
function spindle(sizes: readonly (readonly [number, string])[], values: Part['values'] = []): Part {
  const drawn = must(
    { ...createPart({ name: 'Spindle' }), values },
    drawChain(
      SKETCH,
      [
        at(0, 0, { on: ['axis'] }),
        ...[at(0, 10), at(20, 10), at(20, 15), at(50, 15), at(50, 12), at(74, 12)],
        at(74, 0, { on: ['axis'] }),
      ],
      Array.from({ length: 7 }, (_, i) => (i % 2 === 0 ? ['radial'] : ['axial'])),
    ),
    addRevolve(SKETCH),
  )
  // Lines 1, 3 and 5 are the lands.
  return sizes.reduce((part, [line, formula]) => {
    const sketch = sketchOf(part)
    const land = sketch.entities[line]
    const offer = fittingSizes(sketch, [land?.id ?? '']).find((o) => o.kind === 'length') ?? never()
    return must(part, addSize(SKETCH, offer, formula))
  }, drawn)
}

/** The face square to the axis at a place, as a pick. */
function faceAt(part: Part, x: number): MeasurePick {
  const [body] = evaluate(part).bodies
  const edge =
    body &&
    edgesOf(body.section).find((e) =>
      [e.piece.from.x, e.piece.to.x].every((v) => Math.abs(v - x) < 1e-9),
    )
  return { body: body?.bodyId ?? '', key: edge ? edgeKey(edge.name) : '' }
}
const between = (
  part: Part,
  a: number,
  b: number,
  kind: 'axial' | 'distance' = 'axial',
): Figure => ({
  kind,
  picks: [faceAt(part, a), faceAt(part, b)],
})
function varied(part: Part, figure: Figure) {
  const found = variationOf(part, figure)
  if (!found.ok) throw new Error(found.problem.message)
  return found.value
}

describe('what a distance varies by', () => {
  const part = spindle([
    [1, '20 ±0.1'],
    [3, '30 +0.05 -0.02'],
    [5, '24 h9'],
  ])

  test('values with tolerances are told with their limits', () => {
    const told = tolerancedIn(part).map((t) => [t.nominal, t.upper, t.lower, t.written, t.own])
    expect(told).toEqual([
      [20, 0.1, -0.1, '±0.1', true],
      [30, 0.05, -0.02, '+0.05 -0.02', true],
      [24, 0, -0.052, 'h9', true],
    ])
    expect(tolerancedIn(part)[0]?.words).toMatch(/^length of line 2 \(/)
  })

  test('a chain of lengths adds up: worst case, root of squares, and shares', () => {
    const all = varied(part, between(part, 0, 74))
    expect(all.exact).toBe(true)
    expect(all.contributions.map((c) => c.rate)).toEqual([1, 1, 1].map((v) => expect.closeTo(v, 9)))
    expect(all.contributions.map((c) => c.of.nominal)).toEqual([20, 30, 24])
    expect([all.nominal, all.worst.low, all.worst.high]).toEqual(
      [74, 74 - 0.1 - 0.02 - 0.052, 74 + 0.1 + 0.05].map((v) => expect.closeTo(v, 9)),
    )
    const middle = 74 + 0.015 - 0.026
    const half = Math.hypot(0.1, 0.035, 0.026)
    expect([all.root.low, all.root.high]).toEqual(
      [middle - half, middle + half].map((v) => expect.closeTo(v, 9)),
    )
    expect(all.contributions.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 12)
    // What lies between two faces is all that a distance between them hangs on.
    const inner = varied(part, between(part, 20, 50))
    expect(inner.contributions.map((c) => c.of.written)).toEqual(['+0.05 -0.02'])
  })

  test('worked out by the whole part it is the same as by the profile', () => {
    const [one, other] = [
      varied(part, between(part, 20, 74)),
      varied(part, between(part, 20, 74, 'distance')),
    ]
    expect([one.exact, other.exact]).toEqual([true, false])
    expect(other.worst.low).toBeCloseTo(one.worst.low, 8)
    expect(other.worst.high).toBeCloseTo(one.worst.high, 8)
    expect(other.contributions.map((c) => c.rate)).toEqual(
      one.contributions.map((c) => expect.closeTo(c.rate, 7)),
    )
  })

  test('many parts lie within the worst case and scatter as told', () => {
    const figure = between(part, 0, 74)
    const { worst, root } = varied(part, figure)
    for (const scatter of ['normal', 'even'] as const) {
      const trials = trialsOf(part, figure, { count: 4000, scatter })
      if (!trials.ok) throw new Error(trials.problem.message)
      const { values, lost } = trials.value
      expect([values.length, lost]).toEqual([4000, 0])
      const mean = values.reduce((a, b) => a + b, 0) / values.length
      const deviation = Math.sqrt(values.reduce((a, v) => a + (v - mean) ** 2, 0) / values.length)
      expect(Math.min(...values)).toBeGreaterThanOrEqual(worst.low - 1e-9)
      expect(Math.max(...values)).toBeLessThanOrEqual(worst.high + 1e-9)
      expect(Math.abs(mean - (root.low + root.high) / 2)).toBeLessThan(0.003)
      // Even scatter over a width w has a deviation of w/√12; the other one of w/6, a little less as its ends are cut off.
      const expected =
        ((root.high - root.low) / 2) * (scatter === 'even' ? 1 / Math.sqrt(3) : 0.985 / 3)
      expect(Math.abs(deviation / expected - 1)).toBeLessThan(0.05)
    }
    const again = [1, 1, 2].map((seed) => {
      const found = trialsOf(part, figure, { count: 5, scatter: 'normal', seed })
      return found.ok ? [...found.value.values] : []
    })
    expect(again[0]).toEqual(again[1])
    expect(again[0]).not.toEqual(again[2])
  })

  test('a value read by several sizes counts for each, and steps count too', () => {
    const named = spindle(
      [
        [1, 'l'],
        [3, '2 * l - 10'],
        [5, '24'],
      ],
      [{ name: 'l', measure: 'length', formula: '20 ±0.1' }],
    )
    const all = varied(named, between(named, 0, 74))
    expect(all.contributions).toHaveLength(1)
    expect(all.contributions[0]?.rate).toBeCloseTo(3, 9)
    expect(all.worst.high - all.nominal).toBeCloseTo(0.3, 9)

    const [body] = named.bodies
    const shortened = must(
      named,
      addStep({ kind: 'length', body: body?.id ?? '', end: 'right', length: '70 ±0.2' }),
    )
    const cut = varied(shortened, between(shortened, 20, 70))
    expect(cut.exact).toBe(false)
    const rates = new Map(cut.contributions.map((c) => [c.of.words, c.rate]))
    expect(rates.get('l')).toBeCloseTo(-1, 6)
    expect(rates.get('length of overall length 20')).toBeCloseTo(1, 6)
    expect(cut.worst.high - cut.nominal).toBeCloseTo(0.3, 9)
  })

  test('general tolerances hold where nothing is written, and not twice over', () => {
    const general: Part = {
      ...spindle(
        [
          [1, '20'],
          [3, '30 ±0.05'],
          [5, 'l'],
        ],
        [{ name: 'l', measure: 'length', formula: '24 h9' }],
      ),
      general: 'm',
    }
    const told = tolerancedIn(general).map((t) => [t.nominal, t.upper, t.lower, t.written, t.own])
    expect(told).toEqual([
      [24, 0, -0.052, 'h9', true],
      [20, 0.2, -0.2, 'ISO 2768-m', false],
      [30, 0.05, -0.05, '±0.05', true],
    ])
    expect(readPart(toDocument(general))).toMatchObject({
      ok: true,
      value: { general: 'm' },
    })
  })

  test('the one tolerance to tighten is named, and is enough', () => {
    const figure = between(part, 0, 74)
    const variation = varied(part, figure)
    expect(adviceFor(variation, { low: 73.8, high: 74.2 })).toEqual({ kind: 'held' })
    const advice = adviceFor(variation, { low: 73.9, high: 74.1 })
    if (advice.kind !== 'tighten') throw new Error(advice.kind)
    expect(advice.of.nominal).toBe(20)
    // It is 0.2 wide and 0.072 too much to one side: each side comes in by half of what it loses.
    expect(advice.width).toBeCloseTo(0.2 - 2 * 0.072, 9)
    const tightened = must(
      part,
      changeSize(SKETCH, advice.of.id.split('/')[2] ?? '', `20 ±${advice.width / 2}`),
    )
    const after = varied(tightened, figure)
    expect(after.worst.low).toBeCloseTo(73.9, 9)
    expect(adviceFor(after, { low: 73.9, high: 74.1 })).toEqual({ kind: 'held' })
    expect(adviceFor(variation, { low: 73.98, high: 74 })).toMatchObject({ kind: 'several' })
    expect(adviceFor(variation, { low: 75, high: 75.001 })).toEqual({ kind: 'moved' })
  })

  test('what cannot be told is said', () => {
    const bare = spindle([[1, '20']])
    const none = variationOf(bare, between(bare, 0, 20))
    expect(none.ok || none.problem.code).toBe('vary.none')
    const gone = variationOf(part, {
      kind: 'axial',
      picks: [faceAt(part, 0), { body: 'x', key: 'y' }],
    })
    expect(gone.ok || gone.problem.code).toBe('figure.gone')
  })
})

describe('a row of the sheet at every limit', () => {
  const part = spindle([
    [1, '20 ±0.1'],
    [3, '30 +0.05 -0.02'],
    [5, '24'],
  ])
  const rowOf = (limit: 'about' | 'least' | 'most', target: string, by = '') => {
    const figure = between(part, 0, 50)
    const checked = must(
      part,
      addChecks([{ figure, unit: 'mm', limit, target, above: by, below: by, everyLimit: true }]),
    )
    const state = evaluate(checked)
    const [open] = checkStatesAt(state, new Map())
    const [row] = checkStatesAt(state, spansOf(checked))
    expect(open).toMatchObject({ verdict: 'open', problem: { code: 'check.limits' } })
    const again = readPart(toDocument(checked))
    expect(again.ok && again.value.checks[0]?.everyLimit).toBe(true)
    const sheet = readSheet(writeSheet(state), checked)
    expect(sheet.ok && sheet.value[0]?.everyLimit).toBe(true)
    return row ?? never()
  }

  test('passes when the worst case does, and says how far it is off', () => {
    expect(rowOf('about', '50', '0.2')).toMatchObject({
      verdict: 'passes',
      span: { low: expect.closeTo(49.88, 9) as number, high: expect.closeTo(50.15, 9) as number },
    })
    const over = rowOf('about', '50', '0.13')
    expect([over.verdict, over.difference]).toEqual(['fails', expect.closeTo(0.15, 9)])
    expect(tellFailure(over)).toBe(
      'It lies 0.15 mm over the target at its limits; 0.13 mm is allowed.',
    )
    const under = rowOf('least', '49.9')
    expect([under.verdict, under.difference]).toEqual(['fails', expect.closeTo(-0.02, 9)])
    expect(rowOf('least', '49.85').verdict).toBe('passes')
    expect(rowOf('most', '50.1').verdict).toBe('fails')
  })

  test('is open where nothing has a tolerance', () => {
    const bare = spindle([[1, '20']])
    const checked = must(
      bare,
      addChecks([{ figure: between(bare, 0, 20), unit: 'mm', target: '20', everyLimit: true }]),
    )
    const [row] = checkStatesAt(evaluate(checked), spansOf(checked))
    expect(row).toMatchObject({ verdict: 'open', problem: { code: 'vary.none' } })
  })
})

describe('a part with values off', () => {
  test('is the part with other values, and nothing else changes', () => {
    const part = spindle([
      [1, '20 ±0.1'],
      [3, '30 H7'],
    ])
    const [first, second] = tolerancedIn(part)
    const off = withValuesOff(
      part,
      new Map([
        [first?.id ?? '', -0.1],
        [second?.id ?? '', 0.021],
      ]),
    )
    const lengths = sketchOf(off).sizes.map((s) => s.formula)
    expect(lengths).toEqual(['(20) - 0.1 mm', '(30) + 0.021 mm'])
    const figure = between(part, 0, 50)
    const bodies = evaluate(off).bodies
    const value = figureValue(figure, off, bodies)
    expect(value.ok && value.value.value).toBeCloseTo(49.921, 9)
    expect(withValuesOff(part, new Map([[first?.id ?? '', 0]]))).toBe(part)
  })

  test('a sum written as two deviations in an older file goes on being a sum', () => {
    const part = spindle([[1, '20']])
    const older = {
      ...toDocument(part),
      version: 13,
    } as unknown as { version: number; sketches: { sizes: { formula: string }[] }[] }
    const [size] = older.sketches[0]?.sizes ?? []
    if (size) size.formula = '20 +3 -3'
    const again = readPart(older)
    if (!again.ok) throw new Error(again.problem.message)
    expect(sketchOf(again.value).sizes[0]?.formula).toBe('20 + 3 - 3')
    expect(tolerancedIn(again.value)).toEqual([])
    expect(cornersOf(evaluate(again.value).bodies[0]?.section ?? never())).toHaveLength(6)
  })
})

describe('every formula of a step', () => {
  test('is of what its field says: with that unit behind it, the demo parts stay what they are', () => {
    let seen = 0
    for (const file of readdirSync('demo')) {
      const read = readPart(JSON.parse(readFileSync(`demo/${file}`, 'utf8')))
      if (!read.ok) throw new Error(read.problem.message)
      const part = read.value
      const withUnits: Part = {
        ...part,
        route: part.route.map((step) => {
          if (!(step.kind in STEP_KINDS)) return step
          const { fields } = STEP_KINDS[step.kind as StepKind]
          const copy = structuredClone(step) as object
          for (const { path, formula, measure } of formulasIn(fields as Fields, step)) {
            if (!/^[\d.]+$/.test(formula) || measure === 'number') continue
            let at = copy as Record<string, unknown>
            for (const p of path.slice(0, -1)) at = at[p] as Record<string, unknown>
            const unit = measure === 'angle' ? part.units.angle : part.units.length
            at[path.at(-1) ?? ''] = `${formula} ${unit}`
            seen++
          }
          return copy as typeof step
        }),
      }
      const [before, after] = [evaluate(part), evaluate(withUnits)]
      expect([file, after.steps.map((s) => s.status)]).toEqual([
        file,
        before.steps.map((s) => s.status),
      ])
      expect(after.bodies.map((b) => b.section)).toEqual(before.bodies.map((b) => b.section))
    }
    expect(seen).toBeGreaterThan(80)
  })
})

describe('a land in a bore', () => {
  /** A sleeve bored ⌀20 about a pin of ⌀20, as two bodies. */
  function sleeved(): Part {
    const text = readFileSync('demo/guide-roller.lathica.json', 'utf8')
    const read = readPart(JSON.parse(text))
    if (!read.ok) throw new Error(read.problem.message)
    return read.value
  }
  const faceOf = (part: Part, radius: number, bore: boolean): MeasurePick => {
    for (const { bodyId, section } of evaluate(part).bodies) {
      const edge = edgesOf(section).find(
        ({ piece: { from, to } }) =>
          Math.abs(from.y - radius) < 1e-9 &&
          Math.abs(to.y - radius) < 1e-9 &&
          to.x > from.x === bore,
      )
      if (edge) return { body: bodyId, key: edgeKey(edge.name) }
    }
    return never()
  }

  test('its play at the limits and its kind follow from both; a fit is set and undone as one', () => {
    const part = sleeved()
    const [land, bore] = [faceOf(part, 12, false), faceOf(part, 12.2, true)]
    const untold = fitOf(part, land, bore)
    // Without any tolerance it is what the nominal diameters leave.
    expect(untold.ok && untold.value.play.low).toBeCloseTo(0.4, 9)
    expect(untold.ok && untold.value.play.high).toBeCloseTo(0.4, 9)
    const chosen = must(part, setFit(land, bore, { hole: 'H9', shaft: 'd9' }))
    const fit = fitOf(chosen, bore, land)
    if (!fit.ok) throw new Error(fit.problem.message)
    // ⌀24 d9: −65 −117 µm; ⌀24.4 H9: +52 0 µm.
    expect([fit.value.play.low, fit.value.play.high]).toEqual([
      expect.closeTo(0.4 + 0.065, 9),
      expect.closeTo(0.4 + 0.117 + 0.052, 9),
    ])
    expect(fit.value.kind).toBe('clearance')
    const tight = must(chosen, setFit(land, bore, { hole: 'H7', shaft: 's6' }))
    const pressed = fitOf(tight, land, bore)
    expect(pressed.ok && pressed.value.play.low).toBeCloseTo(0.4 - 0.048, 9)
    // The play of one body in the other, worked out as a figure of the sheet, is the same on the radius.
    const figure: Figure = { kind: 'radialPlay', body: land.body, other: bore.body }
    const whole = varied(chosen, figure)
    expect(whole.worst.low).toBeCloseTo(fit.value.play.low / 2, 6)
    expect(whole.worst.high).toBeCloseTo(fit.value.play.high / 2, 6)
    const same = fitOf(part, land, land)
    expect(same.ok || same.problem.code).toBe('fit.sides')
    for (const { hole, shaft } of FIT_ADVICE)
      expect(must(part, setFit(land, bore, { hole, shaft })).sketches).not.toBe(part.sketches)
  })
})
