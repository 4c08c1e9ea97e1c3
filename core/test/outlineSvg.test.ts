import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { addRevolve, drawCurve, drawOutline, perform } from '@lathica/core/edit'
import { readOutlineSvg, writeProfileSvg } from '@lathica/core/formats'
import { boundsOf, lengthOf, nearestOn, pointAt, type Piece } from '@lathica/core/geometry'
import { createPart, type Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { locator, piecesOf } from '@lathica/core/sketch'
import { must, sketchOf } from './support/parts'

const SKETCH = 'sketch2'
const svg = (inner: string, head = 'width="100mm" height="100mm" viewBox="0 0 100 100"'): string =>
  `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${head}>${inner}</svg>`

function read(text: string, lie: Part['lie'] = 'lying') {
  const found = readOutlineSvg(text, lie)
  if (!found.ok) throw new Error(found.problem.message)
  return found.value
}
const pieces = (text: string): readonly Piece[] => read(text).runs.flatMap((r) => r.pieces)
const code = (text: string): string => {
  const found = readOutlineSvg(text, 'lying')
  return found.ok ? '' : found.problem.code
}
const drawnIn = (text: string, lie: Part['lie'] = 'lying'): Part =>
  must(createPart({ name: 'Nozzle', lie }), drawOutline(SKETCH, read(text, lie).runs))
const pieceList = (part: Part): readonly Piece[] => {
  const sketch = sketchOf(part)
  return sketch.entities.flatMap((e) => [...piecesOf(e, locator(sketch))])
}

/** How far pieces lie from others, at places along them. */
const off = (from: readonly Piece[], to: readonly Piece[]): number =>
  Math.max(
    ...from.flatMap((p) =>
      [0, 0.2, 0.4, 0.6, 0.8, 1].map((t) =>
        Math.min(...to.map((q) => nearestOn(q, pointAt(p, t)).distance)),
      ),
    ),
  )

describe('an SVG drawing becomes pieces', () => {
  test('lines of a path, absolute, relative, level and upright, y turned upwards and laid on the axis', () => {
    const { runs, moved } = read(svg('<path d="M10 90 h40 V70 l-10-10 L10 60z"/>'))
    expect(moved).toBe(true)
    expect(runs).toHaveLength(1)
    expect(runs[0]?.pieces.map((p) => [p.from.x, p.from.y, p.to.x, p.to.y])).toEqual([
      [0, 0, 40, 0],
      [40, 0, 40, 20],
      [40, 20, 30, 30],
      [30, 30, 0, 30],
      [0, 30, 0, 0],
    ])
  })

  test('units: of the width by the view box, else pixels of 1/96 in', () => {
    const length = (head: string): number =>
      pieces(svg('<line x1="0" y1="1" x2="96" y2="1"/>', head)).reduce((s, p) => s + lengthOf(p), 0)
    expect(length('width="200mm" viewBox="0 0 100 100"')).toBeCloseTo(192, 9)
    expect(length('width="1in" viewBox="0 0 96 96"')).toBeCloseTo(25.4, 9)
    expect(length('')).toBeCloseTo(25.4, 9)
    expect(length('width="100%" viewBox="0 0 50 50"')).toBeCloseTo(25.4, 9)
  })

  test('round arcs stay arcs through turns and even scales, others become cubics near enough', () => {
    const arc = '<path d="M10 50 A20 20 0 0 1 50 50"/>'
    for (const transform of [
      '',
      'rotate(30)',
      'scale(2)',
      'matrix(0 1 -1 0 40 3)',
      'scale(-1 1)',
    ]) {
      const [only] = pieces(svg(`<g transform="${transform}">${arc}</g>`))
      expect(only?.kind).toBe('arc')
      const scale = transform === 'scale(2)' ? 2 : 1
      expect(only && lengthOf(only)).toBeCloseTo(scale * 20 * Math.PI, 6)
    }
    const flat = pieces(svg(`<g transform="scale(1 0.5)">${arc}</g>`))
    expect(flat.every((p) => p.kind === 'cubic')).toBe(true)
    // Ramanujan's second formula for half an ellipse of 20 and 10.
    const h = (10 / 30) ** 2
    const half = ((Math.PI * 30) / 2) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)))
    expect(flat.reduce((s, p) => s + lengthOf(p), 0)).toBeCloseTo(half, 1)
  })

  test('which way an arc goes: the same side and the same size as the drawing says', () => {
    const top = (d: string): number => {
      const boxes = pieces(svg(`<path d="${d}"/><path d="M0 99h1"/>`)).map(boundsOf)
      return Math.max(...boxes.map((b) => b.max.y))
    }
    // Above the chord at y 50, which is 49 above the line at y 99, or below it; a quarter turn or three.
    expect(top('M10 50 A20 20 0 0 1 50 50')).toBeCloseTo(49 + 20, 6)
    expect(top('M10 50 A20 20 0 0 0 50 50')).toBeCloseTo(49, 6)
    const r = Math.hypot(10, 10)
    expect(top(`M10 50 A${r} ${r} 0 0 1 30 50`)).toBeCloseTo(49 + r - 10, 5)
    expect(top(`M10 50 A${r} ${r} 0 1 1 30 50`)).toBeCloseTo(49 + r + 10, 5)
  })

  test('parabolas, rectangles, circles, polygons and what a group hides', () => {
    expect(pieces(svg('<path d="M0 50 Q20 10 40 50 T80 50"/>')).map((p) => p.kind)).toEqual([
      'cubic',
      'cubic',
    ])
    expect(pieces(svg('<rect x="5" y="5" width="30" height="10"/>'))).toHaveLength(4)
    expect(pieces(svg('<polygon points="0,0 10,0 10,10"/>'))).toHaveLength(3)
    expect(pieces(svg('<polyline points="0 0 10 0 10 10"/>'))).toHaveLength(2)
    const ring = drawnIn(svg('<circle cx="30" cy="30" r="8"/>'))
    expect(sketchOf(ring).entities.map((e) => e.kind)).toEqual(['circle'])
    expect(
      code(svg('<defs><path d="M0 0h9"/></defs><g display="none"><path d="M0 0h9"/></g>')),
    ).toBe('outline.empty')
    const dashed = read(
      svg('<g style="stroke-dasharray: 4 2"><path d="M0 0h9"/></g><path d="M0 5h9"/>'),
    )
    expect(dashed.runs.map((r) => r.role)).toEqual(['construction', 'outline'])
  })

  test('of a standing part what goes up is along the axis', () => {
    const { runs } = read(
      svg('<path d="M10 90 H30 V20"/>', 'width="100mm" viewBox="0 0 100 100"'),
      'standing',
    )
    const ends = runs[0]?.pieces.map((p) => [p.to.x, p.to.y]) ?? []
    expect((ends[1]?.[0] ?? 0) - (ends[0]?.[0] ?? 0)).toBeCloseTo(70, 9)
    expect(ends[1]?.[1]).toBe(ends[0]?.[1])
  })

  test.each([
    ['no words at all', '', 'outline.kind'],
    ['another kind of document', '<html><body>svg</body></html>', 'outline.kind'],
    ['words that grow', '<!DOCTYPE svg [<!ENTITY a "aa">]><svg>&a;</svg>', 'outline.kind'],
    ['nothing but text', svg('<text>hello</text>'), 'outline.empty'],
    ['a path that is none', svg('<path d="nonsense"/>'), 'outline.empty'],
    ['numbers that are none', svg('<path d="M0 0 L1e999 4"/>'), 'outline.empty'],
    ['a path of no length', svg('<path d="M5 5 L5 5 Z"/>'), 'outline.empty'],
    ['too many', svg(`<path d="M0 0 ${'l1 1 '.repeat(2001)}"/>`), 'outline.many'],
    ['too large', ' '.repeat(8_000_001), 'outline.large'],
  ])('%s is refused with a reason', (_, text, wanted) => {
    expect(code(text)).toBe(wanted)
  })
})

describe('the pieces are drawn into a profile', () => {
  test('as one outline that turns to a solid, with what runs straight held', () => {
    const part = drawnIn(svg('<path d="M0 80 V60 H30 A10 10 0 0 1 40 70 V80 Z"/>'))
    const sketch = sketchOf(part)
    expect(sketch.points).toHaveLength(6)
    const kinds = sketch.constraints.map((c) => c.kind)
    expect(kinds.filter((k) => k === 'radial')).toHaveLength(2)
    expect(kinds.filter((k) => k === 'axial').length).toBeGreaterThanOrEqual(1)
    expect(kinds).toContain('tangent')
    const turned = must(part, addRevolve(SKETCH))
    // A cylinder of 40 by 20 without what lies outside a quarter round of 10 about its edge.
    const volume = evaluate(turned).bodies[0]?.solid?.volume ?? 0
    const corner = 100 - 25 * Math.PI
    const centroid = 10 + (10 * 10 * 5 - 25 * Math.PI * ((4 * 10) / (3 * Math.PI))) / corner
    expect(volume).toBeCloseTo(Math.PI * 400 * 40 - 2 * Math.PI * centroid * corner, 6)
  })

  test('is refused where nothing is left of it, and leaves the part as it was', () => {
    const part = createPart({ name: 'Nozzle' })
    const far = perform(part, drawOutline(SKETCH, read(svg('<path d="M0 0 h1e9"/>')).runs))
    expect(far.ok).toBe(false)
  })

  test('a loop of one curve, and a smooth ring of several, are drawn whole', () => {
    for (const d of [
      'M10 -20 C40 -60 -20 -60 10 -20',
      'M10 -20 C40 -20 40 -60 10 -60 S-20 -20 10 -20',
    ]) {
      const text = svg(`<path d="${d}"/>`)
      const part = drawnIn(text)
      expect(sketchOf(part).entities).toHaveLength(2)
      expect(off(pieces(text), pieceList(part))).toBeLessThan(1e-6)
      expect(pieceList(part).at(-1)?.to).toEqual(pieceList(part)[0]?.from)
    }
  })

  test('a curve that was one spline comes back as one, in its place', () => {
    const at = (x: number, y: number) => ({ at: { x, y } })
    const curve = must(
      createPart({ name: 'Vase' }),
      drawCurve({
        ...{ sketch: SKETCH, way: 'through', role: 'outline', square: false },
        places: [at(0, 20), at(20, 34), at(50, 38), at(80, 18), at(100, 24)],
      }),
    )
    for (const lie of ['lying', 'standing'] as const) {
      const text = writeProfileSvg(sketchOf(curve), lie) ?? ''
      const again = drawnIn(text, lie)
      expect(sketchOf(again).entities.map((e) => e.kind)).toEqual(['spline'])
      expect(off(pieceList(again), pieceList(curve))).toBeLessThan(1e-5)
      expect(off(pieceList(curve), pieceList(again))).toBeLessThan(1e-5)
    }
  })

  test('property: what is saved is read as it was, lines, arcs and free curves, lying and standing', () => {
    const step = fc.record({
      kind: fc.constantFrom('L', 'A', 'C'),
      dx: fc.integer({ min: 3, max: 15 }),
      dy: fc.integer({ min: -8, max: 8 }),
      bow: fc.integer({ min: -6, max: 6 }),
    })
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 6 }), fc.boolean(), (steps, stands) => {
        let [x, y] = [0, -60]
        const d = steps.map(({ kind, dx, dy, bow }) => {
          const [a, b] = [x, y]
          x += dx
          y += dy
          if (kind === 'L') return `L${x} ${y}`
          const r = Math.hypot(dx, dy) * 0.8
          if (kind === 'A') return `A${r} ${r} 0 0 ${bow > 0 ? 1 : 0} ${x} ${y}`
          return `C${a + 1} ${b - bow - 1} ${x - 1} ${y + bow} ${x} ${y}`
        })
        const lie = stands ? 'standing' : 'lying'
        const first = drawnIn(
          svg(`<path d="M0 -60${d.join('')}"/>`, 'width="100mm" viewBox="0 -100 100 100"'),
        )
        const text = writeProfileSvg(sketchOf(first), lie) ?? ''
        const again = drawnIn(text, lie)
        expect(off(pieceList(again), pieceList(first))).toBeLessThan(2e-3)
        expect(off(pieceList(first), pieceList(again))).toBeLessThan(2e-3)
        expect(writeProfileSvg(sketchOf(again), lie)?.length).toBeGreaterThan(100)
      }),
      { numRuns: 60 },
    )
  })

  test('nothing drawn is nothing to save', () => {
    expect(writeProfileSvg(sketchOf(createPart({ name: 'Empty' })), 'lying')).toBeUndefined()
  })
})
