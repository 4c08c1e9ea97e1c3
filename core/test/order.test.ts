import { expect, test } from 'vitest'
import { randomFrom, type Random } from '../../fuzz/random'
import { wellPosed } from '../../fuzz/sketches/make'
import type { Constraint, Sketch } from '../src'
import { buildSystem } from '../src/solver/system'

function shuffled<T>(all: readonly T[], random: Random): T[] {
  return all
    .map((item) => [random(), item] as const)
    .sort(([a], [b]) => a - b)
    .map(([, item]) => item)
}

/** So many unknowns are left, in whatever order things were said. */
function expectOne(sketch: Sketch, values: ReadonlyMap<string, number>, random: Random): void {
  const { unknowns } = buildSystem(sketch, values)
  for (let k = 0; k < 6; k++) {
    const other = {
      ...sketch,
      constraints: shuffled(sketch.constraints, random),
      sizes: shuffled(sketch.sizes, random),
    }
    expect(buildSystem(other, values).unknowns).toBe(unknowns)
  }
}

test('what is merged does not hang on the order of constraints and sizes', () => {
  const random = randomFrom(31)
  for (let i = 0; i < 150; i++) {
    const { sketch, values } = wellPosed(random, 2 + random.below(8))
    expectOne(sketch, values, random)
  }
})

test('nor where a mirror line comes to be level by what is said after it', () => {
  const at = (id: string, x: number, y: number) => ({ id, x, y })
  const points = [at('a', 1, 9), at('b', 7, 9.5), at('c', 4, 2), at('d', 4.2, 20), at('e', 4, 30)]
  const line = (id: string, from: string, to: string) =>
    ({ id, kind: 'line', from, to, role: 'centre' }) as const
  const constraints: Constraint[] = [
    { id: 'k1', kind: 'symmetric', a: 'a', b: 'b', about: 'l1' },
    { id: 'k2', kind: 'parallel', line: 'l1', to: 'l2' },
    { id: 'k5', kind: 'coincident', a: 'd', b: 'e' },
    { id: 'k6', kind: 'midpoint', point: 'd', line: 'l3' },
    { id: 'k3', kind: 'radial', line: 'l2' },
    { id: 'k4', kind: 'axial', line: 'l3' },
  ]
  const sketch: Sketch = {
    ...{ id: 's', name: 'A', plane: 'half', nextId: 99, points, constraints, sizes: [] },
    entities: [line('l1', 'c', 'd'), line('l2', 'c', 'e'), line('l3', 'a', 'b')],
  }
  expectOne(sketch, new Map(), randomFrom(7))
})
