import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { edgeKey, hitsOnTurned, ringsAt, silhouetteOf, vec, type Place } from '../src'
import { anySection, outlineOf, rectangle } from './support/sections'

const shaft = rectangle(0, 0, 30, 10)
const cone = outlineOf([{ at: vec(0, 0) }, { at: vec(20, 0) }, { at: vec(0, 20) }])
const place = (x: number, y: number, z: number): Place => ({ x, y, z })

describe('a ray through a turned body', () => {
  test('goes in and out of a cylinder, and through its flat ends', () => {
    const side = hitsOnTurned(shaft, place(-50, 0, 15), place(1, 0, 0), 0.01)
    expect(side.map((h) => h.t)).toEqual([40, 60])
    expect(side.map((h) => edgeKey(h.edge.name))).toEqual(['s/e2', 's/e2'])
    expect(side[0]?.angle).toBeCloseTo(Math.PI, 12)
    const ends = hitsOnTurned(shaft, place(3, 4, -10), place(0, 0, 2), 0.01)
    expect(ends.map((h) => [h.t, h.at.x, h.at.y])).toEqual([
      [5, 0, 5],
      [20, 30, 5],
    ])
    expect(hitsOnTurned(shaft, place(-50, 11, 15), place(1, 0, 0), 0.01)).toEqual([])
  })

  test('along a cone’s own slope meets it once', () => {
    const hits = hitsOnTurned(cone, place(-30, 0, 10), place(1, 0, 1), 0.01)
    expect(hits.every((h) => Number.isFinite(h.t))).toBe(true)
    expect(hitsOnTurned(cone, place(-5, 0, 30), place(0, 0, -1), 0.01)[0]?.at).toEqual({
      x: 15,
      y: 5,
    })
  })

  test('meets the surface an even number of times, and each time on it', () => {
    const whole = (min: number, max: number) => fc.integer({ min, max })
    fc.assert(
      fc.property(anySection('s'), whole(0, 40), whole(0, 80), whole(-9, 9), (s, a, b, c) => {
        // Off the whole millimetres on which corners lie.
        const [angle, z, tilt] = [a / 6.37, b / 4 + 0.0137, c / 9.7 + 0.0071]
        const from = place(60 * Math.cos(angle), 60 * Math.sin(angle), z - 60 * tilt)
        const way = place(-Math.cos(angle + 0.01), -Math.sin(angle + 0.01), tilt)
        const hits = hitsOnTurned(s, from, way, 0.001)
        // A ray through an edge may meet both faces of it.
        fc.pre(hits.every((h, i) => i === 0 || h.t - (hits[i - 1]?.t ?? 0) > 1e-6))
        expect(hits.length % 2).toBe(0)
        for (const { t, at } of hits) {
          const [x, y] = [from.x + t * way.x, from.y + t * way.y]
          expect(Math.hypot(x, y)).toBeCloseTo(at.y, 9)
        }
      }),
      { numRuns: 300 },
    )
  })
})

describe('the outline of a turned body', () => {
  test('of a cylinder seen from the side is two lines, seen from the end none', () => {
    const lines = silhouetteOf(shaft, { along: place(1, 0, 0) }, 0.01)
    expect([...lines].map((v) => Math.round(v * 1e4) / 1e4 + 0)).toEqual([
      ...[0, 10, 30, 0, 10, 0],
      ...[0, -10, 30, 0, -10, 0],
    ])
    expect(silhouetteOf(shaft, { along: place(0, 0, 1) }, 0.01)).toHaveLength(0)
  })

  test('from nearby lies where the surface turns away from the eye', () => {
    const lines = silhouetteOf(shaft, { at: place(20, 0, 15) }, 0.01)
    // A tangent from 20 to a circle of radius 10 touches at 60° from the way to the eye.
    expect(lines[0]).toBeCloseTo(5, 4)
    expect(Math.abs(lines[1] ?? 0)).toBeCloseTo(10 * Math.sin(Math.PI / 3), 4)
    expect(silhouetteOf(shaft, { at: place(5, 0, 15) }, 0.01)).toHaveLength(0)
  })
})

describe('rings of material at a place', () => {
  test('are counted from the inside', () => {
    expect(ringsAt(shaft, 15)).toEqual([[0, 10]])
    expect(ringsAt(rectangle(0, 4, 30, 10), 15)).toEqual([[4, 10]])
    expect(ringsAt(shaft, 31)).toEqual([])
    expect(ringsAt(cone, 5)[0]?.[1]).toBeCloseTo(15, 12)
  })
})
