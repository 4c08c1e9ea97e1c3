import { describe, expect, it } from 'vitest'
import {
  CONSTRAINT_OFFERS,
  addSize,
  constrain,
  createPart,
  drawChain,
  drawPiece,
  evaluate,
  fittingConstraints,
  linesOf,
  locator,
  perform,
  readPartFile,
  removeItems,
  writePartFile,
  type Command,
  type ConstraintKind,
  type End,
  type Part,
  type Vec,
} from '../src'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const freedoms = (part: Part): number =>
  evaluate(part).sketches.get(SKETCH)?.solution.freedoms ?? -1

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

const put = (part: Part, kind: ConstraintKind, picks: readonly string[]): Part =>
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
  const part = must(twoLines(), bow(5, 40), bow(40, 45))
  const { one, two } = parts(part)
  const [arc = '', other = ''] = sketchOf(part).entities.flatMap((e) =>
    e.kind === 'arc' ? e.id : [],
  )
  const PICKS: Readonly<Record<ConstraintKind, readonly string[]>> = {
    axial: [one.id],
    radial: [one.id],
    coincident: [one.to, two.from],
    pointOn: [two.from, one.id],
    fixed: [one.from],
    inLine: [one.from, two.from],
    parallel: [one.id, two.id],
    perpendicular: [one.id, two.id],
    tangent: ['axis', arc],
    concentric: [arc, other],
    equal: [one.id, two.id],
    midpoint: [two.from, one.id],
    symmetric: [one.from, two.from, 'axis'],
  }

  it.each(CONSTRAINT_OFFERS.map((o) => o.kind))(
    '%s is offered for fitting picks, told in words, refused twice, kept in the file, deleted',
    (kind) => {
      const picks = PICKS[kind]
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
    for (const { kind, needs } of CONSTRAINT_OFFERS) {
      const refused = perform(part, constrain(SKETCH, kind, ['axis']))
      expect(refused.ok ? '' : refused.problem.mend).toBe(needs)
    }
  })
})
