import { describe, expect, it } from 'vitest'
import {
  AXIS_ID,
  ORIGIN_ID,
  addReference,
  addRevolve,
  addSize,
  addSketch,
  changeSize,
  constrain,
  createHistory,
  createPart,
  drawChain,
  drawPiece,
  lineOf,
  edit,
  evaluate,
  fittingConstraints,
  fittingSizes,
  overallOf,
  perform,
  redo,
  removeItems,
  removeStep,
  removeValue,
  renamePart,
  reportOf,
  setAside,
  setMaterial,
  setReference,
  setRole,
  setValue,
  STOCK_MATERIALS,
  undo,
  type Command,
  type End,
  type Part,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'

const problemOf = (part: Part, command: Command): string => {
  const result = perform(part, command)
  if (result.ok) throw new Error('went through')
  expect(result.problem.mend).not.toBe('')
  return result.problem.message
}

const line = (part: Part, i: number): string => sketchOf(part).entities[i]?.id ?? ''

/** A rough two-step spindle: off-size, but axial and radial where it should be. */
function roughSpindle(): Part {
  const at = (x: number, y: number, extra: Partial<End> = {}): End => ({ at: { x, y }, ...extra })
  const ends = [
    at(0, 0, { point: ORIGIN_ID }),
    at(0, 9),
    at(31, 9),
    at(31, 14),
    at(52, 14),
    at(52, 0, { on: [AXIS_ID] }),
  ]
  const kinds = ['radial', 'axial', 'radial', 'axial', 'radial'] as const
  return must(
    createPart({ name: 'Spindle' }),
    drawChain(
      SKETCH,
      ends,
      kinds.map((k) => [k]),
    ),
  )
}

function sizedSpindle(): Part {
  const part = roughSpindle()
  const [small, big] = [line(part, 1), line(part, 3)]
  const point = (id: string): string => lineOf(sketchOf(part), id)?.from ?? ''
  return must(
    part,
    addSize(SKETCH, { kind: 'length', line: small }, '24'),
    addSize(SKETCH, { kind: 'length', line: big }, '20'),
    addSize(SKETCH, { kind: 'diameter', point: point(small) }, '20'),
    addSize(SKETCH, { kind: 'diameter', point: point(big) }, '30'),
    addRevolve(SKETCH),
  )
}

const freedoms = (part: Part): number =>
  evaluate(part).sketches.get(SKETCH)?.solution.freedoms ?? -1

describe('drawing and sizing', () => {
  it('draws a chain that closes on the axis, and counts down its freedoms as it is sized', () => {
    const rough = roughSpindle()
    expect(sketchOf(rough).entities).toHaveLength(5)
    expect(sketchOf(rough).points).toHaveLength(6)
    expect(freedoms(rough)).toBe(4)
    const sized = sizedSpindle()
    expect(freedoms(sized)).toBe(0)
    const expected = Math.PI * (100 * 24 + 225 * 20) * 7.85e-3
    expect(overallOf(evaluate(sized))?.mass).toBeCloseTo(expected, 9)
    expect(overallOf(evaluate(sized))).toMatchObject({ diameter: 30, length: 44 })
  })

  it('scales the whole in proportion by the first size', () => {
    const rough = roughSpindle()
    const scaled = must(rough, addSize(SKETCH, { kind: 'length', line: line(rough, 1) }, '62'))
    expect(sketchOf(scaled).points.map((p) => [p.x, p.y])).toEqual(
      sketchOf(rough).points.map((p) => [2 * p.x, 2 * p.y]),
    )
  })

  it('refuses lines that would have no length, or lie far out', () => {
    const part = roughSpindle()
    const [p] = sketchOf(part).points
    const from = { at: { x: 0, y: 0 }, point: p?.id ?? '' }
    const draw = (to: End): Command =>
      drawPiece({ sketch: SKETCH, from, to, role: 'outline', directions: [] })
    expect(problemOf(part, draw(from))).toContain('no length')
    expect(problemOf(part, draw({ at: { x: NaN, y: 0 } }))).toContain('too far')
    expect(
      problemOf(part, draw({ at: { x: 0, y: 9 }, point: sketchOf(part).points[1]?.id ?? '' })),
    ).toContain('already')
  })

  it('leaves out a suggested constraint that would only repeat what holds', () => {
    const part = roughSpindle()
    const [a, b] = [sketchOf(part).points[0], sketchOf(part).points[5]]
    const base = drawPiece({
      sketch: SKETCH,
      from: { at: { x: 0, y: 0 }, point: a?.id ?? '' },
      to: { at: { x: 52, y: 0 }, point: b?.id ?? '' },
      role: 'construction',
      directions: ['axial'],
    })
    const drawn = must(part, base)
    expect(sketchOf(drawn).constraints).toHaveLength(sketchOf(part).constraints.length)
    expect(evaluate(drawn).sketches.get(SKETCH)?.solution.disagreements).toEqual([])
  })

  it('offers the sizes and constraints that fit the picks, and no others', () => {
    const part = roughSpindle()
    const sketch = sketchOf(part)
    const kinds = (...picks: string[]): string[] => fittingSizes(sketch, picks).map((o) => o.kind)
    const [p0, p1] = sketch.points.map((p) => p.id)
    expect(kinds(line(part, 1))).toEqual(['length', 'diameter', 'radialDistance'])
    expect(kinds(line(part, 0))).toEqual(['length'])
    expect(kinds(line(part, 1), AXIS_ID)).toEqual(['diameter', 'radialDistance'])
    expect(kinds(line(part, 0), line(part, 2))).toEqual(['gap'])
    expect(kinds(line(part, 0), line(part, 1))).toEqual(['angle'])
    expect(kinds(p0 ?? '', p1 ?? '')).toEqual(['radialDistance'])
    expect(kinds(p0 ?? '', p1 ?? '', line(part, 0))).toEqual([])
    expect(fittingConstraints(sketch, [p1 ?? ''])).toEqual(['fixed'])
    expect(fittingConstraints(sketch, [p1 ?? '', AXIS_ID])).toEqual(['pointOn'])
    expect(fittingConstraints(sketch, [line(part, 0)])).toEqual(['axial', 'radial'])
    expect(fittingConstraints(sketch, [])).toEqual([])
  })

  it('refuses a constraint by the names of those that stand against it', () => {
    const part = sizedSpindle()
    expect(problemOf(part, constrain(SKETCH, 'radial', [line(part, 1)]))).toMatch(
      /“line 2 radial” cannot be put on\..*line 2 axial|length of line 2/,
    )
    expect(problemOf(part, constrain(SKETCH, 'axial', [line(part, 1)]))).toContain('holds already')
    expect(problemOf(part, constrain(SKETCH, 'coincident', [line(part, 1)]))).toContain(
      'does not fit',
    )
  })

  it('refuses a size too many, which may stand as a reference', () => {
    const part = sizedSpindle()
    const [a, b] = [sketchOf(part).points[0]?.id ?? '', sketchOf(part).points[5]?.id ?? '']
    const whole = { kind: 'axialDistance' as const, a, b }
    expect(problemOf(part, addSize(SKETCH, whole, '50'))).toMatch(
      /len1 = 24.*len2 = 20|len2 = 20.*len1 = 24/,
    )
    expect(problemOf(part, addSize(SKETCH, whole, '44'))).toContain('held already')
    const told = must(part, addReference(SKETCH, whole))
    const reference = sketchOf(told).sizes.at(-1)
    expect(
      evaluate(told)
        .sketches.get(SKETCH)
        ?.measured.get(reference?.id ?? ''),
    ).toBeCloseTo(44, 12)
    expect(problemOf(told, setReference(SKETCH, reference?.id ?? '', false))).not.toBe('')
    const loosened = must(told, setReference(SKETCH, sketchOf(told).sizes[0]?.id ?? '', true))
    expect(freedoms(loosened)).toBe(1)
  })

  it('keeps what was typed when it cannot hold, with the last good places', () => {
    const part = must(sizedSpindle(), setValue({ name: 'land', measure: 'length', formula: '20' }))
    const size = sketchOf(part).sizes[1]?.id ?? ''
    const linked = must(part, changeSize(SKETCH, size, 'land + 4 mm'))
    expect(overallOf(evaluate(linked))?.length).toBeCloseTo(48, 12)
    for (const [formula, words] of [
      ['0', 'greater than zero'],
      ['-3', 'greater than zero'],
      ['2 km', '“km” is no unit'],
      ['5e9', 'too large'],
      ['land + 30°', 'cannot be added'],
    ] as const) {
      expect(problemOf(linked, changeSize(SKETCH, size, formula))).toContain(words)
    }
    const dropped = must(linked, removeValue('land'))
    expect(evaluate(dropped).sketches.get(SKETCH)?.sizeProblems.get(size)?.message).toContain(
      '“land”',
    )
    expect(overallOf(evaluate(dropped))?.length).toBeCloseTo(48, 12)
    expect(
      problemOf(linked, setValue({ name: 'land', measure: 'length', formula: 'len2' })),
    ).toContain('circle')
    expect(problemOf(linked, setValue({ name: 'mm', measure: 'length', formula: '1' }))).toContain(
      'unit',
    )
    expect(problemOf(linked, setValue({ name: '2x', measure: 'length', formula: '1' }))).toContain(
      'cannot be a name',
    )
  })

  it('takes what stands on a deleted line with it', () => {
    const part = sizedSpindle()
    const lost = must(part, removeItems(SKETCH, [line(part, 3)]))
    expect(sketchOf(lost).entities).toHaveLength(4)
    expect(sketchOf(lost).sizes.map((s) => s.name)).toEqual(['len1', 'dia1', 'dia2'])
    const state = evaluate(lost)
    expect(state.steps[0]).toMatchObject({ status: 'failed', massChange: 0 })
    expect(state.steps[0]?.problem?.message).toContain('is open')
  })

  it('counts only outline lines as material', () => {
    const part = sizedSpindle()
    const guide = must(part, setRole(SKETCH, [line(part, 2)], 'construction'))
    expect(evaluate(guide).steps[0]?.problem?.code).toBe('profile.open')
  })
})

describe('the route', () => {
  it('sets steps aside, deletes them, and turns each profile once', () => {
    const part = sizedSpindle()
    const step = part.route[0]?.id ?? ''
    expect(problemOf(part, addRevolve(SKETCH))).toContain('turned already')
    const aside = must(part, setAside(step, true))
    expect(overallOf(evaluate(aside))).toBeUndefined()
    expect(must(part, removeStep(step)).route).toEqual([])
    const second = must(part, addSketch())
    expect(second.sketches.map((s) => s.name)).toEqual(['A', 'B'])
    const empty = must(second, addRevolve(second.sketches[1]?.id ?? ''))
    expect(empty.route.map((s) => s.number)).toEqual([10, 20])
    expect(reportOf(evaluate(empty)).steps[1]?.message).toContain('no outline yet')
  })

  it('weighs the body in its material', () => {
    const brass = STOCK_MATERIALS.find((m) => m.name.startsWith('brass'))
    if (!brass) throw new Error('no brass')
    const part = sizedSpindle()
    const steel = overallOf(evaluate(part))?.mass ?? 0
    const golden = must(part, setMaterial('body1', brass))
    expect((overallOf(evaluate(golden))?.mass ?? 0) / steel).toBeCloseTo(8.47 / 7.85, 12)
    expect(golden.materials.map((m) => m.id)).toEqual([brass.id])
  })
})

describe('history', () => {
  it('goes back to the very part and forth again, and forgets the way forth after an edit', () => {
    const start = createHistory(sizedSpindle())
    const size = sketchOf(start.part).sizes[0]?.id ?? ''
    const changed = edit(start, changeSize(SKETCH, size, '60'))
    if (!changed.ok) throw new Error(changed.problem.message)
    const back = undo(changed.value)
    expect(back.part).toBe(start.part)
    expect(redo(back).part).toBe(changed.value.part)
    expect(redo(back).past.map((e) => e.label)).toEqual(['change size'])
    const other = edit(back, renamePart('Shaft'))
    expect(other.ok && other.value.future).toEqual([])
    expect(undo(createHistory(start.part)).part).toBe(start.part)
    const same = edit(start, renamePart('Spindle'))
    expect(same.ok && same.value).toBe(start)
  })
})
