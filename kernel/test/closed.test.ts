import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from 'vitest'
import { place, vec } from '@lathica/core/geometry'
import { readPartFile } from '@lathica/core/formats'
import { evaluate } from '@lathica/core/route'
import { createRandom } from '@lathica/core/solver'
import {
  closedFigures,
  lookingOut,
  prismTool,
  rectangleOf,
  slotOf,
  turnedTool,
  type LiftedProperties,
  type SolidPlan,
  type SolidTool,
} from '@lathica/core/solid'
import { outlineOf } from '../../core/test/support/sections'
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

const FIGURES: readonly (keyof LiftedProperties)[] = [
  ...(['volume', 'area', 'centreX', 'inertiaAxis', 'inertiaAcross'] as const),
  ...(['from', 'to', 'radius', 'pieces'] as const),
]

const EXTENTS: readonly string[] = ['from', 'to', 'radius']

/** @param moments how far moments may lie apart, as a share: the kernel integrates over what is bent less exactly */
function expectSame(plan: SolidPlan, moments = 1e-9): void {
  const closed = closedFigures(plan)
  const weighed = kernel.weigh(plan)
  if (!closed || !weighed) throw new Error('nothing was weighed')
  for (const name of FIGURES) {
    const [a, b] = [closed[name] as number, weighed[name] as number]
    const share = name.startsWith('inertia') ? moments : 1e-9
    // The kernel tells extents with a margin of its own.
    const most = EXTENTS.includes(name) ? 3e-7 : share * Math.max(1, Math.abs(b))
    expect(Math.abs(a - b), `${name}: ${a}, ${b}`).toBeLessThan(most)
  }
  for (const way of ['x', 'y', 'z'] as const) {
    expect(closed.centre[way]).toBeCloseTo(weighed.centre[way], 8)
  }
}

describe('figures in closed form', () => {
  test('are those of the kernel, whatever is drilled', () => {
    const random = createRandom(5)
    for (let i = 0; i < 60; i++) expectSame(anyDrilled(random))
  })

  test('are those of the kernel, whatever is milled into lands', () => {
    const random = createRandom(9)
    for (let i = 0; i < 60; i++) expectSame(anyMilled(random), 1e-6)
  })

  test('are those of the kernel, whatever is drilled across', () => {
    const random = createRandom(3)
    for (let i = 0; i < 40; i++) {
      const { plan, isTold } = anyCrossed(random, i % 3)
      if (isTold) expectSame(plan, 1e-6)
      else expect(closedFigures(plan)).toBeUndefined()
    }
  })

  test('are those of the kernel, whatever is cut through between plane faces', () => {
    const random = createRandom(4)
    for (let i = 0; i < 30; i++) expectSame(anyOpened(random), 1e-7)
  })

  test('agree with known formulas', () => {
    const shaft = outlineOf([
      { at: vec(0, 0) },
      { at: vec(50, 0) },
      { at: vec(50, 10) },
      { at: vec(0, 10) },
    ])
    const cut = (tools: SolidTool[]): SolidPlan => cutBy(shaft, tools)
    const frame = { at: place(0, 0, 0), x: place(1, 0, 0), z: place(0, 0, 1) }
    // Half of the width across is left: a segment of 120°, r²(2π/3 − √3/2)/2 in area.
    const flat = prismTool(rectangleOf('flat', vec(5, -11), vec(11, 11)), frame, -1, 20, '')
    const whole = Math.PI * 100 * 50
    const part = 50 * ((2 * Math.PI) / 3 - Math.sqrt(3) / 2) * 20
    expect(closedFigures(cut([flat]))?.volume).toBeCloseTo(whole - part, 9)
    // A hole of the shaft’s own size nearly: what two cylinders of one radius share is 16r³/3.
    const section = rectangleOf('hole', vec(-1, 0), vec(41, 10 - 2e-4))
    const across = { at: place(20, 0, 25), x: place(0, 0, 1), z: place(-1, 0, 0) }
    const shared = (closedFigures(cut([turnedTool(section, across, '')]))?.volume ?? 0) - whole
    expect(-shared / ((16 * 1000) / 3)).toBeCloseTo(1, 4)
  })

  test.each(readdirSync(new URL('../../demo/', import.meta.url)))(
    'are those of the kernel in %s, where there are some',
    (file) => {
      const read = readPartFile(
        readFileSync(new URL(`../../demo/${file}`, import.meta.url), 'utf8'),
      )
      if (!read.ok) throw new Error(read.problem.message)
      const plans = evaluate(read.value).bodies.flatMap((b) => b.plan ?? [])
      for (const plan of plans) if (closedFigures(plan)) expectSame(plan, 1e-7)
      // The housings are drilled between plane faces.
      if (file.startsWith('end-bearing')) expect(plans.some(closedFigures)).toBe(true)
    },
  )

  test.each([
    [
      'holes that touch',
      [
        { far: 30, angle: 0 },
        { far: 30, angle: 0.1 },
      ],
    ],
    ['a hole that breaks out of the rim', [{ far: 59, angle: 0 }]],
    ['a hole into the hub', [{ far: 17, angle: 0 }]],
    ['a hole about the axis', [{ far: 0, angle: 0 }]],
  ])('are left to the kernel of %s', (_, places) => {
    const tools = places.map((p) =>
      drilled(12, { ...p, from: 'right', radius: 3, head: 0, deep: 15, tip: false }),
    )
    const plan: SolidPlan = cutBy(flange(60, 12, 16, 5), tools)
    expect(closedFigures(plan)).toBeUndefined()
  })

  /** Two lands with a bore, as a shaft that is milled. */
  const shaft = outlineOf([
    { at: vec(0, 4) },
    { at: vec(60, 4) },
    { at: vec(60, 20) },
    { at: vec(30, 20) },
    { at: vec(30, 12) },
    { at: vec(0, 12) },
  ])
  const keyway = (from: number, to: number, floor = 9, top = 16) =>
    prismTool(slotOf('key', from, to, 4), lookingOut(0), floor, top, '')
  const flatAt = (turn: number, floor: number, to: number) => {
    const frame = { at: place(0, 0, 0), x: lookingOut(turn).z, z: place(0, 0, 1) }
    return prismTool(rectangleOf('flat', vec(floor, -40), vec(40, 40)), frame, -1, to, '')
  }
  const hole = (at: number) =>
    turnedTool(
      rectangleOf('hole', vec(-1, 0), vec(60, 1)),
      { at: place(25, 0, at), x: place(0, 0, 1), z: place(-1, 0, 0) },
      '',
    )

  test.each<readonly [string, readonly SolidTool[]]>([
    ['a keyway that opens the bore', [keyway(5, 20, 3)]],
    ['a keyway that runs under what stands over it', [keyway(5, 35)]],
    ['a keyway as deep as its land', [keyway(5, 20, 12)]],
    ['a hole through a keyway', [keyway(5, 20), hole(12)]],
    ['a hole through the edge of a land', [hole(30.5)]],
    ['flats that meet', [flatAt(0, 6, 25), flatAt(Math.PI / 3, 6, 25)]],
    ['a flat that ends all but in a face', [flatAt(0, 9, 30.00001)]],
    ['a hole off the axis', [{ ...hole(12), frame: { ...hole(12).frame, at: place(25, 1, 12) } }]],
  ])('are left to the kernel of %s', (_, tools) => {
    const plan = (all: readonly SolidTool[]): SolidPlan => cutBy(shaft, all)
    expect(closedFigures(plan([keyway(5, 12), hole(20)]))).toBeDefined()
    expect(closedFigures(plan(tools))).toBeUndefined()
  })

  test('are left to the kernel where something else was done', () => {
    const tools = [
      drilled(12, { from: 'right', far: 30, angle: 0, radius: 3, head: 0, deep: 15, tip: false }),
    ]
    const base = flange(60, 12, 16, 5)
    const cut = { kind: 'combine', step: 's1', effect: 'cut', tools } as const
    expect(closedFigures({ base, ops: [cut] })).toBeDefined()
    expect(closedFigures({ base, ops: [{ ...cut, effect: 'add' }] })).toBeUndefined()
    expect(
      closedFigures({ base, ops: [cut, { kind: 'shell', step: 's2', thickness: 1, open: [] }] }),
    ).toBeUndefined()
    const half = tools.map((t) => ({ ...t, turn: { from: 0, by: 3 } }))
    expect(closedFigures({ base, ops: [{ ...cut, tools: half }] })).toBeUndefined()
  })
})
