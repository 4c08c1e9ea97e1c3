import { describe, expect, it } from 'vitest'
import type { Entity, Size, Sketch } from '../src'
import { evaluate } from '../src/route'
import { mergeVertices } from '../src/section/engine/arrangement'
import { attempt } from '../src/solver/attempt'
import { fromValues } from '../src/solver/explain'
import { fromOtherStarts } from '../src/solver/starts'
import { solve } from '../src/solver/solve'
import { isSpent, workOf } from '../src/solver/work'
import { randomFrom } from '../../fuzz/random'
import { demoNames, demoPart } from './support/demo'
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

describe('what has no end is refused, and never waited for', () => {
  const drilled = demoNames
    .map((n) => demoPart(n))
    .find((p) => p.route.some((s) => s.kind === 'holes'))

  it.each(['1e-12', '0.000001'])('a tip of %s° ends the step with a mend', (tipAngle) => {
    if (!drilled) throw new Error('no demo part has holes')
    const route = drilled.route.map((s) =>
      s.kind === 'holes'
        ? { ...s, reach: 'depth' as const, depth: '2', tip: 'cone' as const, tipAngle }
        : s,
    )
    const failed = evaluate({ ...drilled, route }).steps.filter((s) => s.status === 'failed')
    expect(failed[0]?.problem?.message).toContain('its cone has no end')
    expect(failed[0]?.problem?.mend).toBe('Type a larger angle.')
  })

  it('vertices so far off that numbers cannot be counted up are told apart', () => {
    const { indexOf, vertices } = mergeVertices(8)
    const far = [1e14, 1e16, 1e300].map((x) => indexOf({ x, y: 3 }))
    expect(far).toEqual([0, 1, 2])
    expect(indexOf({ x: 1e16, y: 3 })).toBe(1)
    expect(vertices).toHaveLength(3)
  })

  it('lines are not level because their ends are out of all reach', () => {
    const { sketch } = triangle([0, 0, 0, 0])
    const angle = { id: 'a', kind: 'angle', line: 'e0', to: 'axis', reversed: false } as const
    const heights = ['A', 'B'].map((p) => ({ id: `d${p}`, kind: 'diameter', point: p }) as const)
    const sizes = [angle, ...heights].map((s) => {
      return { ...s, name: s.id, formula: '', reference: false }
    }) as Size[]
    // Ends at unlike heights, and an angle that is nought all but a rounding.
    const values = new Map([
      ['a', 1e-14],
      ['dA', 10],
      ['dB', 14],
    ])
    const { solved, positions } = solve({ ...sketch, sizes }, values)
    expect(solved).toBe(false)
    for (const { x, y } of positions.values()) expect(Math.hypot(x, y)).toBeLessThan(100)
  })
})
