import { arc } from '@lathica/core/geometry'
import { latheMesh } from '@lathica/core/mesh'
import { profileOf, type SectionEdge } from '@lathica/core/section'
import { describe, expect, it } from 'vitest'
import { endLines } from '../src/endview/endLines'

/** Lines of an end view stay within what is seen. */
const farthest = (pairs: readonly number[]): number => {
  let most = 0
  for (let i = 0; i < pairs.length; i += 2) {
    most = Math.max(most, Math.hypot(pairs[i] ?? 0, pairs[i + 1] ?? 0))
  }
  return most
}

/** A ball with its middle on the axis, as a mesh. */
function ball(x: number, radius: number) {
  const name = { step: 'step1', entity: 'a1', role: 'drawn' as const }
  const round = arc({ x: x - radius, y: 0 }, { x: x + radius, y: 0 }, { x, y: 0 }, false)
  const edges: SectionEdge[] = [{ piece: round, name }]
  const mesh = latheMesh(profileOf(edges, 'step1').section, 0.02)
  return mesh
}

const lengthOf = (pairs: readonly number[]): number => {
  let sum = 0
  for (let i = 0; i < pairs.length; i += 4) {
    const [x = 0, y = 0, u = 0, v = 0] = pairs.slice(i, i + 4)
    sum += Math.hypot(u - x, v - y)
  }
  return sum
}

describe('the end view of what the kernel built', () => {
  it('has no line outside the part, however nearly its sides run along the axis', () => {
    // A square of 20 whose sides lean away by less than can be told, and by little more.
    const side = (lean: number): number[] => [0, Math.sqrt(1 - lean * lean), -lean]
    const positions = [0, 10, 0, 20, 10, 0, 20, 10, 9, 0, 10, 9]
    for (const [a, b] of [
      [9.9e-5, 1.01e-4],
      [0, 0.5],
      [-0.1, 2e-4],
    ] as const) {
      const mesh = {
        positions: Float32Array.from(positions),
        normals: Float32Array.from([side(a), side(a), side(b), side(b)].flat()),
        indices: Uint32Array.from([0, 1, 2, 0, 2, 3]),
        edges: new Float32Array(0),
      }
      const { seen, hidden } = endLines([mesh], 'right')
      expect(seen.length + hidden.length).toBeGreaterThan(0)
      expect(farthest([...seen, ...hidden])).toBeLessThan(23)
    }
  })
})

describe('the end view of round surfaces', () => {
  it('shows where they turn away from the eye: a ball is a circle of its radius', () => {
    for (const from of ['left', 'right'] as const) {
      const { seen, hidden, reach } = endLines([ball(30, 20)], from)
      expect(reach).toBeCloseTo(20, 1)
      expect(lengthOf(seen) / (2 * Math.PI * 20)).toBeCloseTo(1, 2)
      expect(hidden).toEqual([])
      for (let i = 0; i < seen.length; i += 2) {
        expect(Math.hypot(seen[i] ?? 0, seen[i + 1] ?? 0)).toBeCloseTo(20, 1)
      }
    }
  })

  it('hides what stands behind something larger, from one end only', () => {
    const bodies = [ball(0, 30), ball(80, 10)]
    const [left, right] = [endLines(bodies, 'left'), endLines(bodies, 'right')]
    expect(lengthOf(left.hidden) / (2 * Math.PI * 10)).toBeCloseTo(1, 1)
    expect(right.hidden).toEqual([])
    expect(lengthOf(right.seen) / (2 * Math.PI * 40)).toBeCloseTo(1, 1)
  })
})
