import { describe, expect, test } from 'vitest'
import type { SolidMesh } from '@lathica/core/mesh'
import { linesOnTriangles, type LinesRound } from '../src/solid/saidLines'

const [RADIUS, LONG, STEPS] = [10, 20, 360]

/** The outside of a cylinder of ⌀20, 20 long, in triangles; only some of its strips are there. */
function cylinder(isThere: (strip: number) => boolean = () => true): SolidMesh {
  const positions: number[] = []
  const normals: number[] = []
  for (let i = 0; i <= STEPS; i++) {
    // From the side of the cut onwards: the seam of angles lies within the strips.
    const angle = (2 * Math.PI * i) / STEPS
    for (const z of [0, LONG]) {
      positions.push(RADIUS * Math.cos(angle), RADIUS * Math.sin(angle), z)
      normals.push(Math.cos(angle), Math.sin(angle), 0)
    }
  }
  const indices: number[] = []
  for (let i = 0; i < STEPS; i++) {
    if (!isThere(i)) continue
    const a = 2 * i
    indices.push(a, a + 2, a + 1, a + 2, a + 3, a + 1)
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    indices: Uint32Array.from(indices),
    faces: [{ name: 'step1/l2', start: 0, count: indices.length }],
  } as unknown as SolidMesh
}
const lines = (degrees: number, many: number, pitch = 1): LinesRound => ({
  ...{ from: 0, to: LONG, radius: RADIUS, pitch },
  families: [{ angle: (degrees * Math.PI) / 180, many }],
})
function lengthOf(places: readonly number[]): number {
  let sum = 0
  for (let i = 0; i < places.length; i += 6) {
    const [x = 0, y = 0, z = 0, u = 0, v = 0, w = 0] = places.slice(i, i + 6)
    sum += Math.hypot(u - x, v - y, w - z)
  }
  return sum
}

describe('lines of threads and knurls on triangles', () => {
  test.each([
    [0, 12],
    [30, 12],
    [-30, 40],
    [75, 3],
  ])('at %d° to the axis, %d of them, are as long as they are unrolled', (degrees, many) => {
    const found = linesOnTriangles(lines(degrees, many), cylinder(), 'step1/l2')
    const wanted = (many * LONG) / Math.cos((degrees * Math.PI) / 180)
    expect(Math.abs(lengthOf(found) / wanted - 1)).toBeLessThan(0.004)
  })

  test('rings are circles, one to a pitch', () => {
    const found = linesOnTriangles(lines(90, 0, 2), cylinder(), 'step1/l2')
    expect(Math.abs(lengthOf(found) / (10 * 2 * Math.PI * RADIUS) - 1)).toBeLessThan(0.004)
  })

  test('where a slot has taken the land away there are none', () => {
    const half = linesOnTriangles(
      lines(30, 24),
      cylinder((strip) => strip < STEPS / 2),
      'step1/l2',
    )
    const wanted = (24 * LONG) / Math.cos(Math.PI / 6) / 2
    expect(Math.abs(lengthOf(half) / wanted - 1)).toBeLessThan(0.004)
    for (let i = 1; i < half.length; i += 3) expect(half[i]).toBeGreaterThan(-1e-3)
    expect(linesOnTriangles(lines(30, 24), cylinder(), 'step1/l9')).toEqual([])
  })

  test('they stand just before the face, out of the material', () => {
    const found = linesOnTriangles(lines(30, 6), cylinder(), 'step1/l2')
    for (let i = 0; i < found.length; i += 3) {
      const far = Math.hypot(found[i] ?? 0, found[i + 1] ?? 0)
      expect(far).toBeGreaterThan(RADIUS)
      expect(far).toBeLessThan(1.003 * RADIUS)
    }
  })
})
