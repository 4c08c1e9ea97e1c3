import { beforeAll, describe, expect, test } from 'vitest'
import { PART_FRAME, place } from '@lathica/core/geometry'
import { EMPTY_SECTION, solidProperties, type Section } from '@lathica/core/section'
import type { SolidPlan, SolidTool } from '@lathica/core/solid'
import { KernelFault, type Kernel } from '../src'
import { outline, watertight } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const shaft = outline('s', [0, 0], [40, 0], [40, 10], [25, 10], [25, 20], [0, 20])
const tube = outline('s', [0, 6], [30, 6], [30, 10], [0, 10])

/** A tool that drills from the left end, off the axis. */
const drill = (radius: number, depth: number, x: number, y: number, mark = ''): SolidTool => ({
  kind: 'turned',
  section: outline('h', [0, 0], [depth, 0], [depth, radius], [0, radius]),
  frame: { at: place(x, y, 0), x: place(1, 0, 0), z: place(0, 0, 1) },
  mark,
})
const cut = (base: Section, ...tools: readonly SolidTool[]): SolidPlan => ({
  base,
  ops: [{ kind: 'combine', step: 'h', effect: 'cut', tools }],
})

describe('a lifted section', () => {
  test.each([
    ['a shaft', shaft],
    ['a tube', tube],
    [
      'two rings',
      { regions: [...tube.regions, ...outline('t', [40, 3], [45, 3], [45, 8]).regions] },
    ],
  ])('of %s has its exact volume, area and moments, and is watertight', (_, section) => {
    const built = kernel.build({ base: section, ops: [] }, 0.05)
    const exact = solidProperties(section)
    expect(built.valid).toBe(true)
    const { figures } = built
    expect((figures?.volume ?? 0) / (exact?.volume ?? 1)).toBeCloseTo(1, 11)
    expect((figures?.area ?? 0) / (exact?.area ?? 1)).toBeCloseTo(1, 11)
    expect(figures?.centreX).toBeCloseTo(exact?.centreX ?? 0, 8)
    expect((figures?.inertiaAxis ?? 0) / (exact?.inertiaAxis ?? 1)).toBeCloseTo(1, 9)
    expect((figures?.inertiaAcross ?? 0) / (exact?.inertiaAcross ?? 1)).toBeCloseTo(1, 9)
    expect(figures?.radius).toBeCloseTo(exact?.radius ?? 0, 5)
    expect(watertight(built.mesh)).toBe(true)
  })

  test('names its faces after the edges of the section', () => {
    const names = kernel.build({ base: shaft, ops: [] }, 0.05).mesh.faces.map((f) => f.name)
    expect([...new Set(names)].sort()).toEqual(['s/e1', 's/e2', 's/e3', 's/e4', 's/e5'])
  })
})

describe('holes', () => {
  test('take away their cylinders, and their walls are told apart', () => {
    const plan = cut(shaft, drill(2, 10, 14, 0, '@1'), drill(2, 10, -14, 0, '@2'))
    const { figures, mesh, valid } = kernel.build(plan, 0.05)
    expect(valid).toBe(true)
    const whole = solidProperties(shaft)?.volume ?? 0
    expect(whole - (figures?.volume ?? 0)).toBeCloseTo(2 * Math.PI * 4 * 10, 6)
    const names = mesh.faces.map((f) => f.name)
    expect(names).toContain('h/e2@1')
    expect(names).toContain('h/e2@2')
    expect(names).toContain('s/e2')
    expect(watertight(mesh)).toBe(true)
  })

  test('put the centre of mass off the axis when they are on one side', () => {
    const { figures } = kernel.build(cut(shaft, drill(2, 10, 14, 0)), 0.05)
    const [whole, hole] = [solidProperties(shaft)?.volume ?? 0, 40 * Math.PI]
    expect(figures?.centre.x).toBeCloseTo((-14 * hole) / (whole - hole), 9)
    expect(figures?.centre.y).toBeCloseTo(0, 9)
  })

  test('that take everything leave nothing, and say so', () => {
    const { figures } = kernel.build(cut(tube, drill(50, 60, 0, 0)), 0.05)
    expect(figures).toBeUndefined()
  })
})

describe('part turns, prisms and polygons', () => {
  test('a part turn has its share of the full one, wherever it begins', () => {
    const turn = { from: 0.3, by: 2 }
    const plan: SolidPlan = {
      base: EMPTY_SECTION,
      ops: [
        {
          ...{ kind: 'combine', step: 'p', effect: 'add' },
          tools: [{ kind: 'turned', section: tube, frame: PART_FRAME, turn, mark: '' }],
        },
      ],
    }
    const { figures, mesh, valid } = kernel.build(plan, 0.05)
    const whole = solidProperties(tube)?.volume ?? 0
    expect((figures?.volume ?? 0) / ((whole * 2) / (2 * Math.PI))).toBeCloseTo(1, 11)
    expect(valid && watertight(mesh)).toBe(true)
    // Its middle lies in the direction half way round.
    const { x = 0, y = 0 } = figures?.centre ?? {}
    expect(Math.atan2(y, x)).toBeCloseTo(1.3, 9)
    expect(mesh.faces.map((f) => f.name)).toEqual(expect.arrayContaining(['p/first', 'p/last']))
  })

  test('a polygon of n sides to the flats has the area of one', () => {
    for (const sides of [3, 6, 8]) {
      const plan: SolidPlan = {
        base: EMPTY_SECTION,
        ops: [
          {
            ...{ kind: 'combine', step: 'f', effect: 'add' },
            tools: [{ kind: 'facets', section: shaft, sides, phase: 0.2, mark: '' }],
          },
        ],
      }
      const { figures, mesh, valid } = kernel.build(plan, 0.05)
      const share = sides * Math.tan(Math.PI / sides)
      const wanted = share * (20 * 20 * 25 + 10 * 10 * 15)
      expect((figures?.volume ?? 0) / wanted).toBeCloseTo(1, 9)
      expect(valid && watertight(mesh)).toBe(true)
    }
  })
})

describe('what cannot be built', () => {
  test('is told as a fault, and the next thing builds again', () => {
    const bad: SolidPlan = { base: EMPTY_SECTION, ops: [] }
    expect(() => kernel.build(bad, 0.05)).toThrow(KernelFault)
    expect(kernel.build({ base: tube, ops: [] }, 0.05).valid).toBe(true)
  })
})
