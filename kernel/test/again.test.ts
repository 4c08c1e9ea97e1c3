import { beforeAll, describe, expect, test } from 'vitest'
import { PART_FRAME, turnedFrame } from '@lathica/core/geometry'
import { meetingKey } from '@lathica/core/names'
import { mirroredOp, type BodyTool, type SolidPlan } from '@lathica/core/solid'
import type { MirrorStep, NewStep, Part } from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import { addStep, offeredStep } from '@lathica/core/edit'
import type { Kernel } from '../src'
import { bodyOf, builtBy, changeBy, key, problemOf, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const HOLE = {
  ...{ kind: 'holes', body: 'body1', way: 'end', layout: 'circle', sketch: '', circle: '35' },
  ...{ count: '1', start: '', range: '', skip: [], places: [], from: '', distance: '' },
  ...{ diameter: '3', reach: 'through', depth: '', tip: 'flat', tipAngle: '118', head: 'none' },
  ...{ headDiameter: '', headDepth: '', headAngle: '90', thread: '' },
} as const

/** A hole through the thick land, with its mouths bevelled. */
function bevelled(pick?: (hole: string, face: string) => object): Part {
  const part = spindle()
  const face = key(part, 'face at 0')
  const drilled = run(part, addStep({ ...HOLE, on: face } as unknown as NewStep))
  const hole = drilled.route.at(-1)?.id ?? ''
  const chamfer = {
    ...{ kind: 'chamfer', body: 'body1' },
    sets: [
      {
        pick: pick?.(hole, face) ?? { kind: 'step', step: hole },
        ...{ along: '0.5', across: '', angle: '45' },
      },
    ],
  } as NewStep
  return run(drilled, addStep(chamfer))
}

/** What one hole takes away, and what one of its mouths does. */
const OWN = Math.PI * 2.25 * 20
const MOUTH = Math.PI * 0.25 * (1.5 + 0.5 / 3)

const lastTwo = (part: Part): string[] => part.route.slice(-2).map((s) => s.id)

describe('rounds and bevels of edges', () => {
  test('are repeated round the axis with the holes they are of', () => {
    const one = bevelled()
    expect(changeBy(kernel, one)).toBeCloseTo(-(OWN + 2 * MOUTH), 6)
    const steps = lastTwo(one)
    const around = { kind: 'around', steps, count: '5', range: '' } as unknown as NewStep
    const five = run(one, addStep(around))
    expect(changeBy(kernel, five)).toBeCloseTo(-5 * (OWN + 2 * MOUTH), 6)
    expect(builtBy(kernel, five).figures?.centre.x).toBeCloseTo(0, 9)
    // In whichever order they were chosen.
    const turned = run(one, addStep({ ...around, steps: [...steps].reverse() } as NewStep))
    expect(changeBy(kernel, turned)).toBeCloseTo(-5 * (OWN + 2 * MOUTH), 6)
    const alone = run(one, addStep({ ...around, steps: steps.slice(1) } as NewStep))
    expect(problemOf(alone)).toContain('with them the rounds and bevels of their edges')
  })

  test('that were picked one by one are found on the copies', () => {
    const one = bevelled((hole, face) => ({
      kind: 'solid',
      edges: [meetingKey(wallOf(hole), face)],
    }))
    expect(changeBy(kernel, one)).toBeCloseTo(-(OWN + MOUTH), 6)
    const steps = lastTwo(one)
    const around = { kind: 'around', steps, count: '3', range: '' } as unknown as NewStep
    expect(changeBy(kernel, run(one, addStep(around)))).toBeCloseTo(-3 * (OWN + MOUTH), 6)
  })

  test('are repeated along the axis with a cross hole, each as often', () => {
    const part = spindle()
    const cross = {
      ...{ ...HOLE, way: 'cross', on: '', distance: '8', diameter: '4', circle: '' },
      from: key(part, 'face at 0'),
    }
    const drilled = run(part, addStep(cross as unknown as NewStep))
    const hole = drilled.route.at(-1)?.id ?? ''
    const rounds = {
      ...{ kind: 'fillet', body: 'body1' },
      sets: [{ pick: { kind: 'step', step: hole }, radius: '0.3' }],
    }
    const once = run(drilled, addStep(rounds as unknown as NewStep))
    const own = changeBy(kernel, once)
    // The rounds of both mouths take a little more than the hole.
    expect(own).toBeLessThan(changeBy(kernel, drilled))
    const repeat = { kind: 'repeat', steps: lastTwo(once), count: '2', pitch: '6' }
    const twice = run(once, addStep(repeat as unknown as NewStep))
    expect(changeBy(kernel, twice)).toBeCloseTo(2 * own, 5)
    const without = run(drilled, addStep({ ...repeat, steps: [hole] } as unknown as NewStep))
    expect(changeBy(kernel, twice)).toBeLessThan(changeBy(kernel, without))
  })

  test('on faces that others made are repeated and mirrored with those', () => {
    const one = bevelled()
    const bevels = one.route.at(-1)?.id ?? ''
    const lastThree = (part: Part): string[] => part.route.slice(-3).map((s) => s.id)
    const softened = (pick: object): Part =>
      run(
        one,
        addStep({
          ...{ kind: 'fillet', body: 'body1' },
          sets: [{ pick, radius: '0.2' }],
        } as unknown as NewStep),
      )
    const { mesh } = builtBy(kernel, one)
    const rims = (mesh.rims ?? []).map((r) => r.key).filter((k) => k.includes(`${bevels}/bevel`))
    expect(rims.length).toBeGreaterThan(1)
    for (const pick of [
      { kind: 'step', step: bevels },
      { kind: 'solid', edges: rims.slice(0, 1) },
    ]) {
      const soft = softened(pick)
      const own = changeBy(kernel, soft)
      expect(own).not.toBeCloseTo(changeBy(kernel, one), 3)
      const around = { kind: 'around', steps: lastThree(soft), count: '3', range: '' }
      const three = run(soft, addStep(around as unknown as NewStep))
      expect(changeBy(kernel, three)).toBeCloseTo(3 * own, 5)
      expect(builtBy(kernel, three).figures?.centre.x).toBeCloseTo(0, 7)
      const { section } = bodyOf(soft)
      const offered = offeredStep('mirror', 'body1', section, undefined, soft.units) as MirrorStep
      const way = { way: 'along', angle: '90', steps: lastThree(soft) } as const
      const both = run(soft, addStep({ ...offered, ...way } as NewStep))
      expect(changeBy(kernel, both)).toBeCloseTo(2 * own, 5)
    }
  })

  test('are mirrored with them', () => {
    const one = bevelled()
    const { section } = bodyOf(one)
    const offered = offeredStep('mirror', 'body1', section, undefined, one.units) as MirrorStep
    const way = { way: 'along', angle: '90', steps: lastTwo(one) } as const
    const both = run(one, addStep({ ...offered, ...way } as NewStep))
    expect(changeBy(kernel, both)).toBeCloseTo(-2 * (OWN + 2 * MOUTH), 6)
    expect(builtBy(kernel, both).figures?.centre.x).toBeCloseTo(0, 9)
  })
})

/** The wall of the only hole of a step, as the kernel names it. */
function wallOf(step: string): string {
  const part = bevelled()
  const names = builtBy(kernel, part).mesh.faces.map((f) => f.name)
  const found = names.find((n) => n.startsWith(`${step}/`) && n.includes('wall'))
  if (found === undefined) throw new Error(`no wall among ${names.join(' ')}`)
  return found
}

describe('mirrored bodies', () => {
  test('come back where they were when they are mirrored again', () => {
    const part = bevelled()
    const { plan } = bodyOf(part)
    if (!plan) throw new Error('it is a full turn')
    const first = { at: { x: 3, y: -2, z: 5 }, normal: { x: 0.6, y: 0, z: 0.8 } }
    const second = { at: { x: 0, y: 0, z: 12 }, normal: { x: 0, y: 0, z: 1 } }
    const tool: BodyTool & { mark: string } = {
      ...{ kind: 'body', plan, mirror: first, frame: turnedFrame(PART_FRAME, 0.4), mark: '' },
    }
    const op = { kind: 'combine', step: 'm', effect: 'add', tools: [tool] } as const
    const again = { step: 'm', mark: '', sources: new Map() }
    const image = mirroredOp(op, again, second)
    const back = image && mirroredOp(image, again, second)
    const centre = (made: typeof image) => {
      if (!made) throw new Error('it has no image')
      const whole: SolidPlan = { base: { regions: [] }, ops: [made] }
      return kernel.build(whole, 0.2).figures
    }
    const [one, two, three] = [centre(op), centre(image), centre(back)]
    expect(two?.volume).toBeCloseTo(one?.volume ?? 0, 6)
    for (const c of ['x', 'y'] as const) expect(two?.centre[c]).toBeCloseTo(one?.centre[c] ?? 0, 9)
    expect(two?.centre.z).toBeCloseTo(24 - (one?.centre.z ?? 0), 9)
    for (const c of ['x', 'y', 'z'] as const) {
      expect(three?.centre[c]).toBeCloseTo(one?.centre[c] ?? 0, 9)
    }
    expect(evaluate(part).steps.every((s) => s.status === 'done')).toBe(true)
  })
})
