import { describe, expect, test } from 'vitest'
import {
  AXIS_ID,
  NOTHING_FOUND,
  addStep,
  asksOfChecks,
  succeed,
  tellMeasured,
  withAnswer,
  type NewStep,
  METRIC,
  ORIGIN_ID,
  WHOLE_BODY,
  STOCK_MATERIALS,
  addChecks,
  addRevolve,
  addSketch,
  changeCheck,
  measurePicks,
  pickWords,
  polesOf,
  vec,
  changeMaterial,
  checkStates,
  createPart,
  drawDraft,
  edgeKey,
  edgesOf,
  evaluate,
  evaluateFormula,
  faceWords,
  figuresOf,
  massProperties,
  moveCheck,
  perform,
  pickedIn,
  readPart,
  readSheet,
  rectangle,
  removeCheck,
  setMaterial,
  steppedShaft,
  stockFor,
  summaryOf,
  tellFailure,
  tellTolerance,
  tellValue,
  toDocument,
  unitCalled,
  writeCsv,
  writeSheet,
  type CheckState,
  type Command,
  type Figure,
  type NewCheck,
  type Part,
} from '../src'
import { outlineOf } from './support/sections'

function run(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(result.problem.message)
    return result.value
  }, part)
}

/** A spindle of two lands, ⌀40 × 20 and ⌀20 × 30, of steel. */
function spindle(): Part {
  const pairs = [
    [40, 20],
    [20, 30],
  ].map(([d = 0, l = 0]) => ({
    diameter: { formula: String(d), value: d },
    length: { formula: String(l), value: l },
  }))
  const start = createPart({ name: 'Spindle' })
  const id = start.sketches[0]?.id ?? ''
  const shaft = steppedShaft({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, pairs)
  return run(start, drawDraft('draw', id, shaft), addRevolve(id))
}

const VOLUME = Math.PI * (400 * 20 + 100 * 30)

const face = (part: Part, words: string): string => {
  const edges = evaluate(part).bodies.flatMap((b) => edgesOf(b.section))
  const edge = edges.find((e) => faceWords(e, METRIC) === words)
  if (!edge) throw new Error(`there is no ${words}`)
  return edgeKey(edge.name)
}

const withRow = (part: Part, row: NewCheck): { part: Part; state: CheckState } => {
  const next = run(part, addChecks([row]))
  const state = checkStates(evaluate(next)).at(-1)
  if (!state) throw new Error('the row is there')
  return { part: next, state }
}

const body = (kind: Extract<Figure, { body: string }>['kind']): Figure =>
  ({ kind, body: '' }) as Figure

describe('rows of the inspection sheet', () => {
  test('read bare numbers in their unit, and pass within the last digit typed', () => {
    const mass = VOLUME * 7.85e-3
    const target = (mass / 1000).toFixed(3)
    const row = { figure: body('mass'), unit: 'kg', target }
    expect(withRow(spindle(), row).state).toMatchObject({ verdict: 'passes' })
    const off = withRow(spindle(), { ...row, target: '0.3' }).state
    expect(off.verdict).toBe('passes')
    expect(withRow(spindle(), { ...row, target: '0.300' }).state.verdict).toBe('fails')
    expect(withRow(spindle(), { ...row, target: '271 g' }).state.verdict).toBe('passes')
  })

  test('take tolerances to either side, and limits', () => {
    const row: NewCheck = { figure: body('diameter'), unit: 'mm', target: '39.9' }
    const verdict = (more: Partial<NewCheck>): string =>
      withRow(spindle(), { ...row, ...more }).state.verdict
    expect(verdict({})).toBe('fails')
    expect(verdict({ above: '0.1' })).toBe('passes')
    expect(verdict({ below: '0.1' })).toBe('fails')
    expect(verdict({ above: '0.05' })).toBe('fails')
    expect(verdict({ limit: 'least' })).toBe('passes')
    expect(verdict({ limit: 'most' })).toBe('fails')
    expect(verdict({ limit: 'most', target: '40' })).toBe('passes')
  })

  test('say by how much they fail, and what is allowed', () => {
    const row: NewCheck = {
      figure: body('length'),
      unit: 'mm',
      target: '49.7',
      above: '0.2',
      below: '0',
    }
    const { state } = withRow(spindle(), row)
    expect(state.verdict).toBe('fails')
    expect(tellFailure(state)).toBe('It lies 0.3 mm over the target; 0.2 mm is allowed.')
    expect(tellTolerance(state)).toBe('(+0.2 / 0)')
    expect(tellValue(state.difference ?? 0, state.unit)).toBe('0.3 mm')
  })

  test('may be written before anything is drawn, and then stand open', () => {
    const empty = createPart({ name: 'Float' })
    const { part, state } = withRow(empty, { figure: body('mass'), target: '0.3 kg' })
    expect(state).toMatchObject({ verdict: 'open', problem: { code: 'figure.gone' } })
    expect(state.target).toBe(300)
    expect(summaryOf(checkStates(evaluate(part)))).toEqual({
      passing: 0,
      failing: 0,
      open: 1,
      targets: 1,
    })
  })

  test('keep a target of another kind of unit and say what is wrong with it', () => {
    const { state } = withRow(spindle(), { figure: body('mass'), unit: 'kg', target: '12 mm' })
    expect(state).toMatchObject({ verdict: 'open', check: { target: '12 mm' } })
    expect(state.problem?.message).toBe('This field takes a mass; the formula gives a length.')
    expect(state.problem?.mend).toContain('12 g')
    const wrong = withRow(spindle(), { figure: body('mass'), unit: 'mm', target: '12' }).state
    expect(wrong.problem?.code).toBe('check.unit')
    const negative = withRow(spindle(), { figure: body('length'), target: '50', above: '-1' }).state
    expect(negative.problem?.code).toBe('check.tolerance')
  })

  test('stay linked to the faces that were picked while sizes change', () => {
    const part = spindle()
    const picks = ['face at 20', 'face at 50'].map((w) => ({ body: 'body1', key: face(part, w) }))
    const { part: kept, state } = withRow(part, { figure: { kind: 'axial', picks }, unit: 'mm' })
    expect(state).toMatchObject({
      verdict: 'told',
      words: 'axial distance from face at 20 to face at 50',
    })
    expect(state.measured?.value).toBeCloseTo(30, 9)
    const sketch = kept.sketches[0]
    const size = sketch?.sizes.find((s) => s.formula === '30')
    const longer = {
      ...kept,
      sketches: kept.sketches.map((s) => ({
        ...s,
        sizes: s.sizes.map((z) => (z.id === size?.id ? { ...z, formula: '37' } : z)),
      })),
    }
    const after = checkStates(evaluate(run(longer)))[0]
    const settled = run(longer, { label: 'settle', run: (p) => ({ ok: true, value: p }) })
    expect(checkStates(evaluate(settled))[0]?.measured?.value).toBeCloseTo(37, 6)
    expect(after?.verdict).toBe('told')
    const without = run(settled, {
      label: 'x',
      run: (p) => ({ ok: true, value: { ...p, route: [] } }),
    })
    expect(checkStates(evaluate(without))[0]?.problem?.message).toBe('What was picked is gone.')
  })

  test('are changed, moved, deleted, and kept by the part file', () => {
    const rows: NewCheck[] = [
      { figure: body('mass') },
      { figure: body('volume') },
      { figure: body('area') },
    ]
    const part = run(spindle(), addChecks(rows))
    const [a, b, c] = part.checks.map((x) => x.id)
    const order = (p: Part): string[] => p.checks.map((x) => x.figure.kind)
    expect(order(run(part, moveCheck(c ?? '', 0)))).toEqual(['area', 'mass', 'volume'])
    expect(order(run(part, removeCheck(a ?? '')))).toEqual(['volume', 'area'])
    const named = run(part, changeCheck(b ?? '', { name: 'what it displaces', target: '34 ml' }))
    expect(checkStates(evaluate(named))[1]?.words).toBe('what it displaces')
    const read = readPart(JSON.parse(JSON.stringify(toDocument(named))))
    expect(read.ok && read.value.checks).toEqual(named.checks)
    expect(perform(part, changeCheck(a ?? '', { target: '1'.repeat(200) })).ok).toBe(false)
  })
})

describe('a sheet as CSV', () => {
  const part = run(
    spindle(),
    addChecks([
      { figure: body('mass'), unit: 'kg', target: '0.271', name: 'weight, as drawn' },
      { figure: { kind: 'pickArea', picks: [{ body: 'body1', key: 'step3/l1' }] }, unit: 'cm²' },
      {
        figure: { kind: 'capacity', body: 'body1', height: '10 mm' },
        unit: 'ml',
        limit: 'least',
        target: '3',
      },
    ]),
  )

  test('reads back as the same rows', () => {
    const text = writeSheet(evaluate(part))
    expect(text.split('\r\n')[0]).toBe(
      'name,figure,of,unit,limit,target,above,below,every limit,value,difference,verdict',
    )
    expect(text).toContain('"weight, as drawn",mass,,kg,about,0.271,,,,0.27128,')
    const read = readSheet(text, part)
    if (!read.ok) throw new Error(read.problem.message)
    const again = run({ ...part, checks: [] }, addChecks(read.value))
    expect(again.checks.map(({ id: _, ...row }) => row)).toEqual(
      part.checks.map(({ id: _, ...row }) => row),
    )
  })

  test('is refused with the row and a mend when something in it has no meaning', () => {
    const message = (text: string): string => {
      const read = readSheet(text, part)
      return read.ok ? '' : read.problem.message
    }
    expect(message('a,b\n1,2')).toBe('This file has no column called “figure”.')
    expect(message('figure\n')).toBe('This file holds no rows.')
    expect(message('figure,unit\nmass,kg\nmass,mm')).toBe('Row 3: “mm” is no unit of mass.')
    expect(message('figure\nshine')).toBe('Row 2: There is no figure called “shine”.')
    expect(message('figure,of\nmass,lid')).toBe('Row 2: There is no body called “lid”.')
    expect(message('figure,limit\nmass,near')).toBe('Row 2: “near” is no limit.')
    expect(message(`figure\n${'x'.repeat(600_000)}`)).toContain('too large')
    expect(message('\uFEFFFigure,Unit\r\nmass,kg\r\n')).toBe('')
  })

  test('gives no cell that a spreadsheet would run', () => {
    expect(writeCsv([['=1+1', 'plain', 3]])).toBe('"\'=1+1",plain,3\r\n')
    const risky = ['=1+1', '+1+cmd', '-2+3', '@SUM(1)', "'quoted", '\u0007bell', "''twice"]
    const cells = writeCsv(risky.map((text) => [text])).split('\r\n')
    for (const [i, text] of risky.entries()) expect(cells[i]).toContain(`'${text}`)
    // Tolerances with a sign are numbers to a spreadsheet and stay so.
    expect(writeCsv([['-0.05', '+0.1']])).toBe('-0.05,+0.1\r\n')
    for (const name of risky.slice(0, 5)) {
      const named = run(part, addChecks([{ figure: body('mass'), unit: 'kg', name }]))
      const read = readSheet(writeSheet(evaluate(named)), named)
      expect(read.ok && read.value.at(-1)?.name).toBe(name)
    }
  })

  test.each(['drum; left', ' with blanks ', 'the "old" one', 'a;b;"c"'])(
    'keeps a body called %j',
    (name) => {
      const renamed = { ...part, bodies: part.bodies.map((b) => ({ ...b, name })) }
      const own = run(
        renamed,
        addChecks([{ figure: { kind: 'mass', body: 'body1' } as Figure, unit: 'kg' }]),
      )
      const read = readSheet(writeSheet(evaluate(own)), own)
      if (!read.ok) throw new Error(read.problem.message)
      expect(read.value.map((r) => r.figure)).toEqual(own.checks.map((c) => c.figure))
    },
  )
})

describe('two profiles of one part', () => {
  test('keep their own values, though their sizes are counted alike', () => {
    const turn = (part: Part, which: number, x: number, d: number, l: number): Part => {
      const id = part.sketches[which]?.id ?? ''
      const pairs = [
        {
          diameter: { formula: String(d), value: d },
          length: { formula: String(l), value: l },
        },
      ]
      const shaft = steppedShaft({ at: { x, y: 0 }, on: [AXIS_ID] }, pairs)
      return run(part, drawDraft('draw', id, shaft), addRevolve(id))
    }
    const first = turn(createPart({ name: 'Float' }), 0, 0, 40, 20)
    const two = turn(run(first, addSketch()), 1, 60, 8, 70)
    const shared = two.sketches[1]?.sizes.filter((s) =>
      two.sketches[0]?.sizes.some((z) => z.id === s.id),
    )
    expect(shared?.length).toBeGreaterThan(0)
    const [shell, rod] = evaluate(two).bodies
    expect(shell?.solid?.volume).toBeCloseTo(Math.PI * 400 * 20, 6)
    expect(rod?.solid?.volume).toBeCloseTo(Math.PI * 16 * 70, 6)
  })
})

describe('mass properties', () => {
  test('of two bodies of different density are taken about their common centre', () => {
    const start = spindle()
    const brass = STOCK_MATERIALS.find((m) => m.id === 'brass-cuzn39pb3')
    if (!brass) throw new Error('brass is in stock')
    const second = run(start, addSketch())
    const id = second.sketches[1]?.id ?? ''
    const disc = rectangle({ at: { x: 60, y: 0 } }, { at: { x: 70, y: 15 } })
    const two = run(second, drawDraft('draw', id, disc), addRevolve(id))
    const own = two.bodies[1]?.id ?? ''
    const part = run(two, setMaterial(own, brass))
    const found = massProperties(part, evaluate(part).bodies)
    if (!found) throw new Error('there is material')
    const cylinders = [
      [0, 20, 20, 7.85e-3],
      [20, 50, 10, 7.85e-3],
      [60, 70, 15, brass.density],
    ].map(([from = 0, to = 0, r = 0, density = 0]) => {
      const [l, m] = [to - from, density * Math.PI * r * r * (to - from)]
      const across = (m * (3 * r * r + l * l)) / 12
      return { m, x: (from + to) / 2, axis: (m * r * r) / 2, across }
    })
    const mass = cylinders.reduce((s, c) => s + c.m, 0)
    const centre = cylinders.reduce((s, c) => s + c.m * c.x, 0) / mass
    const across = cylinders.reduce((s, c) => s + c.across + c.m * (c.x - centre) ** 2, 0)
    expect(found.mass).toBeCloseTo(mass, 6)
    expect(found.centre).toBeCloseTo(centre, 6)
    expect(found.inertiaAxis).toBeCloseTo(
      cylinders.reduce((s, c) => s + c.axis, 0),
      3,
    )
    expect(found.inertiaAcross / across).toBeCloseTo(1, 8)
    expect(found.gyrationAxis ** 2 * mass).toBeCloseTo(found.inertiaAxis, 3)
    expect(found).toMatchObject({ from: 0 })
    expect(massProperties(part, [])).toBeUndefined()
  })

  test('stock is the least bar with something left to cut, and a blank beyond the bars', () => {
    const bar = stockFor({ diameter: 40, from: 0, to: 50, volume: VOLUME })
    expect(bar).toMatchObject({ kind: 'bar', diameter: 42, length: 52 })
    expect(bar.cutAway).toBeCloseTo(1 - VOLUME / ((Math.PI / 4) * 42 ** 2 * 52), 12)
    expect(stockFor({ diameter: 301, from: 0, to: 9.5, volume: 1 })).toMatchObject({
      ...{ kind: 'blank', diameter: 310, length: 12 },
    })
  })

  test('a material of no sensible density is refused with a mend', () => {
    const part = spindle()
    const [steel] = part.materials
    if (!steel) throw new Error('the spindle is of steel')
    for (const density of [0, -1, Number.NaN, 1, 1e-9]) {
      expect(perform(part, changeMaterial({ ...steel, density })).ok).toBe(false)
    }
    const heavier = run(part, changeMaterial({ ...steel, density: 8e-3 }))
    expect(evaluate(heavier).bodies[0]?.mass).toBeCloseTo(8e-3 * VOLUME, 6)
  })
})

describe('picks', () => {
  test('offer the figures they have, the most telling first', () => {
    const part = spindle()
    const { bodies } = evaluate(part)
    const picked = (words: string) => pickedIn(bodies, { body: 'body1', key: face(part, words) })
    const kinds = (...words: string[]) => figuresOf(words.flatMap((w) => picked(w) ?? []))
    expect(kinds('cylinder ⌀40')).toEqual(['pickDiameter', 'pickLength', 'pickArea'])
    expect(kinds('face at 0', 'face at 50')).toEqual(['distance', 'axial', 'pickArea'])
    expect(kinds('cylinder ⌀40', 'cylinder ⌀20')).toEqual(['distance', 'radial', 'pickArea'])
    expect(pickedIn(bodies, { body: 'body1', key: 'step9/l1' })).toBeUndefined()
  })

  test('have the values of closed forms', () => {
    const part = spindle()
    const pick = (words: string) => ({ body: 'body1', key: face(part, words) })
    const value = (kind: 'distance' | 'pickArea' | 'pickDiameter', ...words: string[]): number =>
      withRow(part, { figure: { kind, picks: words.map(pick) } }).state.measured?.value ??
      Number.NaN
    expect(value('distance', 'cylinder ⌀20', 'face at 0')).toBeCloseTo(20, 9)
    expect(value('pickArea', 'cylinder ⌀20', 'face at 50')).toBeCloseTo(
      Math.PI * (20 * 30 + 100),
      8,
    )
    expect(value('pickDiameter', 'cylinder ⌀40')).toBeCloseTo(40, 9)
  })
})

describe('what is measured on a solid', () => {
  const plain = spindle()
  const hole: NewStep = {
    ...{ kind: 'holes', body: 'body1', way: 'end', on: face(plain, 'face at 0'), layout: 'circle' },
    ...{ sketch: '', circle: '30', count: '3', start: '', range: '', skip: [], places: [] },
    ...{ from: '', distance: '', diameter: '4', reach: 'depth', depth: '8', tip: 'flat' },
    ...{ tipAngle: '', head: 'none', headDiameter: '', headDepth: '', headAngle: '', thread: '' },
  }
  const wallAtLeast = (target: string): Part =>
    run(
      plain,
      addStep(hole),
      addChecks([{ figure: { kind: 'wall', body: 'body1' }, limit: 'least', target }]),
    )
  /** The row with the least wall told as 3 mm, or so much less. */
  const told = (part: Part, within: number) => {
    const at = { x: 0, y: 0, z: 0 }
    const answer = succeed({ distance: 3, from: at, to: { ...at, x: 3 }, within })
    const asks = asksOfChecks(evaluate(part))
    expect(asks).toHaveLength(1)
    const findings = asks.reduce((all, ask) => withAnswer(all, ask, answer), NOTHING_FOUND)
    const state = evaluate(part, findings)
    expect(asksOfChecks(state)).toEqual([])
    return checkStates(state)[0]
  }

  test('is open until it is told', () => {
    const [row] = checkStates(evaluate(wallAtLeast('2')))
    expect(row).toMatchObject({ verdict: 'open', problem: { code: 'figure.asked' } })
  })

  test('passes or fails where that holds however exact it is, and else stays open', () => {
    expect(told(wallAtLeast('2.9'), 0)?.verdict).toBe('passes')
    expect(told(wallAtLeast('2.9'), 0.05)?.verdict).toBe('passes')
    expect(told(wallAtLeast('2.9'), 0.2)).toMatchObject({
      ...{ verdict: 'open', problem: { code: 'check.within' } },
    })
    expect(told(wallAtLeast('3.1'), 0.2)?.verdict).toBe('fails')
    const { unit, measured } = told(wallAtLeast('2.9'), 0.2) ?? {}
    const words = measured && unit ? tellMeasured(measured, unit) : ''
    expect(words).toBe('3 mm or up to 0.2 mm less')
  })
})

describe('points on the axis and whole bodies', () => {
  const part = spindle()
  const { bodies } = evaluate(part)
  const section = bodies[0]?.section ?? { regions: [] }
  const picked = (key: string) => pickedIn(bodies, { body: 'body1', key })
  const value = (kind: 'distance' | 'axial' | 'radial', ...keys: string[]): number | undefined =>
    measurePicks(
      kind,
      keys.flatMap((k) => picked(k) ?? []),
    )?.value

  test('are the middles of the ends of a solid spindle', () => {
    const [left, right] = polesOf(section)
    expect([left?.at, right?.at]).toEqual([
      { x: 0, y: 0 },
      { x: 50, y: 0 },
    ])
    const keys = [left?.key ?? '', right?.key ?? '']
    expect(value('distance', ...keys)).toBeCloseTo(50, 12)
    expect(value('axial', ...keys)).toBeCloseTo(50, 12)
    expect(value('radial', keys[0] ?? '', face(part, 'cylinder ⌀40'))).toBeCloseTo(20, 12)
    expect(value('distance', keys[0] ?? '', 'axis')).toBeUndefined()
    const words = keys.map((k) => {
      const found = picked(k)
      return found ? pickWords(found, part) : ''
    })
    expect(words).toEqual(['point on the axis at 0', 'point on the axis at 50'])
  })

  test('of a ball are both its ends, told apart', () => {
    const ball = outlineOf([{ at: vec(10, 0), bulge: 1 }, { at: vec(-10, 0) }])
    const poles = polesOf(ball)
    expect(poles.map((p) => p.at.x)).toEqual([-10, 10])
    expect(poles[1]?.key).toBe(`${poles[0]?.key ?? ''}#2`)
  })

  test('a tube has none', () => {
    const tube = [vec(0, 5), vec(20, 5), vec(20, 10), vec(0, 10)].map((at) => ({ at }))
    expect(polesOf(outlineOf(tube))).toEqual([])
  })

  test('a body is as far from a face of its own as from itself, and from the axis as it is', () => {
    expect(value('distance', WHOLE_BODY, face(part, 'face at 50'))).toBe(0)
    expect(figuresOf([{ kind: 'body', edges: [], plan: undefined }])).toEqual([])
    expect(picked(WHOLE_BODY)?.kind).toBe('body')
  })
})

describe('units that figures are told in', () => {
  test('are found however their powers are written, and formulas know litres', () => {
    expect(unitCalled('cm^3')?.name).toBe('cm³')
    expect(unitCalled('g*mm2')?.name).toBe('g·mm²')
    expect(unitCalled('furlong')).toBeUndefined()
    const context = { want: 'volume' as const, units: METRIC, lookup: () => undefined }
    expect(evaluateFormula('2 litre', context)).toEqual({ ok: true, value: 2e6 })
    expect(evaluateFormula('5', { ...context, bare: 1000 })).toEqual({ ok: true, value: 5000 })
  })
})
