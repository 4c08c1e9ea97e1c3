import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from 'vitest'
import { place, vec } from '@lathica/core/geometry'
import { readPartFile } from '@lathica/core/formats'
import { evaluate } from '@lathica/core/route'
import { createRandom } from '@lathica/core/solver'
import {
  closedFigures,
  turnedTool,
  type LiftedProperties,
  type SolidPlan,
} from '@lathica/core/solid'
import { outlineOf } from '../../core/test/support/sections'
import { loadKernel, type Kernel } from '../src'

let kernel: Kernel
beforeAll(async () => {
  kernel = await loadKernel()
})

/** A flange with a hub to its right and a bore, if it is wide. */
function flange(radius: number, thick: number, hub: number, bore: number) {
  return outlineOf(
    [
      [0, bore],
      [thick + 20, bore],
      [thick + 20, hub],
      [thick, hub],
      [thick, radius],
      [0, radius],
    ].map(([x = 0, y = 0]) => ({ at: vec(x, y) })),
  )
}

interface Hole {
  readonly from: 'left' | 'right'
  readonly far: number
  readonly angle: number
  readonly radius: number
  /** Of its head, 0 for none. */
  readonly head: number
  readonly deep: number
  readonly tip: boolean
}

/** A hole from a face, with a counterbore and a cone at its end. */
function drilled(thick: number, { from, far, angle, radius, head, deep, tip }: Hole) {
  const outline = [
    [-2, 0],
    [deep + (tip ? radius * 0.6 : 0), 0],
    [deep, radius],
    ...(head > 0
      ? [
          [deep / 3, radius],
          [deep / 3, head],
          [-2, head],
        ]
      : [[-2, radius]]),
  ]
  const section = outlineOf(outline.map(([x = 0, y = 0]) => ({ at: vec(x, y) })))
  const way = from === 'left' ? 1 : -1
  const frame = {
    at: place(far * Math.cos(angle), far * Math.sin(angle), from === 'left' ? 0 : thick),
    ...{ x: place(1, 0, 0), z: place(0, 0, way) },
  }
  return turnedTool(section, frame, '')
}

const FIGURES: readonly (keyof LiftedProperties)[] = [
  ...(['volume', 'area', 'centreX', 'inertiaAxis', 'inertiaAcross'] as const),
  ...(['from', 'to', 'radius', 'pieces'] as const),
]

/** @param moments how far moments may lie apart, as a share: the kernel integrates over what is bent less exactly */
function expectSame(plan: SolidPlan, moments = 1e-9): void {
  const closed = closedFigures(plan)
  const weighed = kernel.weigh(plan)
  if (!closed || !weighed) throw new Error('nothing was weighed')
  for (const name of FIGURES) {
    const [a, b] = [closed[name] as number, weighed[name] as number]
    expect(Math.abs(a - b), `${name}: ${a}, ${b}`).toBeLessThan(
      (name.startsWith('inertia') ? moments : 1e-9) * Math.max(1, Math.abs(b)),
    )
  }
  for (const way of ['x', 'y', 'z'] as const) {
    expect(closed.centre[way]).toBeCloseTo(weighed.centre[way], 8)
  }
}

describe('figures in closed form', () => {
  test('are those of the kernel, whatever is drilled', () => {
    const random = createRandom(5)
    const between = (a: number, b: number): number => a + random() * (b - a)
    for (let i = 0; i < 60; i++) {
      const thick = between(8, 25)
      const [hub, radius] = [between(14, 20), between(50, 70)]
      const base = flange(radius, thick, hub, random() < 0.5 ? between(3, 10) : 0)
      const count = 1 + Math.floor(random() * 8)
      const head = random() < 0.5 ? between(3.2, 5) : 0
      const hole: Omit<Hole, 'angle'> = {
        from: random() < 0.5 ? 'left' : 'right',
        ...{ far: between(28, radius - 8), radius: between(1, 3), head },
        ...{ deep: random() < 0.5 ? thick + 3 : between(2, thick * 0.7), tip: random() < 0.5 },
      }
      const start = between(0, 6)
      const tools = Array.from({ length: count }, (_, n) =>
        drilled(thick, { ...hole, angle: start + (2 * Math.PI * n) / count }),
      )
      expectSame({ base, ops: [{ kind: 'combine', step: 's1', effect: 'cut', tools }] })
    }
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
    const plan: SolidPlan = {
      base: flange(60, 12, 16, 5),
      ops: [{ kind: 'combine', step: 's1', effect: 'cut', tools }],
    }
    expect(closedFigures(plan)).toBeUndefined()
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
