import { describe, expect, it } from 'vitest'
import {
  CONSTRAINT_KINDS,
  addSize,
  constrain,
  createPart,
  drawChain,
  drawCurve,
  drawPiece,
  evaluate,
  fittingConstraints,
  linesOf,
  locator,
  mirrorItems,
  perform,
  readPartFile,
  removeItems,
  solve,
  writePartFile,
  type Command,
  type Constraint,
  type End,
  type Part,
  type Solution,
  type Vec,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const freedoms = (part: Part): number =>
  evaluate(part).sketches.get(SKETCH)?.solution.freedoms ?? -1

const solutionOf = (part: Part): Solution => solve(sketchOf(part), new Map())

/** Two slanted lines apart from one another, and nothing that ties them. */
function twoLines(): Part {
  const end = (x: number, y: number): End => ({ at: { x, y } })
  return must(
    createPart({ name: 'Lever' }),
    drawChain(SKETCH, [end(0, 10), end(30, 22)], [[]]),
    drawChain(SKETCH, [end(40, 8), end(62, 26)], [[]]),
  )
}

function parts(part: Part) {
  const sketch = sketchOf(part)
  const [one, two] = linesOf(sketch)
  if (!one || !two) throw new Error('two lines are drawn')
  const at = locator(sketch)
  const along = ({ from, to }: typeof one): Vec => ({
    x: at(to).x - at(from).x,
    y: at(to).y - at(from).y,
  })
  return { one, two, at, u: along(one), v: along(two) }
}

const KINDS = Object.keys(CONSTRAINT_KINDS) as Constraint['kind'][]
/** Those that are put on picks, not by a tool of their own. */
const OFFERED = KINDS.filter((kind) => CONSTRAINT_KINDS[kind].offer)

const put = (part: Part, kind: Constraint['kind'], picks: readonly string[]): Part =>
  must(part, constrain(SKETCH, kind, picks))

describe('constraints between lines', () => {
  it('make lines parallel, to the nearer direction', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const tied = put(part, 'parallel', [one.id, two.id])
    const { u, v } = parts(tied)
    expect(u.x * v.y - u.y * v.x).toBeCloseTo(0, 6)
    expect(u.x * v.x + u.y * v.y).toBeGreaterThan(0)
    expect(freedoms(tied)).toBe(freedoms(part) - 1)
  })

  it('make lines perpendicular', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const { u, v } = parts(put(part, 'perpendicular', [one.id, two.id]))
    expect(u.x * v.x + u.y * v.y).toBeCloseTo(0, 6)
  })

  it('make lines of one length, which follow one size', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const equal = put(part, 'equal', [one.id, two.id])
    const sized = must(equal, addSize(SKETCH, { kind: 'length', line: one.id }, '25'))
    const { u, v } = parts(sized)
    expect([Math.hypot(u.x, u.y), Math.hypot(v.x, v.y)]).toEqual([
      expect.closeTo(25, 8),
      expect.closeTo(25, 8),
    ])
    const twice = perform(sized, addSize(SKETCH, { kind: 'length', line: two.id }, '25'))
    expect(twice.ok ? '' : twice.problem.message).toContain('held already by length of line 1')
  })

  it('lay lines along one another: both ends of one on the other', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const tied = put(part, 'pointOn', [one.id, two.id])
    const { u, at, one: first, two: second } = parts(tied)
    for (const p of [at(second.from), at(second.to)]) {
      const w = { x: p.x - at(first.from).x, y: p.y - at(first.from).y }
      expect(u.x * w.y - u.y * w.x).toBeCloseTo(0, 5)
    }
  })

  it('are put on many lines at once, all to the first', () => {
    const end = (x: number, y: number): End => ({ at: { x, y } })
    const part = must(twoLines(), drawChain(SKETCH, [end(70, 5), end(95, 12)], [[]]))
    const ids = sketchOf(part).entities.map((e) => e.id)
    expect(freedoms(put(part, 'equal', ids))).toBe(freedoms(part) - 2)
  })
})

describe('constraints that others hold in part', () => {
  it('lay axial lines along one another, though one end says it all', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const level = put(put(part, 'axial', [one.id]), 'axial', [two.id])
    const tied = put(level, 'pointOn', [one.id, two.id])
    expect(freedoms(tied)).toBe(freedoms(level) - 1)
    expect(solutionOf(tied).disagreements).toEqual([])
  })

  it('pass over those of many picks that hold, and refuse when all do', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const some = put(part, 'axial', [one.id])
    const all = put(some, 'axial', [one.id, two.id])
    expect(freedoms(all)).toBe(freedoms(part) - 2)
    const again = perform(all, constrain(SKETCH, 'axial', [one.id, two.id]))
    expect(again.ok ? '' : again.problem.message).toContain('holds already')
  })

  it('take the place of a weaker one', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const inLine = put(part, 'inLine', [one.to, two.from])
    const met = put(inLine, 'coincident', [one.to, two.from])
    expect(sketchOf(met).constraints.map((c) => c.kind)).toEqual(['coincident'])
    expect(freedoms(met)).toBe(freedoms(part) - 2)
  })

  it('leave no freedom in an arc that is mirrored about a line through its centre', () => {
    const end = (x: number, y: number): End => ({ at: { x, y } })
    const plane = must(
      createPart({ name: 'Line sheave' }),
      drawChain(SKETCH, [end(20, 0), end(20, 60)], [['radial']]),
    )
    const [middle = ''] = linesOf(sketchOf(plane)).map((l) => l.id)
    const part = must(
      plane,
      drawPiece({
        sketch: SKETCH,
        from: end(14, 38),
        to: { at: { x: 20, y: 30 }, on: [middle] },
        role: 'outline',
        arc: { centre: { x: 20, y: 37 }, counterClockwise: true },
        ties: [{ kind: 'pointOn', point: '~centre', curve: middle }],
      }),
    )
    const arc = sketchOf(part).entities.at(-1)?.id ?? ''
    const mirrored = must(part, mirrorItems(SKETCH, [arc], middle))
    expect(freedoms(mirrored)).toBe(freedoms(part))
    expect(solutionOf(mirrored).disagreements).toEqual([])
  })
})

describe('constraints between points', () => {
  it('set points in line: along the axis or square to it, whichever is nearer', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const level = put(part, 'inLine', [one.from, two.from])
    expect(parts(level).at(one.from).y).toBeCloseTo(parts(level).at(two.from).y, 9)
    const above = put(part, 'inLine', ['origin', one.from])
    expect(parts(above).at(one.from).x).toBeCloseTo(0, 9)
    expect(freedoms(above)).toBe(freedoms(part) - 1)
  })

  it('put a point in the middle of a line', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const tied = put(part, 'midpoint', [two.from, one.id])
    const { at } = parts(tied)
    const [a, b, m] = [at(one.from), at(one.to), at(two.from)]
    expect([m.x, m.y]).toEqual([
      expect.closeTo((a.x + b.x) / 2, 8),
      expect.closeTo((a.y + b.y) / 2, 8),
    ])
    expect(freedoms(tied)).toBe(freedoms(part) - 2)
  })

  it('mirror points about the axis and about a line', () => {
    const part = twoLines()
    const { one, two } = parts(part)
    const { at } = parts(put(part, 'symmetric', [one.from, two.from, 'axis']))
    expect(at(one.from).x).toBeCloseTo(at(two.from).x, 8)
    expect(at(one.from).y).toBeCloseTo(-at(two.from).y, 8)
    const end = (x: number, y: number): End => ({ at: { x, y } })
    const third = must(part, drawChain(SKETCH, [end(70, 5), end(95, 12)], [[]]))
    const mirror = linesOf(sketchOf(third))[2]
    const tied = put(third, 'symmetric', [one.from, two.from, mirror?.id ?? ''])
    const place = locator(sketchOf(tied))
    const [a, b] = [place(one.from), place(two.from)]
    const [c, e] = [place(mirror?.from ?? ''), place(mirror?.to ?? '')]
    const d = { x: e.x - c.x, y: e.y - c.y }
    expect((b.x - a.x) * d.x + (b.y - a.y) * d.y).toBeCloseTo(0, 5)
    const m = { x: (a.x + b.x) / 2 - c.x, y: (a.y + b.y) / 2 - c.y }
    expect(d.x * m.y - d.y * m.x).toBeCloseTo(0, 5)
  })
})

describe('every constraint', () => {
  const bow = (x: number, y: number): Command =>
    drawPiece({
      sketch: SKETCH,
      from: { at: { x: x + 5, y } },
      to: { at: { x, y: y + 5 } },
      role: 'outline',
      arc: { centre: { x, y }, counterClockwise: true },
    })
  const bare = must(twoLines(), bow(5, 40), bow(40, 45))
  const { one, two } = parts(bare)
  const end = locator(sketchOf(bare))(one.to)
  const places = [
    { x: 9, y: 6 },
    { x: 18, y: 7 },
    { x: 26, y: -3 },
    { x: 33, y: 4 },
  ]
  const part = must(
    bare,
    drawCurve({
      ...{ sketch: SKETCH, way: 'frame', role: 'outline', square: false },
      places: [
        { at: end, point: one.to },
        ...places.map((p) => ({ at: { x: end.x + p.x, y: end.y + p.y } })),
      ],
    }),
  )
  const curve = sketchOf(part).entities.at(-1)?.id ?? ''
  const [arc = '', other = ''] = sketchOf(part).entities.flatMap((e) =>
    e.kind === 'arc' ? e.id : [],
  )
  const PICKS: Partial<Readonly<Record<Constraint['kind'], readonly string[]>>> = {
    axial: [one.id],
    radial: [one.id],
    coincident: [one.to, two.from],
    pointOn: [two.from, one.id],
    fixed: [one.from],
    inLine: [one.from, two.from],
    parallel: [one.id, two.id],
    perpendicular: [one.id, two.id],
    tangent: ['axis', arc],
    curvature: [one.id, curve],
    concentric: [arc, other],
    equal: [one.id, two.id],
    midpoint: [two.from, one.id],
    symmetric: [one.from, two.from, 'axis'],
  }

  it.each(OFFERED)(
    '%s is offered for fitting picks, told in words, refused twice, kept in the file, deleted',
    (kind) => {
      const picks = PICKS[kind] ?? []
      expect(fittingConstraints(sketchOf(part), picks)).toContain(kind)
      expect(fittingConstraints(sketchOf(part), [])).toEqual([])
      const tied = put(part, kind, picks)
      const again = perform(tied, constrain(SKETCH, kind, picks))
      expect(again.ok ? '' : again.problem.message).toMatch(/^“.+” holds already, by other/)
      expect(readPartFile(writePartFile(tied))).toMatchObject({ ok: true })
      const added = sketchOf(tied).constraints.map((c) => c.id)
      expect(freedoms(must(tied, removeItems(SKETCH, added)))).toBe(freedoms(part))
      const without = must(tied, removeItems(SKETCH, [one.id]))
      const readers = sketchOf(without).constraints.filter((c) =>
        JSON.stringify(c).includes(`"${one.id}"`),
      )
      expect(readers).toEqual([])
    },
  )

  it('that does not fit its picks says what must be picked', () => {
    for (const kind of OFFERED) {
      const refused = perform(part, constrain(SKETCH, kind, ['axis']))
      expect(refused.ok ? '' : refused.problem.mend).toBe(CONSTRAINT_KINDS[kind].offer?.needs)
    }
  })
})
