import { describe, expect, it } from 'vitest'
import { place, touchesOf, type Place } from '../src'

/** A box of triangles, its corners counted from a first number. */
function box(at: Place, size: number, first: number): { positions: number[]; indices: number[] } {
  const positions = Array.from({ length: 8 }, (_, i) => [
    at.x + size * (i & 1),
    at.y + size * ((i >> 1) & 1),
    at.z + size * ((i >> 2) & 1),
  ]).flat()
  const sides = ['0 2 3', '0 3 1', '4 5 7', '4 7 6', '0 1 5', '0 5 4']
  const more = ['2 6 7', '2 7 3', '0 4 6', '0 6 2', '1 3 7', '1 7 5']
  const indices = [...sides, ...more].flatMap((t) => t.split(' ').map((k) => first + Number(k)))
  return { positions, indices }
}

/** Two meshes as one, corners at one place being one. */
function joined(...meshes: readonly { positions: number[]; indices: number[] }[]) {
  const known = new Map<string, number>()
  const positions: number[] = []
  const indices: number[] = []
  for (const mesh of meshes) {
    for (const v of mesh.indices) {
      const at = mesh.positions.slice(3 * v, 3 * v + 3)
      const key = at.join(' ')
      if (!known.has(key)) {
        known.set(key, known.size)
        positions.push(...at)
      }
      indices.push(known.get(key) ?? 0)
    }
  }
  return { positions, indices }
}

describe('triangles that touch themselves', () => {
  const one = box(place(0, 0, 0), 2, 0)

  it('a box does nowhere', () => {
    expect(touchesOf(joined(one))).toEqual([])
  })

  it('two boxes that have a corner in common do there', () => {
    expect(touchesOf(joined(one, box(place(2, 2, 2), 1, 0)))).toEqual([place(2, 2, 2)])
  })

  it('two boxes that have an edge in common do along it, told once', () => {
    expect(touchesOf(joined(one, box(place(2, 2, 0), 2, 0)))).toEqual([place(2, 2, 1)])
  })

  it('a box without one of its triangles does at the open edges', () => {
    const open = joined({ ...one, indices: one.indices.slice(3) })
    expect(touchesOf(open)).toHaveLength(3)
  })
})
