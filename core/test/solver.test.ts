import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  createRandom,
  entityMap,
  lineEnds,
  linesOf,
  locator,
  measureSize,
  solve,
  startDrag,
  withPoints,
  withPositions,
  type Constraint,
  type Size,
  type Sketch,
  type Solution,
} from '../src'
import {
  angleEquation,
  gradientFor,
  advance,
  arcLength,
  offset,
  separation,
  sumEquation,
  weightedEquation,
} from '../src/equations/equations'
import { analyseRank } from '../src/solver/rank'
import { slantedSketch, steppedSketch } from './support/chains'
import { freedomsByDifferences } from './support/nullSpace'

const stepsOf = fc.array(
  fc.record({
    diameter: fc.double({ min: 4, max: 90, noNaN: true }),
    length: fc.double({ min: 2, max: 60, noNaN: true }),
  }),
  { minLength: 1, maxLength: 12 },
)

function shortestLine(sketch: Sketch): number {
  const [lines, locate] = [entityMap(sketch), locator(sketch)]
  return Math.min(
    ...linesOf(sketch).map((l) => {
      const [a, b] = lineEnds(lines, locate, l.id)
      return Math.hypot(b.x - a.x, b.y - a.y)
    }),
  )
}

/** How far the sizes and constraints are from holding, in mm. */
function misfit(sketch: Sketch, values: ReadonlyMap<string, number>, solution: Solution): number {
  const moved = withPositions(sketch, solution.positions)
  const lines = entityMap(moved)
  const at = locator(moved)
  const sizes = moved.sizes
    .filter((s) => !s.reference && values.has(s.id))
    .map((s) => Math.abs(measureSize(s, lines, at) - (values.get(s.id) ?? 0)))
  const ties = moved.constraints.map((c) => {
    if (c.kind === 'coincident') return Math.hypot(at(c.a).x - at(c.b).x, at(c.a).y - at(c.b).y)
    if (c.kind === 'fixed') return Math.hypot(at(c.point).x - c.x, at(c.point).y - c.y)
    if (c.kind === 'pointOn') {
      const [a, b] = lineEnds(lines, at, c.curve)
      const p = at(c.point)
      return (
        Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) /
        Math.hypot(b.x - a.x, b.y - a.y)
      )
    }
    if (c.kind !== 'axial' && c.kind !== 'radial') return 0
    const [a, b] = lineEnds(lines, at, c.line)
    return Math.abs(c.kind === 'axial' ? b.y - a.y : b.x - a.x)
  })
  return Math.max(0, ...sizes, ...ties)
}

const size = (item: Partial<Size> & { id: string; kind: Size['kind'] }): Size =>
  ({ name: item.id, formula: '', reference: false, ...item }) as Size

/** A triangle on the axis: two points on it, one above. */
function triangle(constraints: Constraint[], sizes: Size[]): Sketch {
  const line = (id: string, from: string, to: string) =>
    ({ id, kind: 'line', from, to, role: 'outline' }) as const
  return {
    id: 's',
    name: 'A',
    plane: 'half',
    nextId: 100,
    points: [
      { id: 'a', x: 0, y: 0 },
      { id: 'b', x: 10, y: 0 },
      { id: 'c', x: 4, y: 5 },
    ],
    entities: [line('ab', 'a', 'b'), line('bc', 'b', 'c'), line('ca', 'c', 'a')],
    constraints,
    sizes,
  }
}

const onOrigin: Constraint = { id: 'start', kind: 'coincident', a: 'a', b: 'origin' }
const baseOnAxis: Constraint = { id: 'base', kind: 'pointOn', point: 'b', curve: 'axis' }

describe('solving', () => {
  it('brings any stepped shaft to its sizes with no freedom left', () => {
    fc.assert(
      fc.property(stepsOf, fc.integer(), (steps, start) => {
        const { sketch, values } = steppedSketch(steps, 1, createRandom(start))
        const solution = solve(sketch, values)
        expect(solution.solved).toBe(true)
        expect(solution.freedoms).toBe(0)
        expect(solution.disagreements).toEqual([])
        expect(misfit(sketch, values, solution)).toBeLessThan(1e-9)
      }),
    )
  })

  it('brings slanted chains with lengths and angles to their shape', () => {
    const lines = fc.array(
      fc.record({
        length: fc.double({ min: 3, max: 40, noNaN: true }),
        angle: fc.double({ min: 0.3, max: 1.2, noNaN: true }),
      }),
      { minLength: 1, maxLength: 10 },
    )
    fc.assert(
      fc.property(lines, fc.integer(), (chain, start) => {
        const { sketch, values } = slantedSketch(chain, 0.3, createRandom(start))
        const solution = solve(sketch, values)
        expect(solution.solved).toBe(true)
        expect(solution.freedoms).toBe(0)
        expect(misfit(sketch, values, solution)).toBeLessThan(1e-9)
      }),
    )
  })

  it('finds as many freedoms as the null space has, for any mix of constraints and sizes', () => {
    fc.assert(
      fc.property(stepsOf, fc.integer(), fc.integer(), (steps, start, choice) => {
        const full = steppedSketch(steps, 0, createRandom(start))
        const extra = slantedSketch(
          [
            { length: 12, angle: 0.7 },
            { length: 9, angle: 0.4 },
          ],
          0,
        )
        const random = createRandom(choice)
        const pick = <T>(items: readonly T[]): T[] => items.filter(() => random() < 0.6)
        const rename = (id: string): string => `x${id}`
        const sketch: Sketch = {
          ...full.sketch,
          points: [
            ...full.sketch.points,
            ...extra.sketch.points.map((p) => ({ ...p, id: rename(p.id), y: p.y + 100 })),
          ],
          entities: [
            ...full.sketch.entities,
            ...extra.sketch.entities.map((e) => ({ ...withPoints(e, rename), id: rename(e.id) })),
          ],
          constraints: pick([
            ...full.sketch.constraints,
            { id: 'on', kind: 'pointOn' as const, point: 'p1', curve: rename('e0') },
            { id: 'par', kind: 'parallel' as const, line: rename('e0'), to: rename('e1') },
            { id: 'mid', kind: 'midpoint' as const, point: rename('p0'), line: 'e1' },
            { id: 'same', kind: 'equal' as const, curve: rename('e1'), to: 'e1' },
            {
              id: 'level',
              kind: 'inLine' as const,
              a: rename('p2'),
              b: 'p1',
              along: 'radial' as const,
            },
          ]),
          sizes: pick([
            ...full.sketch.sizes,
            ...extra.sketch.sizes.map((s): Size => {
              const line = 'line' in s ? rename(s.line) : ''
              return { ...s, id: rename(s.id), line } as Size
            }),
          ]),
        }
        const values = new Map([
          ...full.values,
          ...[...extra.values].map(([k, v]) => [rename(k), v] as const),
        ])
        const solution = solve(sketch, values)
        expect([...solution.positions.values()].every((p) => Number.isFinite(p.x + p.y))).toBe(true)
        if (!solution.solved) return
        const settled = withPositions(sketch, solution.positions)
        // A line without length has no direction, and derivatives there are no generic ones.
        if (shortestLine(settled) < 1e-3) return
        expect(solution.freedoms).toBe(freedomsByDifferences(settled))
        const still = [...solution.pointFreedoms.values()].every((f) => f === 0)
        expect(still).toBe(solution.freedoms === 0)
      }),
      { numRuns: 150 },
    )
  })

  it('keeps the shape it is given when sizes change a lot', () => {
    const { sketch, values } = steppedSketch(
      [
        { diameter: 20, length: 24 },
        { diameter: 44, length: 8 },
        { diameter: 16, length: 30 },
      ],
      0,
    )
    const solution = solve(sketch, new Map([...values, ['l1', 200], ['d1', 300]]))
    expect(solution.solved).toBe(true)
    const radii = sketch.points.map((p) => solution.positions.get(p.id)?.y ?? 0)
    expect(radii.every((r) => r >= 0)).toBe(true)
    const xs = sketch.points.map((p) => solution.positions.get(p.id)?.x ?? 0)
    expect(xs.every((x, i) => i === 0 || x >= (xs[i - 1] ?? 0) - 1e-9)).toBe(true)
  })
})

describe('disagreements', () => {
  it('names two diameters of one land as the smallest set that disagrees', () => {
    const { sketch, values } = steppedSketch([
      { diameter: 20, length: 24 },
      { diameter: 30, length: 9 },
    ])
    const second = size({ id: 'again', kind: 'diameter', point: 'p2' })
    const over = { ...sketch, sizes: [...sketch.sizes, second] }
    const wrong = solve(over, new Map([...values, ['again', 22]]))
    expect(wrong.solved).toBe(false)
    expect(wrong.disagreements).toHaveLength(1)
    // The diameters sit on two ends of the land, which its being axial ties together.
    expect(new Set(wrong.disagreements[0]?.members)).toEqual(new Set(['d0', 'again', 'c2']))
    expect(wrong.positions.get('p2')).toEqual({ x: sketch.points[2]?.x, y: sketch.points[2]?.y })
    const twice = solve(over, new Map([...values, ['again', 20]]))
    expect(twice.solved).toBe(true)
    expect(twice.disagreements.map((d) => d.kind)).toEqual(['redundant'])
  })

  it('tells sides that cannot close from sides that merely repeat', () => {
    const sizes = [
      size({ id: 'l1', kind: 'length', line: 'ab' }),
      size({ id: 'l2', kind: 'length', line: 'bc' }),
      size({ id: 'l3', kind: 'length', line: 'ca' }),
    ]
    const sketch = triangle([onOrigin, baseOnAxis], sizes)
    const good = solve(
      sketch,
      new Map([
        ['l1', 10],
        ['l2', 8],
        ['l3', 7],
      ]),
    )
    expect(good.solved).toBe(true)
    expect(good.freedoms).toBe(0)
    const apart = solve(
      sketch,
      new Map([
        ['l1', 30],
        ['l2', 8],
        ['l3', 7],
      ]),
    )
    expect(apart.solved).toBe(false)
    expect(apart.positions.get('c')).toEqual({ x: 4, y: 5 })
    const members = apart.disagreements.flatMap((d) => d.members)
    expect(members).toEqual(expect.arrayContaining(['l1', 'l2', 'l3']))
  })

  it('sees that three angles of a triangle are one too many', () => {
    const angle = (id: string, line: string, to: string, reversed: boolean): Size =>
      size({ id, kind: 'angle', line, to, reversed } as Size)
    const sizes = [
      angle('w1', 'ab', 'ca', true),
      angle('w2', 'bc', 'ab', true),
      angle('w3', 'ca', 'bc', true),
    ]
    const sketch = triangle([onOrigin], sizes)
    const lines = entityMap(sketch)
    const now = new Map(sizes.map((s) => [s.id, measureSize(s, lines, locator(sketch))]))
    const even = solve(sketch, now)
    expect(even.disagreements.map((d) => d.kind)).toEqual(['redundant'])
    expect(new Set(even.disagreements[0]?.members)).toEqual(new Set(['w1', 'w2', 'w3']))
    const odd = solve(sketch, new Map([...now, ['w1', (now.get('w1') ?? 0) + 0.2]]))
    expect(odd.disagreements.map((d) => d.kind)).toEqual(['conflict'])
    expect(new Set(odd.disagreements[0]?.members)).toEqual(new Set(['w1', 'w2', 'w3']))
  })
})

describe('dragging', () => {
  it('moves only what the dragged point is tied to, and leads back to where it began', () => {
    const { sketch } = steppedSketch([
      { diameter: 20, length: 24 },
      { diameter: 44, length: 8 },
      { diameter: 16, length: 30 },
    ])
    const free = { ...sketch, sizes: [] }
    const drag = startDrag(free, new Map(), ['p3'])
    const away = drag.move({ x: 3, y: 5 })
    const moved = free.points.filter((p) => {
      const to = away.get(p.id)
      return Math.hypot((to?.x ?? 0) - p.x, (to?.y ?? 0) - p.y) > 1e-9
    })
    // The shoulder's two ends go along, and the land's other end rises with it; nothing else does.
    expect(moved.map((p) => p.id).sort()).toEqual(['p2', 'p3', 'p4'])
    expect(away.get('p3')).toEqual({ x: 27, y: 27 })
    const back = drag.move({ x: 0, y: 0 })
    free.points.forEach((p) => expect(back.get(p.id)).toEqual({ x: p.x, y: p.y }))
  })

  it('keeps lengths while a slanted chain is pulled, and follows the pointer', () => {
    const { sketch, values } = slantedSketch(
      Array.from({ length: 12 }, (_, i) => ({ length: 10, angle: 0.9 * Math.sin(i) })),
    )
    const lengths = { ...sketch, sizes: sketch.sizes.filter((s) => s.kind === 'length') }
    const drag = startDrag(lengths, values, ['p6'])
    const start = sketch.points[6]
    const to = drag.move({ x: -4, y: 6 })
    expect(
      Math.hypot(
        (to.get('p6')?.x ?? 0) - (start?.x ?? 0) + 4,
        (to.get('p6')?.y ?? 0) - (start?.y ?? 0) - 6,
      ),
    ).toBeLessThan(0.01)
    for (let i = 0; i < 12; i++) {
      const [a, b] = [to.get(`p${i}`), to.get(`p${i + 1}`)]
      expect(Math.hypot((b?.x ?? 0) - (a?.x ?? 0), (b?.y ?? 0) - (a?.y ?? 0))).toBeCloseTo(10, 9)
    }
  })

  it('says so when nothing dragged can move', () => {
    const { sketch, values } = steppedSketch([{ diameter: 20, length: 24 }])
    const drag = startDrag(sketch, values, ['p1'])
    expect(drag.movable).toBe(false)
    expect(drag.move({ x: 5, y: 5 }).get('p1')).toEqual({ x: 0, y: 10 })
  })
})

describe('equations', () => {
  it('have the derivatives that differences show', () => {
    const equations = [
      sumEquation('l', [[1, separation(0, 1)]], 5),
      sumEquation('p', [[1, offset(2, 0, 1)]]),
      angleEquation('b', [0, 1], [2, 3], -0.4, 10),
      sumEquation('e', [
        [1, separation(0, 1)],
        [-1, separation(2, 3)],
      ]),
      weightedEquation('m', [
        [0, 2],
        [2, -1],
        [5, -1],
      ]),
      sumEquation('s', [
        [1, offset(0, 2, 3)],
        [1, offset(1, 2, 3)],
      ]),
      sumEquation('t', [[-2, advance(0, 1, 2, 3)]]),
      sumEquation('u', [[1, arcLength(0, 1, 2, true)]], 9),
      sumEquation('v', [[0.5, arcLength(3, 1, 2, false)]], 9),
    ]
    const place = fc.array(fc.double({ min: -20, max: 20, noNaN: true }), {
      minLength: 8,
      maxLength: 8,
    })
    fc.assert(
      fc.property(place, (numbers) => {
        const at = Float64Array.from(numbers, (v, i) => v + 3 * i)
        for (const equation of equations) {
          const gradient = gradientFor(equations)
          equation.evaluate(at, gradient)
          const slopes = new Map<number, number>()
          equation.coordinates.forEach((c, k) => {
            slopes.set(c, (slopes.get(c) ?? 0) + (gradient[k] ?? 0))
          })
          equation.coordinates.forEach((c) => {
            const value = (by: number): number => {
              const moved = at.slice()
              moved[c] = (moved[c] ?? 0) + by
              return equation.evaluate(moved, gradientFor(equations))
            }
            const slope = (value(1e-6) - value(-1e-6)) / 2e-6
            // A step across the cut of the angle function shows as a jump, not a slope.
            if (Math.abs(slope) < 1e4) expect(slopes.get(c)).toBeCloseTo(slope, 3)
          })
        }
      }),
      { numRuns: 200 },
    )
  })

  it('ranks rows and names what a dependent row follows from', () => {
    const row = (...entries: number[]) => ({ columns: entries.map((_, i) => i), entries })
    const report = analyseRank(
      [row(1, 2, 0, 1), row(0, 1, 1, 0), row(1, 4, 2, 1), row(0, 0, 0, 3)],
      4,
    )
    expect(report.independent).toHaveLength(3)
    expect(report.dependent).toHaveLength(1)
    const told = report.dependent[0]
    expect([told?.row, ...(told?.from ?? [])].sort()).toEqual([0, 1, 2])
    const vector = report.nullVector(() => 1)
    expect((vector[1] ?? 0) + (vector[2] ?? 0)).toBeCloseTo(0, 12)
  })
})
