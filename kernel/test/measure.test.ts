import { beforeAll, describe, expect, test } from 'vitest'
import { place, vec } from '@lathica/core/geometry'
import { addChecks, addStep } from '@lathica/core/edit'
import { checkStates, figureValue, figuresOf, leastWall, pickedIn } from '@lathica/core/inspect'
import type { Figure, NewStep, Part } from '@lathica/core/part'
import { evaluate, type PartState } from '@lathica/core/route'
import { rectangleOf, turnedTool, type SolidPlan, type SolidShape } from '@lathica/core/solid'
import { createRandom } from '@lathica/core/solver'
import { KernelFault, settlePlans, type Kernel } from '../src'
import { key, run, spindle } from './support'
import { cutBy, drilled, type Hole } from './support/bored'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const shape = (plan: SolidPlan, name: string): SolidShape => {
  const told = kernel.measure({ kind: 'shape', plan, name })
  if (!('size' in told)) throw new Error('no shape')
  return told
}
const way = (plan: SolidPlan, a: string, b: string) => {
  const [from, to] = [a, b].map((name) => ({ kind: 'on', plan, name }) as const)
  const told = from && to && kernel.measure({ kind: 'apart', from, to })
  if (!told || !('distance' in told)) throw new Error('no way')
  return told
}
const wall = (plan: SolidPlan) => {
  const least = leastWall(plan.base)
  const told = kernel.measure({ kind: 'wall', plan, turned: least && [least.from, least.to] })
  if (!('distance' in told)) throw new Error('no wall')
  return told
}

/** A disc with holes through it, each at a place of its own. */
function disc(radius: number, thick: number, holes: readonly Partial<Hole>[]): SolidPlan {
  const plain = { from: 'left', radius: 3, head: 0, deep: thick + 3, tip: false } as const
  const tools = holes.map((h, n) => ({
    ...drilled(thick, { ...plain, far: 20, angle: 0, ...h }),
    mark: `@${n + 1}`,
  }))
  return cutBy(rectangleOf('disc', vec(0, 0), vec(thick, radius)), tools)
}

describe('what faces and edges are', () => {
  const plan = disc(40, 10, [{ angle: 0.3 }, { angle: 2 }])
  const built = () => kernel.build(plan, 0.05).mesh

  test('walls of holes, end faces with what was taken from them, and their edges', () => {
    const names = new Set(built().faces.map((f) => f.name))
    const shapes = [...names].map((name) => ({ name, ...shape(plan, name) }))
    const walls = shapes.filter((s) => s.kind === 'cylinder' && Math.abs(s.radius - 3) < 1e-9)
    expect(walls).toHaveLength(2)
    for (const w of walls) {
      expect(w.size).toBeCloseTo(2 * Math.PI * 3 * 10, 8)
      expect(Math.hypot(w.at.x, w.at.y)).toBeCloseTo(20, 9)
      expect(Math.abs(w.way.z)).toBeCloseTo(1, 12)
    }
    const ends = shapes.filter((s) => s.kind === 'plane')
    expect(ends).toHaveLength(2)
    for (const e of ends) expect(e.size).toBeCloseTo(Math.PI * (1600 - 2 * 9), 7)
    const [end, one] = [ends[0], walls[0]]
    const rim = built().rims?.find(
      (r) => r.key.includes(end?.name ?? '?') && r.key.includes(one?.name ?? '?'),
    )
    expect(shape(plan, rim?.key ?? '')).toMatchObject({ kind: 'circle' })
    expect(shape(plan, rim?.key ?? '').size).toBeCloseTo(6 * Math.PI, 9)
  })

  test('what is not there is said', () => {
    expect(() => shape(plan, 's9/none')).toThrow(KernelFault)
    expect(() => shape(plan, 's9/a&s9/b')).toThrow('not on the solid any more')
  })
})

describe('distances on solids', () => {
  test('between holes, from a hole to the outside, and of whole bodies', () => {
    const plan = disc(40, 10, [{ angle: 0 }, { angle: Math.PI / 2, radius: 4 }])
    const names = [...new Set(kernel.build(plan, 0.05).mesh.faces.map((f) => f.name))]
    const round = (r: number) =>
      names.find((n) => {
        const s = shape(plan, n)
        return s.kind === 'cylinder' && Math.abs(s.radius - r) < 1e-9
      }) ?? ''
    expect(way(plan, round(3), round(4)).distance).toBeCloseTo(20 * Math.SQRT2 - 7, 7)
    const out = way(plan, round(4), round(40))
    expect(out.distance).toBeCloseTo(40 - 24, 9)
    expect(Math.hypot(out.to.x, out.to.y)).toBeCloseTo(40, 9)
    const pin: SolidPlan = { base: rectangleOf('pin', vec(2, 0), vec(4, 1)), ops: [] }
    const gap = kernel.measure({
      kind: 'apart',
      from: { kind: 'on', plan: pin, name: '' },
      to: { kind: 'on', plan: disc(40, 10, [{ far: 0, radius: 5 }]), name: '' },
    })
    expect(gap).toMatchObject({ within: 0 })
    expect('distance' in gap && gap.distance).toBeCloseTo(4, 9)
    const toAxis = kernel.measure({
      kind: 'apart',
      from: { kind: 'axis' },
      to: { kind: 'on', plan, name: round(3) },
    })
    expect('distance' in toAxis && toAxis.distance).toBeCloseTo(17, 9)
    const fromPlace = kernel.measure({
      kind: 'apart',
      from: { kind: 'at', at: place(0, 0, -7) },
      to: { kind: 'on', plan, name: '' },
    })
    expect('distance' in fromPlace && fromPlace.distance).toBeCloseTo(7, 9)
  })
})

describe('the least wall', () => {
  test('of discs with holes is the least of all distances there are', () => {
    const random = createRandom(20_613)
    for (let i = 0; i < 12; i++) {
      const [radius, thick] = [40 + 20 * random(), 6 + 10 * random()]
      const count = 2 + Math.floor(5 * random())
      const holes = Array.from({ length: count }, (_, n) => ({
        far: 14 + (radius - 24) * random(),
        radius: 1 + 2.5 * random(),
        angle: (2 * Math.PI * (n + 0.3 * random())) / count,
      }))
      const at = holes.map((h) => [h.far * Math.cos(h.angle), h.far * Math.sin(h.angle)] as const)
      const between = holes.flatMap((a, k) =>
        holes.slice(0, k).map((b, j) => {
          const [[ax, ay] = [0, 0], [bx, by] = [0, 0]] = [at[k], at[j]]
          return Math.hypot(ax - bx, ay - by) - a.radius - b.radius
        }),
      )
      const edges = holes.map((h) => radius - h.far - h.radius)
      const expected = Math.min(thick, ...between, ...edges)
      if (expected < 0.05) continue
      const told = wall(disc(radius, thick, holes))
      expect(told.within).toBe(0)
      expect(told.distance).toBeCloseTo(expected, 6)
    }
  })

  test('over a cross hole, and between it and a shoulder, is told at its place', () => {
    const base = rectangleOf('bar', vec(0, 0), vec(60, 10))
    const frame = { at: place(0, 0, 8), x: place(0, 0, 1), z: place(0, 1, 0) }
    const cross = turnedTool(rectangleOf('cross', vec(-12, 0), vec(24, 3)), frame, '')
    const told = wall(cutBy(base, [cross]))
    // From the end face at 0 to the hole about z = 8.
    expect(told.distance).toBeCloseTo(5, 6)
    expect(Math.min(told.from.z, told.to.z)).toBeCloseTo(0, 6)
    expect(Math.max(told.from.z, told.to.z)).toBeCloseTo(5, 6)
  })

  test('is that of the full turn where the solid still has it', () => {
    const tube = rectangleOf('tube', vec(0, 20), vec(50, 22.5))
    const frame = { at: place(0, 0, 25), x: place(0, 0, 1), z: place(1, 0, 0) }
    const hole = turnedTool(rectangleOf('hole', vec(0, 0), vec(30, 4)), frame, '')
    expect(wall(cutBy(tube, [hole]))).toMatchObject({ within: 0 })
    expect(wall(cutBy(tube, [hole])).distance).toBeCloseTo(2.5, 9)
  })
})

describe('figures of a part with holes', () => {
  const holes = (circle: string): NewStep => ({
    ...{ kind: 'holes', body: 'body1', way: 'end', on: '', layout: 'circle', sketch: '' },
    ...{ circle, count: '4', start: '0', range: '', skip: [], places: [], from: '', distance: '' },
    ...{ diameter: '4', reach: 'depth', depth: '12', tip: 'flat', tipAngle: '', head: 'none' },
    ...{ headDiameter: '', headDepth: '', headAngle: '', thread: '' },
  })
  const drilledSpindle = (circle: string): Part => {
    const plain = spindle()
    return run(plain, addStep({ ...holes(circle), on: key(plain, 'face at 0') } as NewStep))
  }
  const settled = (part: Part): PartState =>
    settlePlans(
      part,
      (plan) => kernel.weigh(plan),
      (ask) => kernel.measure(ask),
    )
  const pick = (name: string) => ({ body: 'body1', key: name })
  const wallOf = (n: number): string => `step3/wall@${n}`

  test('are told by rows of the sheet once they are measured', () => {
    const part = drilledSpindle('26')
    const names = new Set(
      kernel
        .build(evaluate(part).bodies[0]?.plan ?? { base: { regions: [] }, ops: [] }, 0.1)
        .mesh.faces.map((f) => f.name),
    )
    const walls = [...names].filter((n) => /wall/.test(n)).sort()
    expect(walls).toHaveLength(4)
    const [a = '', b = ''] = walls
    const rows: readonly Figure[] = [
      { kind: 'axes', picks: [pick(a), { body: '', key: 'axis' }] },
      { kind: 'pickDiameter', picks: [pick(a)] },
      { kind: 'pickArea', picks: [pick(key(part, 'face at 0'))] },
      { kind: 'distance', picks: [pick(a), pick(key(part, 'cylinder ⌀40'))] },
      { kind: 'wall', body: 'body1' },
      { kind: 'distance', picks: [pick('step9/wall'), pick(b)] },
      { kind: 'axial', picks: [pick(key(part, 'face at 0')), pick(key(part, 'face at 20'))] },
    ]
    const asked = run(part, addChecks(rows.map((figure) => ({ figure }))))
    // Without the kernel they are open, but for what the half-section tells.
    const open = checkStates(evaluate(asked)).map((r) => r.measured?.value)
    expect(open).toEqual([undefined, undefined, undefined, undefined, undefined, undefined, 20])
    const state = settled(asked)
    const told = checkStates(state)
    const values = told.map((r) => r.measured?.value ?? NaN)
    expect(values[0]).toBeCloseTo(13, 9)
    expect(values[1]).toBeCloseTo(4, 9)
    expect(values[2]).toBeCloseTo(Math.PI * (400 - 4 * 4), 7)
    expect(values[3]).toBeCloseTo(20 - 15, 7)
    // From the floors at 12 to the shoulder at 20 it is 8.
    expect(values[4]).toBeCloseTo(5, 6)
    expect(told[4]?.measured?.within).toBeUndefined()
    expect(told[5]?.problem?.message).toContain('not on the solid any more')
    expect(told[3]?.words).toContain('from step')
    // Two neighbours on the circle: their axes lie a chord apart.
    const between = { kind: 'axes', picks: [pick(a), pick(b)] } as const
    const more = settled(run(asked, addChecks([{ figure: between }])))
    const chord = figureValue(between, more.part, more.bodies)
    const possible = [13 * Math.SQRT2, 26]
    expect(possible.some((c) => chord.ok && Math.abs(chord.value.value - c) < 1e-9)).toBe(true)
  })

  test('have the figures that their shapes allow, once those are told', () => {
    const part = drilledSpindle('28')
    const { bodies } = settled(part)
    const face = pickedIn(bodies, pick('step3/wall@1'))
    expect(figuresOf(face ? [face] : [])).toContain('pickArea')
    expect(pickedIn(evaluate(spindle()).bodies, pick(wallOf(1)))).toBeUndefined()
  })
})
