import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  edgeCalled,
  edgesToggled,
  hangingTogether,
  meetingKey,
  rimLines,
  rimNear,
  stretchKey,
  stretchesInOrder,
  stretchesOf,
  wholeKey,
  type SolidMesh,
} from '../src'
import { AS_IT_STANDS, orderMirrored, orderReversed, orderTurned } from '../src/solid/stretches'

type Triple = readonly [number, number, number]

/** Stretches of two places each about middles that lie well apart. */
const anyStretches = fc
  .uniqueArray(fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 11 })), {
    minLength: 1,
    maxLength: 8,
    selector: ([a, b]) => 100 * a + b,
  })
  .map((places) =>
    places.map(([level, hour]): readonly number[] => {
      const angle = ((hour + 0.5) * Math.PI) / 6
      const [x, y, z] = [9 * Math.cos(angle), 9 * Math.sin(angle), 5 * level]
      return [x - 0.1, y, z - 0.1, x + 0.1, y, z + 0.1]
    }),
  )

const changed = (stretch: readonly number[], by: (p: Triple) => Triple): number[] => {
  const out: number[] = []
  for (let i = 0; i < stretch.length; i += 3) {
    out.push(...by([stretch[i] ?? 0, stretch[i + 1] ?? 0, stretch[i + 2] ?? 0]))
  }
  return out
}

const turned =
  (angle: number) =>
  ([x, y, z]: Triple): Triple => [
    x * Math.cos(angle) - y * Math.sin(angle),
    x * Math.sin(angle) + y * Math.cos(angle),
    z,
  ]

describe('stretches of an edge', () => {
  it('are counted along the axis, side by side by their angle, then outwards', () => {
    const at = (x: number, y: number, z: number): number[] => [x, y, z]
    const all = [at(0, -8, 0), at(9, 0, 4), at(8, 0, 0), at(0, 8, 0), at(9, 0, 0), at(8, -1e-9, 8)]
    expect(stretchesInOrder(all)).toEqual([2, 4, 3, 0, 1, 5])
  })

  it('keep their numbers when they are given in another order', () => {
    fc.assert(
      fc.property(anyStretches, fc.nat(), (all, seed) => {
        const mixed = all.map((s, i) => ({ s, key: ((i + 1) * (seed % 97)) % 31 }))
        mixed.sort((a, b) => a.key - b.key)
        const places = mixed.map((m) => m.s)
        const told = (list: readonly (readonly number[])[]) =>
          stretchesInOrder(list).map((i) => list[i])
        expect(told(places)).toEqual(told(all))
      }),
      { seed: 3 },
    )
  })

  it('of what was turned and mirrored are counted like those they are from', () => {
    const angle = fc.integer({ min: -20, max: 20 }).map((k) => 0.31 * k)
    fc.assert(
      fc.property(anyStretches, angle, angle, fc.boolean(), (all, turn, normal, across) => {
        const mirror = ([x, y, z]: Triple): Triple => {
          if (across) return [x, y, 40 - z]
          const [nx, ny] = [Math.cos(normal), Math.sin(normal)]
          const off = 2 * (x * nx + y * ny)
          return [x - off * nx, y - off * ny, z]
        }
        const once = all.map((s) => changed(s, turned(turn)))
        const order = orderTurned(AS_IT_STANDS, turn)
        expect(stretchesInOrder(once, order)).toEqual(stretchesInOrder(all))
        const twice = once.map((s) => changed(s, mirror))
        const image = across ? orderReversed(order) : orderMirrored(order, normal)
        expect(stretchesInOrder(twice, image)).toEqual(stretchesInOrder(all))
        const back = twice.map((s) => changed(s, turned(1.7)))
        expect(stretchesInOrder(back, orderTurned(image, 1.7))).toEqual(stretchesInOrder(all))
      }),
      { seed: 5 },
    )
  })

  it('hang together by ends they share', () => {
    const pieces = ['ab', 'cd', 'bc', 'xy', 'zx', 'q'].map((s) => [...s])
    const groups = hangingTogether(pieces, (p) => p).map((g) => g.map((p) => p.join('')).sort())
    expect(groups).toEqual([['ab', 'bc', 'cd'], ['xy', 'zx'], ['q']])
  })
})

describe('names of edges', () => {
  const edge = meetingKey('b/2', 'a/1')
  const [one, two, three] = [1, 2, 3].map((n) => stretchKey(edge, n)) as [string, string, string]

  it('tell the two faces and the stretch', () => {
    expect(edgeCalled(edge)).toEqual({ faces: ['a/1', 'b/2'] })
    expect(edgeCalled(two)).toEqual({ faces: ['a/1', 'b/2'], stretch: 2 })
    expect(edgeCalled('alone')).toBeUndefined()
    expect([wholeKey(two), wholeKey(edge)]).toEqual([edge, edge])
  })

  it('are taken and let go of one by one or whole', () => {
    const all = [one, two, three]
    expect(edgesToggled(['other'], two, all)).toEqual(['other', two])
    expect(edgesToggled([two, 'other'], two, all)).toEqual(['other'])
    // All stretches are the whole, and the whole less one is the others.
    expect(edgesToggled([one, two], three, all)).toEqual([edge])
    expect(edgesToggled([edge], two, all)).toEqual([one, three])
    expect(edgesToggled([one, two], edge, all)).toEqual([edge])
    expect(edgesToggled([edge, 'other'], edge, all)).toEqual(['other'])
  })

  it('find the lines of a mesh, whole and in stretches', () => {
    const mesh: SolidMesh = {
      ...{ positions: new Float32Array(), normals: new Float32Array() },
      ...{ indices: new Uint32Array(), faces: [] },
      edges: Float32Array.of(0, 0, 0, 1, 0, 0, 5, 0, 0, 6, 0, 0, 0, 9, 0, 1, 9, 0),
      rims: [
        { key: one, start: 0, count: 6 },
        { key: two, start: 6, count: 6 },
        { key: 'c&d', start: 12, count: 6 },
      ],
    }
    expect(stretchesOf(mesh, edge)).toEqual([one, two])
    expect(stretchesOf(mesh, 'c&d')).toEqual([])
    expect(rimNear(mesh, { x: 5.5, y: 0.1, z: 0 }, 0.2)?.key).toBe(two)
    expect([...rimLines(mesh, new Set([edge]))]).toEqual([0, 0, 0, 1, 0, 0, 5, 0, 0, 6, 0, 0])
    expect([...rimLines(mesh, new Set([two]))]).toEqual([5, 0, 0, 6, 0, 0])
  })
})
