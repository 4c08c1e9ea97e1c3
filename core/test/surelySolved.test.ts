import { describe, expect, it } from 'vitest'
import {
  solve,
  withPositions,
  type Constraint,
  type Entity,
  type Size,
  type Sketch,
  type SketchPoint,
} from '../src'
import { residuals } from '../../fuzz/sketches/oracle'
import { steppedSketch } from './support/chains'

const line = (
  id: string,
  from: string,
  to: string,
  role: 'outline' | 'centre' = 'outline',
): Entity => ({
  id,
  kind: 'line',
  from,
  to,
  role,
})
const size = (id: string, rest: object): Size =>
  ({ id, name: id, formula: '', reference: false, ...rest }) as Size
const point = (id: string, x: number, y: number): SketchPoint => ({ id, x, y })
const sketchOf = (
  points: SketchPoint[],
  entities: Entity[],
  constraints: Constraint[],
  sizes: Size[],
): Sketch => ({
  id: 's',
  name: 'A',
  plane: 'half',
  nextId: 99,
  points,
  entities,
  constraints,
  sizes,
})

const worst = (
  sketch: Sketch,
  values: Map<string, number>,
  places: ReadonlyMap<string, { x: number; y: number }>,
): number => Math.max(...residuals(sketch, values, places).map((r) => Math.abs(r.off)))

describe('what is told solved', () => {
  const points = [
    point('A', 0, 10),
    point('B', 6, 11),
    point('m0', 3, 2),
    point('m1', 4, 12),
    point('n0', 9, 2),
    point('n1', 11, 9),
  ]
  const entities = [line('m', 'm0', 'm1'), line('n', 'n0', 'n1')]
  const constraints: Constraint[] = [
    { id: 'c0', kind: 'inLine', a: 'A', b: 'B', along: 'axial' },
    { id: 'c1', kind: 'symmetric', a: 'A', b: 'B', about: 'm' },
    { id: 'c2', kind: 'parallel', line: 'm', to: 'n' },
  ]
  it.each([
    ['a length beside a mirror that level points make upright', { len: 8 }],
    ['the same with one end on a diameter', { len: 8, dia: 4 }],
  ])('holds: %s', (_, wanted) => {
    const sizes = [
      size('len', { kind: 'length', line: 'n' }),
      size('dia', { kind: 'diameter', point: 'n0' }),
    ]
    const values = new Map(Object.entries(wanted))
    const sketch = sketchOf(points, entities, constraints, sizes)
    const solution = solve(sketch, values)
    expect(solution.solved).toBe(true)
    expect(worst(sketch, values, solution.positions)).toBeLessThan(1e-9)
    const again = solve(withPositions(sketch, solution.positions), values)
    again.positions.forEach((p, id) => {
      const before = solution.positions.get(id)
      expect(Math.hypot(p.x - (before?.x ?? 0), p.y - (before?.y ?? 0))).toBeLessThan(1e-9)
    })
  })
})

describe('a vee groove with equal flanks mirrored about a centre line', () => {
  it.each([
    [0, 0, false],
    [7.9, 12.2, false],
    [7.9, 12.2, true],
    [40, 20, false],
  ])('has its freedoms and takes other widths at %f, %f', (dx, dy, far) => {
    const at = (id: string, x: number, y: number): SketchPoint => point(id, x + dx, y + dy)
    const points = [
      at('a', -2.5, 2.8),
      at('b', 0, 0),
      at('c', 2.5, 2.8),
      at('m0', 0, -2),
      at('m1', 0, 4.8),
    ]
    const sketch = sketchOf(
      far ? [...points, point('z', 30, 0)] : points,
      [line('e3', 'a', 'b'), line('e4', 'b', 'c'), line('m', 'm0', 'm1', 'centre')],
      [
        { id: 'equal', kind: 'equal', curve: 'e3', to: 'e4' },
        { id: 'mirror', kind: 'symmetric', a: 'a', b: 'c', about: 'm' },
      ],
      [size('span', { kind: 'span', point: 'a', about: 'm' })],
    )
    for (const span of [5, 5.5, 6, 8]) {
      const values = new Map([['span', span]])
      const solution = solve(sketch, values)
      expect(solution.solved).toBe(true)
      expect(solution.freedoms).toBe(far ? 8 : 6)
      expect(solution.disagreements).toEqual([])
      expect(worst(sketch, values, solution.positions)).toBeLessThan(1e-9)
    }
  })
})

describe('contradicting distances along a stepped shaft', () => {
  const { sketch, values } = steppedSketch(
    Array.from({ length: 12 }, (_, i) => ({ diameter: 20 + (i % 3) * 8, length: 5 })),
  )
  it.each([1, 3])('%i of them are told, each by all that fixes its ends', (many) => {
    const more = Array.from({ length: many }, (_, i) =>
      size(`x${i}`, { kind: 'distance', a: 'p0', b: `p${24 - 2 * i}` }),
    )
    const wanted = new Map([...values, ...more.map((s, i) => [s.id, 80 + 3 * i] as const)])
    const solution = solve({ ...sketch, sizes: [...sketch.sizes, ...more] }, wanted)
    expect(solution.solved).toBe(false)
    expect(solution.disagreements.map((d) => d.kind)).toEqual(more.map(() => 'conflict'))
    for (const { members } of solution.disagreements) {
      expect(members.some((m) => m.startsWith('x'))).toBe(true)
      const only: Sketch = {
        ...sketch,
        constraints: sketch.constraints.filter((c) => members.includes(c.id)),
        sizes: [...sketch.sizes, ...more].filter((s) => members.includes(s.id)),
      }
      expect(solve(only, wanted).solved).toBe(false)
    }
  })
})
