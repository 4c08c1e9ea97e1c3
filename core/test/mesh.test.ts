import { describe, expect, it } from 'vitest'
import {
  arc,
  latheMesh,
  line,
  profileOf,
  solidProperties,
  vec,
  writeStl,
  type LatheMesh,
  type Piece,
  type Section,
} from '../src'
import { volumeWithin } from './support/tight'

const sectionOf = (pieces: readonly Piece[]): Section =>
  profileOf(
    pieces.map((piece, i) => ({
      piece,
      name: { step: 's', entity: `e${i}`, role: 'drawn' as const },
    })),
    's',
  ).section

/** A float: cone, cylinder and a round end, with a ring-shaped cavity. */
const float = sectionOf([
  line(vec(0, 0), vec(20, 18)),
  line(vec(20, 18), vec(50, 18)),
  arc(vec(50, 18), vec(68, 0), vec(50, 0), false),
  line(vec(25, 6), vec(45, 6)),
  line(vec(45, 6), vec(45, 12)),
  line(vec(45, 12), vec(25, 12)),
  line(vec(25, 12), vec(25, 6)),
])

const corner = (mesh: LatheMesh, i: number): [number, number, number] => {
  const v = 3 * (mesh.indices[i] ?? 0)
  return [mesh.positions[v] ?? 0, mesh.positions[v + 1] ?? 0, mesh.positions[v + 2] ?? 0]
}

describe('lathe mesh', () => {
  it('is watertight: every side of a triangle is met once the other way', () => {
    const mesh = latheMesh(float, 0.05)
    const key = (i: number): string => corner(mesh, i).join()
    const sides = new Map<string, number>()
    for (let i = 0; i < mesh.indices.length; i += 3) {
      const keys = [key(i), key(i + 1), key(i + 2)]
      expect(new Set(keys).size).toBe(3)
      keys.forEach((from, k) => {
        const to = keys[(k + 1) % 3] ?? ''
        sides.set(`${from}>${to}`, (sides.get(`${from}>${to}`) ?? 0) + 1)
      })
    }
    for (const [side, count] of sides) {
      const [from, to] = side.split('>')
      expect(count).toBe(1)
      expect(sides.get(`${to}>${from}`)).toBe(1)
    }
  })

  it('nears the exact volume at second order as its chords shorten', () => {
    const exact = solidProperties(float)?.volume ?? 0
    const error = (tolerance: number): number =>
      1 - volumeWithin(latheMesh(float, tolerance)) / exact
    const [coarse, fine] = [error(0.2), error(0.002)]
    expect(fine).toBeGreaterThan(0)
    // The sagitta falls with the square of the chord, so a hundredth of it is a tenth of the chord.
    expect(coarse / fine).toBeGreaterThan(50)
    expect(fine).toBeLessThan(3e-4)
  })

  it('keeps chords within the tolerance of the surface', () => {
    const tolerance = 0.05
    const mesh = latheMesh(float, tolerance)
    let deepest = 0
    for (let i = 0; i < mesh.indices.length; i += 3) {
      const [a, b] = [corner(mesh, i), corner(mesh, i + 1)]
      const onCylinder = [a, b].every((p) => Math.abs(Math.hypot(p[0], p[1]) - 18) < 1e-4)
      if (!onCylinder) continue
      deepest = Math.max(deepest, 18 - Math.hypot((a[0] + b[0]) / 2, (a[1] + b[1]) / 2))
    }
    expect(deepest).toBeGreaterThan(0)
    expect(deepest).toBeLessThanOrEqual(tolerance)
  })

  it('has crisp normals at corners and smooth ones along arcs', () => {
    const mesh = latheMesh(float, 0.05)
    const normalsAt = (x: number, z: number): string[] => {
      const found = new Set<string>()
      for (let v = 0; v < mesh.positions.length; v += 3) {
        const near = Math.hypot(
          (mesh.positions[v] ?? 0) - x,
          mesh.positions[v + 1] ?? 0,
          (mesh.positions[v + 2] ?? 0) - z,
        )
        if (near > 1e-5) continue
        found.add(
          [0, 2]
            .map((k) => (mesh.normals[v + k] ?? 0).toFixed(3).replace('-0.000', '0.000'))
            .join(),
        )
      }
      return [...found]
    }
    expect(normalsAt(18, 20)).toHaveLength(2)
    expect(normalsAt(18, 50)).toEqual(['1.000,0.000'])
    expect(normalsAt(12, 25).sort()).toEqual(['-1.000,0.000', '0.000,1.000'])
  })

  it('updates the same buffers to what a fresh mesh has, rewriting only rings that changed', () => {
    const stepped = (lengths: readonly number[], radii: readonly number[]) => {
      let x = 0
      const corners = radii.flatMap((r, i) => {
        const from = x
        x += lengths[i] ?? 1
        return [vec(from, r), vec(x, r)]
      })
      const all = [vec(0, 0), ...corners, vec(x, 0)]
      return sectionOf(all.slice(1).map((p, i) => line(all[i] ?? p, p)))
    }
    const lengths = [5, 7, 4]
    const start = latheMesh(stepped(lengths, [5, 9, 6]), 0.05)
    const { positions, normals, indices, edges } = start
    const wider = latheMesh(stepped(lengths, [5, 9, 6.5]), 0.05, start)
    const longer = latheMesh(stepped([5, 8, 4], [5, 9, 6.5]), 0.05, wider)
    const fresh = latheMesh(stepped([5, 8, 4], [5, 9, 6.5]), 0.05)
    expect(longer.positions).toBe(positions)
    expect([longer.normals, longer.indices, longer.edges]).toEqual([normals, indices, edges])
    expect(longer.positions).toEqual(fresh.positions)
    expect(longer.normals).toEqual(fresh.normals)
    expect(longer.edges).toEqual(fresh.edges)
    expect(wider.written.vertices.count).toBeLessThan(positions.length / 3 / 2)
    expect(fresh.written.vertices).toEqual({ first: 0, count: positions.length / 3 })
    // A radius that grows keeps the steps it has until they are too few, and then takes some to spare.
    const needed = latheMesh(stepped(lengths, [5, 60, 6]), 0.05)
    const grown = latheMesh(stepped(lengths, [5, 60, 6]), 0.05, start)
    const further = latheMesh(stepped(lengths, [5, 64, 6]), 0.05, grown)
    expect(grown.rings.steps).toBeGreaterThan(needed.rings.steps)
    expect(further.positions).toBe(grown.positions)
    const more = latheMesh(stepped([5, 8, 4, 3], [5, 9, 6.5, 4]), 0.05, longer)
    expect(more.positions).not.toBe(positions)
  })
})

describe('binary STL', () => {
  it('holds every triangle with its own normal, and no text header', () => {
    const mesh = latheMesh(float, 0.5)
    const bytes = writeStl([mesh], 'solid ✻ float')
    const view = new DataView(bytes.buffer)
    const count = view.getUint32(80, true)
    expect(bytes.length).toBe(84 + 50 * count)
    expect(count).toBe(mesh.indices.length / 3)
    expect(String.fromCharCode(...bytes.slice(0, 5))).not.toBe('solid')
    let six = 0
    for (let i = 0; i < count; i++) {
      const at = (k: number): number => view.getFloat32(84 + 50 * i + 4 * k, true)
      expect(Math.hypot(at(0), at(1), at(2))).toBeCloseTo(1, 5)
      six +=
        at(3) * (at(7) * at(11) - at(8) * at(10)) +
        at(4) * (at(8) * at(9) - at(6) * at(11)) +
        at(5) * (at(6) * at(10) - at(7) * at(9))
    }
    expect(six / 6).toBeCloseTo(volumeWithin(mesh), 1)
  })
})
