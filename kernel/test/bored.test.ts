import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from 'vitest'
import { place } from '@lathica/core/geometry'
import { readPartFile } from '@lathica/core/formats'
import { closedMesh, type SolidMesh } from '@lathica/core/mesh'
import { evaluate } from '@lathica/core/route'
import { createRandom } from '@lathica/core/solver'
import {
  closedFigures,
  prismTool,
  slotOf,
  type SolidPlan,
  type SolidTool,
} from '@lathica/core/solid'
import { openSides, volumeWithin } from '../../core/test/support/tight'
import type { Kernel } from '../src'
import {
  anyCrossed,
  anyDrilled,
  anyMilled,
  anyOpened,
  cutBy,
  drilled,
  flange,
} from './support/bored'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

/** Chords as near as this, in mm, so that areas of two meshes of one face agree. */
const FINE = 0.005

type Triple = readonly [number, number, number]
const at = (list: ArrayLike<number>, v: number): Triple => [
  list[3 * v] ?? 0,
  list[3 * v + 1] ?? 0,
  list[3 * v + 2] ?? 0,
]
const less = (a: Triple, b: Triple): Triple => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const cross = (a: Triple, b: Triple): Triple => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
const dot = (a: Triple, b: Triple): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** Areas of the faces by their names, of several with one name all of them. */
function areas({ positions, indices, faces }: SolidMesh): Map<string, number> {
  const found = new Map<string, number>()
  for (const { name, start, count } of faces) {
    let area = found.get(name) ?? 0
    for (let i = start; i < start + count; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[i + k] ?? 0))
      if (a && b && c) area += Math.hypot(...cross(less(b, a), less(c, a))) / 2
    }
    found.set(name, area)
  }
  return found
}

/** Lengths of the edges by their names. */
const lengths = ({ edges, rims = [] }: SolidMesh): Map<string, number> =>
  new Map(
    rims.map(({ key, start, count }) => {
      let length = 0
      for (let i = start; i < start + count; i += 6) {
        length += Math.hypot(...less(at(edges, i / 3), at(edges, i / 3 + 1)))
      }
      return [key, length]
    }),
  )

function expectOutwards({ positions, normals, indices }: SolidMesh): void {
  let least = 1
  for (let i = 0; i < indices.length; i += 3) {
    const corners = [0, 1, 2].map((k) => indices[i + k] ?? 0)
    const [a, b, c] = corners.map((v) => at(positions, v))
    if (!a || !b || !c) continue
    const way = cross(less(b, a), less(c, a))
    const size = Math.hypot(...way)
    const longest = Math.max(...[less(b, a), less(c, b), less(a, c)].map((v) => Math.hypot(...v)))
    // What is hardly thicker than chords may lie off is tilted by them.
    if (size < 4 * FINE * longest) continue
    for (const v of corners) least = Math.min(least, dot(way, at(normals, v)) / size)
  }
  expect(least).toBeGreaterThan(0.9)
}

/** Whether the two faces of an edge look the same way at its beginning, but for what chords leave. */
function isSmooth(
  { positions, normals, indices, faces, edges, rims = [] }: SolidMesh,
  key: string,
) {
  const rim = rims.find((r) => r.key === key)
  const called = key.split('#')[0]?.split('&') ?? []
  if (!rim || called.length !== 2) return false
  const there = at(edges, rim.start / 3)
  const [one, other] = called.map((name) => {
    const own = faces.filter((f) => f.name === name)
    const corners = own.flatMap((f) => [...indices.slice(f.start, f.start + f.count)])
    return corners.filter((v) => Math.hypot(...less(at(positions, v), there)) < 1e-6)
  })
  return (one ?? []).some((a) =>
    (other ?? []).some((b) => dot(at(normals, a), at(normals, b)) > Math.cos(0.2)),
  )
}

const near = (one: number, other: number): boolean =>
  Math.abs(one - other) < 3e-3 * Math.max(1, Math.abs(other))

function expectSame(plan: SolidPlan): void {
  const own = closedMesh(plan, FINE)
  if (!own) throw new Error('it was left to the kernel')
  const { mesh } = kernel.build(plan, FINE)
  for (const tell of [areas, lengths]) {
    const [mine, its] = [tell(own), tell(mesh)]
    // The kernel’s normals are those of its triangles: it draws some edges where faces run smoothly on.
    const theirs = [...its.keys()].filter((k) => mine.has(k) || !isSmooth(mesh, k))
    expect([...mine.keys()].sort()).toEqual(theirs.sort())
    for (const [name, size] of mine) expect(near(size, its.get(name) ?? 0), name).toBe(true)
  }
  // The kernel parts some faces where a tool ends in one of them.
  expect(own.faces.length).toBeLessThanOrEqual(mesh.faces.length)
  expect(openSides(own)).toBe(0)
  expect(near(volumeWithin(own), closedFigures(plan)?.volume ?? 0)).toBe(true)
  expectOutwards(own)
}

describe('pictures without the kernel', () => {
  test('have the faces and edges of the kernel’s, whatever is drilled', () => {
    const random = createRandom(15)
    for (let i = 0; i < 14; i++) expectSame(anyDrilled(random))
  })

  test('have the faces and edges of the kernel’s, whatever is cut along the axis', () => {
    const random = createRandom(14)
    for (let i = 0; i < 12; i++) expectSame(anyOpened(random))
  })

  test('have the faces and edges of the kernel’s, whatever is milled into lands', () => {
    const random = createRandom(16)
    for (let i = 0; i < 20; i++) expectSame(anyMilled(random))
  })

  test('have the faces and edges of the kernel’s, whatever is drilled across', () => {
    const random = createRandom(17)
    for (let i = 0; i < 18; i++) {
      const { plan, isTold } = anyCrossed(random, i % 3)
      if (isTold) expectSame(plan)
      else expect(closedMesh(plan, FINE)).toBeUndefined()
    }
  })

  test('go through several walls, and hold what two steps took', () => {
    // Two discs on a shaft.
    const base = flange(50, 10, 12, 4)
    const [region] = base.regions
    if (!region) throw new Error('there is no section')
    const hole = (angle: number): SolidTool =>
      drilled(10, { from: 'left', far: 30, angle, radius: 2, head: 0, deep: 12, tip: false })
    const plan: SolidPlan = {
      base,
      ops: [
        { kind: 'combine', step: 's1', effect: 'cut', tools: [{ ...hole(0), mark: '' }] },
        { kind: 'combine', step: 's2', effect: 'cut', tools: [{ ...hole(2), mark: '@2' }] },
      ],
    }
    expectSame(plan)
  })

  test('are left to the kernel where more was done', () => {
    const base = flange(50, 10, 12, 4)
    const tool = drilled(10, {
      ...{ from: 'left', far: 30, angle: 0, radius: 2 },
      ...{ head: 0, deep: 12, tip: false },
    })
    const keyway = prismTool(
      slotOf('key', 14, 26, 4),
      { at: place(0, 0, 0), x: place(0, 0, 1), z: place(1, 0, 0) },
      ...([10, 20, ''] as const),
    )
    expect(closedMesh(cutBy(base, [tool]), 0.05)).toBeDefined()
    expect(closedMesh(cutBy(base, [tool, keyway]), 0.05)).toBeDefined()
    const off = { ...tool, frame: { ...tool.frame, at: place(49, 0, 0) } }
    expect(closedMesh(cutBy(base, [off]), 0.05)).toBeUndefined()
    expect(closedMesh({ base, ops: [] }, 0.05)).toBeUndefined()
  })

  test.each(readdirSync(new URL('../../demo/', import.meta.url)))(
    'have the faces and edges of the kernel’s in %s, where there are some',
    (file) => {
      const read = readPartFile(
        readFileSync(new URL(`../../demo/${file}`, import.meta.url), 'utf8'),
      )
      if (!read.ok) throw new Error(read.problem.message)
      const plans = evaluate(read.value).bodies.flatMap((b) => b.plan ?? [])
      for (const plan of plans) if (closedMesh(plan, FINE)) expectSame(plan)
      if (file.startsWith('end-bearing')) expect(plans.some((p) => closedMesh(p, FINE))).toBe(true)
    },
  )
})
