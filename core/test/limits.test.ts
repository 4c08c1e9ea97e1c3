import { describe, expect, test } from 'vitest'
import { addRevolve, addSize, drawChain, fittingSizes, setGeneral } from '@lathica/core/edit'
import { toleranceText, splitTolerance } from '@lathica/core/formula'
import { addNote, faceEdges, noteStates, noteWhere, offeredNote } from '@lathica/core/notes'
import { createPart, type NewNote, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { edgeKey, edgesOf } from '@lathica/core/section'
import { METRIC } from '@lathica/core/units'
import { fitWith, tolerancedIn, variationOf } from '@lathica/core/vary'
import { demoPart } from './support/demo'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const BODY = 'body1'
const at = (x: number, y: number, more: object = {}) => ({ at: { x, y }, ...more })

/** A pin of ⌀20 and 30 long, with a cone of 10 behind it; its land sized as is typed. */
function pin(diameter: string, values: Part['values'] = []): Part {
  const drawn = must(
    { ...createPart({ name: 'Stop pin' }), values },
    drawChain(
      SKETCH,
      [at(0, 0, { on: ['axis'] }), at(0, 10), at(30, 10), at(40, 5), at(40, 0, { on: ['axis'] })],
      [['radial'], ['axial'], [], ['radial']],
    ),
    addRevolve(SKETCH),
  )
  const land = sketchOf(drawn).entities[1]?.id ?? ''
  const offer = fittingSizes(sketchOf(drawn), [land]).find((o) => o.kind === 'diameter')
  if (!offer) throw new Error('a land has a diameter')
  return must(drawn, addSize(SKETCH, offer, diameter))
}
const landOf = (part: Part): string => {
  const [body] = evaluate(part).bodies
  const found =
    body &&
    edgesOf(body.section).find(
      ({ piece: { from, to } }) => Math.abs(from.y - to.y) < 1e-9 && from.y > 1,
    )
  return found ? edgeKey(found.name) : ''
}

describe('the envelope behind a tolerance', () => {
  test.each([
    ['20 k6 Ⓔ', '20', 'k6 Ⓔ'],
    ['20 k6 E', '20', 'k6 Ⓔ'],
    ['20 ±0.1Ⓔ', '20', '±0.1 Ⓔ'],
    ['20 +0.1 0 (E)', '20', '+0.1/0 Ⓔ'],
  ])('%s', (text, value, told) => {
    expect(splitTolerance(text).value.trim()).toBe(value)
    expect(toleranceText(text, 20, 'length', METRIC, 'written')).toBe(told)
  })

  test('a name E is a name where no tolerance stands before it', () => {
    expect(splitTolerance('2*E').tolerance).toBeUndefined()
    expect(splitTolerance('2 + E').tolerance).toBeUndefined()
    expect(splitTolerance('20 E').tolerance).toBeUndefined()
  })
})

describe('a mating part that is only named', () => {
  const named = (part: Part, size: string, name = 'ball bearing'): NewNote =>
    ({ kind: 'mate', body: BODY, on: landOf(part), name, size }) as NewNote

  test.each([
    // H7 at 20: +21/0; k6: +15/+2; g6: −7/−20; p6: +35/+22, all in µm.
    ['20 g6', '20 H7', 'clearance', 0.007, 0.041],
    ['20 k6', '20 H7', 'transition', -0.015, 0.019],
    ['20 p6', '20 H7', 'interference', -0.035, -0.001],
    ['20 k6', '20 0 -0.01', 'interference', -0.025, -0.002],
  ])('%s in %s is a %s fit', (land, bore, kind, low, high) => {
    const part = pin(land)
    const fit = fitWith(part, { body: BODY, key: landOf(part) }, { size: bore })
    if (!fit.ok) throw new Error(fit.problem.message)
    expect(fit.value.kind).toBe(kind)
    expect(fit.value.play.low).toBeCloseTo(low, 9)
    expect(fit.value.play.high).toBeCloseTo(high, 9)
    const noted = must(part, addNote(named(part, bore)))
    expect(noteStates(evaluate(noted))[0]).toMatchObject({ words: `for ball bearing, ⌀${bore}` })
  })

  test('what cannot be is told', () => {
    const part = pin('20 k6')
    const code = (note: NewNote): string =>
      noteStates(evaluate(must(part, addNote(note))))[0]?.problem?.code ?? ''
    expect(code(named(part, '20'))).toBe('mate.tolerance')
    expect(code(named(part, '20 H99'))).toMatch(/^tolerance\./)
    expect(code(named(part, '20 H7', ' '))).toBe('mate.name')
    expect(code({ ...named(part, '20 H7'), on: 'gone' })).toBe('note.gone')
    expect(offeredNote(part, 'mate', BODY, landOf(part))).toMatchObject({ size: '20 H7' })
  })
})

describe('values that are off twice, and by general tolerances', () => {
  test('a value that follows one with a tolerance, and has its own, is told', () => {
    const values = [{ name: 'bar', measure: 'length' as const, formula: '20 ±0.1' }]
    const both = tolerancedIn(pin('bar ±0.05', values))
    expect(both.map((t) => [t.written, t.follows])).toEqual([
      ['±0.1', []],
      ['±0.05', ['bar']],
    ])
    expect(tolerancedIn(pin('bar', values)).map((t) => t.id)).toEqual(['value/bar'])
  })

  test('angles by the shorter leg, bevels by their own table (ISO 2768-1)', () => {
    const bare = pin('20')
    const { entities } = sketchOf(bare)
    const [land, cone] = [entities[1]?.id ?? '', entities[2]?.id ?? '']
    const offer = fittingSizes(sketchOf(bare), [land, cone]).find((o) => o.kind === 'angle')
    if (!offer) throw new Error('two lines have an angle')
    const angled = must(bare, addSize(SKETCH, offer, '27'), setGeneral('m'))
    const angle = tolerancedIn(angled).find((t) => t.measure === 'angle')
    // The cone is 11 mm long, the shorter of the two: 30′ for 10 to 50 mm.
    expect(angle?.upper).toBeCloseTo((0.5 * Math.PI) / 180, 12)
    expect(angle?.lower).toBeCloseTo((-0.5 * Math.PI) / 180, 12)
    const spindle = tolerancedIn(demoPart('spindle'))
    const bevel = spindle.find((t) => t.words.startsWith('along of chamfer'))
    expect(bevel && [bevel.upper, bevel.lower]).toEqual([0.2, -0.2])
  })
})

describe('a body that is held', () => {
  const free = (part: Part) => {
    const [ring, inner] = part.bodies
    return { kind: 'travelRight', body: inner?.id ?? '', other: ring?.id ?? '' } as const
  }
  const roller = (bore: string): Part =>
    demoPart('guide-roller', (text) => text.replaceAll('"formula": "16"', `"formula": "${bore}"`))

  test('has play at the limits while it is held there', () => {
    const part = roller('16 ±0.2')
    const found = variationOf(part, free(part))
    expect(found.ok && found.value.worst.low).toBeGreaterThan(0)
  })

  test('and is told to get free where the limits let it, though its play hangs on another size', () => {
    const part = roller('16 +9 0')
    const found = variationOf(part, free(part))
    expect(found.ok ? 'held' : found.problem).toMatchObject({
      code: 'vary.lost',
      message: 'At the limits: It leaves to the right freely.',
    })
  })
})

describe('notes on faces that no full turn made', () => {
  test('stand where their step tells its size, and go with it', () => {
    const part = demoPart('guide-segment')
    const state = evaluate(part)
    const step = state.steps.find((s) => s.sizes.length > 0)
    if (!step) throw new Error('something is drilled')
    const [size] = step.sizes
    const on = `${step.stepId}/floor`
    expect(faceEdges(state, size?.body ?? '', on)).toEqual([])
    const noted = must(part, addNote(offeredNote(part, 'surface', size?.body ?? '', on)))
    const [said] = noteStates(evaluate(noted)).slice(-1)
    expect(said?.problem).toBeUndefined()
    expect(said?.words).toBe('Ra 0.8')
    expect(said?.foot?.inSpace).toEqual(size?.at)
    expect(said && noteWhere(said, noted)).toMatch(/from step \d+$/)
    const without = { ...noted, route: noted.route.filter((s) => s.id !== step.stepId) }
    const [gone] = noteStates(evaluate(without)).slice(-1)
    expect(gone?.problem?.code).toBe('note.gone')
  })
})
