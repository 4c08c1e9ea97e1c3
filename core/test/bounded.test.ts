import { describe, expect, it } from 'vitest'
import type { Entity, Size, Sketch } from '../src'
import { attempt } from '../src/solver/attempt'
import { fromValues } from '../src/solver/explain'
import { fromOtherStarts } from '../src/solver/starts'
import { solve } from '../src/solver/solve'
import { isSpent, workOf } from '../src/solver/work'
import { randomFrom } from '../../fuzz/random'
import { displaced, wellPosed } from '../../fuzz/sketches/make'

/** A triangle of lines with lengths, and beside it a line of its own. */
function triangle(lengths: readonly number[]): {
  readonly sketch: Sketch
  readonly values: ReadonlyMap<string, number>
} {
  const points = [
    { id: 'A', x: 0, y: 5 },
    { id: 'B', x: 20, y: 6 },
    { id: 'C', x: 8, y: 18 },
    { id: 'D', x: 30, y: 20 },
  ]
  const sides = ['AB', 'BC', 'CA', 'CD']
  const entities = sides.map(([from = '', to = ''], i): Entity => {
    return { id: `e${i}`, kind: 'line', from, to, role: 'outline' }
  })
  const sizes = entities.map((e, i) => {
    return { id: `s${i}`, kind: 'length', line: e.id, name: `l${i}`, formula: '', reference: false }
  }) as Size[]
  const values = new Map(sizes.map((s, i) => [s.id, lengths[i] ?? 0]))
  const sketch = { id: 's', name: 'A', plane: 'half', nextId: 99, constraints: [] } as const
  return { sketch: { ...sketch, points, entities, sizes }, values }
}

describe('a search is bounded by work, not by time', () => {
  const impossible = triangle([10, 12, 40, 15])

  it('tells the sides that cannot close, and none besides', () => {
    const { solved, disagreements } = solve(impossible.sketch, impossible.values)
    expect(solved).toBe(false)
    expect(disagreements.map((d) => [...d.members].sort())).toEqual([['s0', 's1', 's2']])
  })

  it('tells more than need be, never less, once it may not try any more', () => {
    const { sketch, values } = impossible
    const failed = attempt(sketch, values, { detours: true })
    const told = fromValues(sketch, failed, { solves: () => true, isOver: () => true })
    expect(told.kind).toBe('conflict')
    expect(told.members).toEqual(expect.arrayContaining(['s0', 's1', 's2']))
  })

  it('looks from no other start when nothing is left to do', () => {
    const { sketch, values } = impossible
    const first = attempt(sketch, values, { detours: true })
    const work = workOf(-1)
    expect(fromOtherStarts(sketch, values, first, { loose: true, work })).toBe(first)
    expect(work.left).toBe(-1)
  })

  it('counts what it does, and does not go on far beyond what it may', () => {
    const random = randomFrom(31)
    const made = wellPosed(random, 30, true)
    const sketch = displaced(made, 0.1, random)
    const values = new Map([...made.values].map(([id, v]) => [id, v * random.between(0.7, 1.4)]))
    const first = attempt(sketch, values, { detours: false })
    expect(first.solved).toBe(false)
    const most = 1e6
    const work = workOf(most)
    expect(fromOtherStarts(sketch, values, first, { loose: true, work }).solved).toBe(false)
    expect(isSpent(work)).toBe(true)
    expect(work.left).toBeGreaterThan(-most)
  })

  it('gives a reason for a large rough sketch that has no place', () => {
    const random = randomFrom(31)
    const made = wellPosed(random, 30, true)
    const sketch = displaced(made, 0.1, random)
    const values = new Map([...made.values].map(([id, v]) => [id, v * random.between(0.7, 1.4)]))
    const { solved, disagreements } = solve(sketch, values)
    expect(solved).toBe(false)
    expect(disagreements.some((d) => d.kind === 'conflict' && d.members.length > 1)).toBe(true)
  })
})
