import { describe, expect, it } from 'vitest'
import { startDrag, type Entity, type Sketch, type Vec } from '../src'
import { keepsTurns } from '../src/solver/turns'

type Places = Readonly<Record<string, readonly [number, number]>>

const role = 'outline' as const
const line = (from: string, to: string, of: Entity['role'] = role): Entity => ({
  ...{ id: from + to, kind: 'line', from, to, role: of },
})

const sketchOf = (places: Places, entities: readonly Entity[]): Sketch => ({
  ...{ id: 's', name: 'A', plane: 'half', nextId: 99, constraints: [], sizes: [] },
  points: Object.entries(places).map(([id, [x, y]]) => ({ id, x, y })),
  entities,
})

const movedTo = (places: Places): ReadonlyMap<string, Vec> =>
  new Map(Object.entries(places).map(([id, [x, y]]) => [id, { x, y }]))

describe('corners are turned as they were drawn', () => {
  // Along to the right, then up: a turn to the left.
  const corner = { a: [0, 0], b: [10, 0], c: [10, 8] } as const
  const drawn = sketchOf(corner, [line('a', 'b'), line('b', 'c')])

  it.each([
    ['where nothing moved', { ...corner }, true],
    ['where it grew and turned with the whole', { a: [0, 5], b: [0, 40], c: [-30, 40] }, true],
    ['where it became sharper', { ...corner, c: [2, 5] }, true],
    ['but not where it goes down now', { ...corner, c: [10, -8] }, false],
    ['but not as its mirror image', { a: [0, 0], b: [-10, 0], c: [-10, 8] }, false],
    ['where it is flat now, which has no side', { ...corner, c: [20, 0.3] }, true],
    ['where it is flat the other way', { ...corner, c: [20, -0.3] }, true],
  ] as const)('%s', (_, places, kept) => {
    expect(keepsTurns(drawn, movedTo(places))).toBe(kept)
    // It does not matter which way the lines were drawn.
    const other = sketchOf(corner, [line('b', 'a'), line('c', 'b')])
    expect(keepsTurns(other, movedTo(places))).toBe(kept)
  })

  it('where points that did not move are left out', () => {
    expect(keepsTurns(drawn, movedTo({ c: [10, 5] }))).toBe(true)
    expect(keepsTurns(drawn, movedTo({ c: [10, -5] }))).toBe(false)
  })

  it('of the outline alone, and where two pieces meet', () => {
    const flipped = movedTo({ ...corner, c: [10, -8] })
    const guide = sketchOf(corner, [line('a', 'b'), line('b', 'c', 'construction')])
    expect(keepsTurns(guide, flipped)).toBe(true)
    const three = { ...corner, d: [20, 0] } as const
    const star = sketchOf(three, [line('a', 'b'), line('b', 'c'), line('b', 'd')])
    expect(keepsTurns(star, movedTo({ ...three, c: [10, -8] }))).toBe(true)
  })

  it('and what is smooth is not folded back', () => {
    const smooth = { a: [0, 0], b: [10, 0], c: [25, 0.1] } as const
    const sketch = sketchOf(smooth, [line('a', 'b'), line('b', 'c')])
    expect(keepsTurns(sketch, movedTo({ ...smooth, c: [25, -0.1] }))).toBe(true)
    expect(keepsTurns(sketch, movedTo({ ...smooth, c: [2, 0.1] }))).toBe(false)
  })
})

describe('arcs', () => {
  const arc = (counterClockwise: boolean): Entity => ({
    ...{ id: 'k', kind: 'arc', from: 'a', to: 'b', centre: 'm', counterClockwise, role },
  })
  // A little less than half round.
  const bow = { a: [10, 0], b: [-10, 0], m: [0, -3] } as const

  it('have their centres on the sides where they were', () => {
    const sketch = sketchOf(bow, [arc(true)])
    expect(keepsTurns(sketch, movedTo({ ...bow, m: [0, -9] }))).toBe(true)
    expect(keepsTurns(sketch, movedTo({ ...bow, m: [0, 3] }))).toBe(false)
    // On the chord it has no side.
    expect(keepsTurns(sketch, movedTo({ ...bow, m: [0, 0.1] }))).toBe(true)
  })

  it('have them there each of them, and circles have no sides', () => {
    const two = { ...bow, c: [50, 0], d: [30, 0], n: [40, -3] } as const
    const other: Entity = {
      ...{ id: 'l', kind: 'arc', from: 'c', to: 'd', centre: 'n', counterClockwise: true, role },
    }
    const circle: Entity = { id: 'o', kind: 'circle', centre: 'm', rim: 'a', role }
    const sketch = sketchOf(two, [circle, arc(true), other])
    expect(keepsTurns(sketch, movedTo({ ...two, n: [40, -8] }))).toBe(true)
    expect(keepsTurns(sketch, movedTo({ ...two, n: [40, 3] }))).toBe(false)
    expect(keepsTurns(sketch, movedTo({ ...two, m: [0, 3] }))).toBe(false)
  })

  it('turn from a line by the way they leave it', () => {
    const places = { z: [10, -20], ...bow } as const
    const sketch = sketchOf(places, [line('z', 'a'), arc(true)])
    expect(keepsTurns(sketch, movedTo({ ...places, z: [-60, -20] }))).toBe(true)
    // Led to the arc from the other side of its tangent it is another corner.
    expect(keepsTurns(sketch, movedTo({ ...places, z: [40, -20] }))).toBe(false)
  })
})

describe('a pull that cannot be followed', () => {
  // Two rods of 10 mm from a fixed point.
  const rods: Sketch = {
    ...sketchOf({ a: [0, 5], b: [8, 11], c: [16, 5] }, [line('a', 'b'), line('b', 'c')]),
    constraints: [{ id: 'k', kind: 'fixed', point: 'a', x: 0, y: 5 }],
    sizes: ['ab', 'bc'].map((id) => ({
      ...{ id: `s${id}`, name: id, formula: '10', reference: false, kind: 'length', line: id },
    })),
  }
  const values = new Map([
    ['sab', 10],
    ['sbc', 10],
  ])

  it('leaves all that holds as it is, and is followed again when it can be', () => {
    const drag = startDrag(rods, values, ['c'])
    const far = (places: ReadonlyMap<string, Vec>, p: string, q: string): number => {
      const [a, b] = [places.get(p), places.get(q)]
      return a && b ? Math.hypot(b.x - a.x, b.y - a.y) : NaN
    }
    for (const by of [
      { x: 3, y: 0 },
      { x: 60, y: 10 },
      { x: -3, y: -2 },
      { x: 0, y: 0 },
    ]) {
      const places = drag.move(by)
      expect(far(places, 'a', 'b')).toBeCloseTo(10, 7)
      expect(far(places, 'b', 'c')).toBeCloseTo(10, 7)
      expect(far(places, 'a', 'c')).toBeLessThanOrEqual(20 + 1e-6)
    }
    const back = drag.move({ x: 0, y: 0 })
    expect(back.get('c')?.x).toBeCloseTo(16, 7)
    const followed = drag.move({ x: 2, y: 0 })
    expect(followed.get('c')?.x).toBeCloseTo(18, 2)
  })
})
