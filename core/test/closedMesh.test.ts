import { describe, expect, test } from 'vitest'
import { place, vec } from '@lathica/core/geometry'
import { closedMesh, type SolidMesh } from '@lathica/core/mesh'
import {
  lookingOut,
  prismTool,
  rectangleOf,
  slotOf,
  turnedTool,
  type SolidPlan,
  type SolidTool,
} from '@lathica/core/solid'
import { outlineOf } from './support/sections'
import { openSides, volumeWithin } from './support/tight'

const FINE = 0.002

/** A bar of ⌀20 × 40, perhaps bored, and bevelled by 2 at its right end. */
const bar = (bore = 0, bevel = 0) =>
  outlineOf([
    { at: vec(0, bore) },
    { at: vec(40, bore) },
    { at: vec(40, 10 - bevel) },
    ...(bevel > 0 ? [{ at: vec(40 - bevel, 10) }] : []),
    { at: vec(0, 10) },
  ])

function cut(tools: readonly SolidTool[], bore = 0, bevel = 0): SolidPlan {
  return {
    base: bar(bore, bevel),
    ops: [{ kind: 'combine', step: 's1', effect: 'cut', tools }],
  }
}

const areaOf = ({ positions, indices, faces }: SolidMesh, name: string): number => {
  const at = (v: number): number[] => [0, 1, 2].map((k) => positions[3 * v + k] ?? 0)
  let area = 0
  for (const face of faces) {
    if (face.name !== name) continue
    for (let i = face.start; i < face.start + face.count; i += 3) {
      const [a = [], b = [], c = []] = [0, 1, 2].map((k) => at(indices[i + k] ?? 0))
      const [u, v] = [b, c].map((p) => p.map((x, k) => x - (a[k] ?? 0)))
      const [ux = 0, uy = 0, uz = 0] = u ?? []
      const [vx = 0, vy = 0, vz = 0] = v ?? []
      area += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2
    }
  }
  return area
}

const pictured = (plan: SolidPlan, tolerance = FINE): SolidMesh => {
  const mesh = closedMesh(plan, tolerance)
  if (!mesh) throw new Error('it was left to the kernel')
  expect(openSides(mesh)).toBe(0)
  return mesh
}

const keyway = (from: number, to: number, turn: number, mark = ''): SolidTool =>
  prismTool(slotOf('key', from, to, 4), lookingOut(turn), 7, 12, mark)

const flat = (far: number, from: number, to: number, turn = 0, mark = ''): SolidTool => {
  const frame = { at: place(0, 0, 0), x: lookingOut(turn).z, z: place(0, 0, 1) }
  return prismTool(rectangleOf('flat', vec(far, -30), vec(30, 30)), frame, from, to, mark)
}

const across = (radius: number, deep: number, mark = ''): SolidTool => {
  const frame = { at: place(20, 0, 20), x: place(0, 0, 1), z: place(-1, 0, 0) }
  return turnedTool(rectangleOf('hole', vec(-2, 0), vec(deep, radius)), frame, mark)
}

describe('pictures of what is taken from outside', () => {
  test('a keyway has its floor, its straight walls and its round ends', () => {
    const mesh = pictured(cut([keyway(10, 26, 0.7)]))
    expect(areaOf(mesh, 's1/first')).toBeCloseTo(12 * 4 + 4 * Math.PI, 1)
    const deep = Math.sqrt(100 - 4) - 7
    expect(areaOf(mesh, 'key/near')).toBeCloseTo(12 * deep, 2)
    expect(areaOf(mesh, 'key/far')).toBeCloseTo(12 * deep, 2)
    expect(areaOf(mesh, 'key/end')).toBeGreaterThan(2 * Math.PI * deep)
    expect(areaOf(mesh, 'key/end')).toBeLessThan(2 * Math.PI * 3)
  })

  test('a flat to the end takes a segment of the end, and leaves a wall like it', () => {
    const mesh = pictured(cut([flat(8, 25, 41)]))
    const segment = 100 * Math.acos(0.8) - 8 * 6
    expect(areaOf(mesh, 'flat/start')).toBeCloseTo(15 * 12, 3)
    expect(areaOf(mesh, 's1/first')).toBeCloseTo(segment, 1)
    expect(areaOf(mesh, 's/e1')).toBeCloseTo(100 * Math.PI - segment, 0)
    expect(volumeWithin(mesh)).toBeCloseTo(4000 * Math.PI - 15 * segment, -1)
  })

  test('a flat comes out within a bevel, or goes through it to the end', () => {
    for (const [far, tip, stretches] of [
      [9, 39, 1],
      [7, 40, 2],
    ] as const) {
      const mesh = pictured(cut([flat(far, 25, 41)], 0, 2))
      const own = mesh.faces.find((f) => f.name === 'flat/start')
      const along = [...mesh.indices.slice(own?.start, (own?.start ?? 0) + (own?.count ?? 0))].map(
        (v) => mesh.positions[3 * v + 2] ?? 0,
      )
      expect(Math.max(...along)).toBeCloseTo(tip, 5)
      const edges = mesh.rims?.filter((r) => r.key.includes('flat/start&s/e2'))
      expect(edges).toHaveLength(stretches)
    }
  })

  test('flats on two sides of a thin end part its outside in two', () => {
    const mesh = pictured(cut([flat(6, -1, 41, 0, '@1'), flat(6, -1, 41, Math.PI, '@2')]))
    expect(mesh.faces.filter((f) => f.name === 's/e2')).toHaveLength(2)
    expect(mesh.faces.filter((f) => f.name.startsWith('flat/start'))).toHaveLength(2)
  })

  test('a cross hole goes through, into a bore, or ends on a floor', () => {
    const through = pictured(cut([across(3, 40)]))
    expect(through.faces.map((f) => f.name)).not.toContain('hole/end')
    expect(through.faces.filter((f) => f.name === 'hole/far')).toHaveLength(1)
    const both = pictured(cut([across(3, 40)], 5))
    expect(both.faces.filter((f) => f.name === 'hole/far')).toHaveLength(2)
    const one = pictured(cut([across(3, 20)], 5))
    expect(one.faces.filter((f) => f.name === 'hole/far')).toHaveLength(1)
    const blind = pictured(cut([across(3, 15)]))
    expect(areaOf(blind, 'hole/end')).toBeCloseTo(9 * Math.PI, 1)
  })

  test('stay within chords as coarse as the page asks for', () => {
    const plan = cut(
      [keyway(3, 15, 2, '@1'), across(2, 40, '@2'), flat(8.5, 30, 41, 1, '@3')],
      3,
      1,
    )
    const [fine, coarse] = [pictured(plan), pictured(plan, 0.05)]
    expect(coarse.indices.length).toBeLessThan(fine.indices.length / 2)
    expect(Math.abs(volumeWithin(fine) - volumeWithin(coarse))).toBeLessThan(0.05 * 3500)
    expect(coarse.faces.map((f) => f.name)).toEqual(fine.faces.map((f) => f.name))
  })
})
