import { beforeAll, describe, expect, test } from 'vitest'
import { edgeKey, edgesOf, solidProperties } from '@lathica/core/section'
import { NOTHING_FOUND, planKey } from '@lathica/core/solid'
import {
  createPart,
  type NewStep,
  type Part,
  type RevolveStep,
  type Step,
} from '@lathica/core/part'
import { evaluate } from '@lathica/core/route'
import {
  addStep,
  changeStep,
  drawDraft,
  drawPiece,
  offeredHoles,
  rectangle,
  revolveOf,
} from '@lathica/core/edit'
import { KernelFault, settlePlans, withFault, type BuiltSolid, type Kernel } from '../src'
import { bodyOf, builtBy, changeBy, key, problemOf, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const built = (part: Part): BuiltSolid => builtBy(kernel, part)

/** What a step took away or added, in mm³, by the kernel. */
const change = (part: Part): number => changeBy(kernel, part)

const HOLE: NewStep = {
  ...{ kind: 'holes', body: 'body1', way: 'end', on: '', layout: 'circle', sketch: '' },
  circle: '30',
  ...{ count: '4', start: '', range: '', skip: [], places: [], from: '', distance: '' },
  ...{ diameter: '4', reach: 'depth', depth: '10', tip: 'flat', tipAngle: '118', head: 'none' },
  ...{ headDiameter: '', headDepth: '', headAngle: '90', thread: '' },
}
const withHole = (change: Partial<Extract<NewStep, { kind: 'holes' }>>): Part => {
  const part = spindle()
  return run(part, addStep({ ...HOLE, on: key(part, 'face at 0'), ...change } as NewStep))
}

describe('holes in an end face', () => {
  test('take away cylinders, with cone tips when asked for', () => {
    expect(change(withHole({}))).toBeCloseTo(-4 * Math.PI * 4 * 10, 6)
    const cone = (Math.PI * 4 * (2 / Math.tan((59 * Math.PI) / 180))) / 3
    expect(change(withHole({ tip: 'cone' }))).toBeCloseTo(-4 * (Math.PI * 4 * 10 + cone), 6)
  })

  test('go through the wall they begin at, or through all', () => {
    expect(change(withHole({ reach: 'wall', circle: '34' }))).toBeCloseTo(-4 * Math.PI * 4 * 20, 6)
    // On ⌀12 they run through the whole spindle.
    const through = change(withHole({ reach: 'through', circle: '12' }))
    expect(through).toBeCloseTo(-4 * Math.PI * 4 * 90, 6)
  })

  test('have counterbores, countersinks and spot faces', () => {
    const counter = withHole({ head: 'counterbore', headDiameter: '6', headDepth: '3' })
    expect(change(counter)).toBeCloseTo(-4 * Math.PI * (9 * 3 + 4 * 7), 6)
    const sunk = withHole({ head: 'countersink', headDiameter: '8' })
    const cone = (Math.PI * 2 * (16 + 8 + 4)) / 3
    expect(change(sunk)).toBeCloseTo(-4 * (cone + Math.PI * 4 * 8), 6)
  })

  test('are left out singly, and spread over a range or at places of their own', () => {
    expect(change(withHole({ skip: [2] }))).toBeCloseTo(-3 * Math.PI * 4 * 10, 6)
    const range = built(withHole({ range: '90' })).figures
    // Four over a quarter turn pull the centre of mass to the other side.
    expect(Math.atan2(range?.centre.y ?? 0, range?.centre.x ?? 0)).toBeCloseTo(
      Math.PI / 4 - Math.PI,
      6,
    )
    const places = [
      { diameter: '0', angle: '0' },
      { diameter: '24', angle: '30' },
    ]
    expect(change(withHole({ layout: 'places', places }))).toBeCloseTo(-2 * Math.PI * 4 * 10, 6)
  })

  test('off the face, too deep heads and lost faces are refused in words', () => {
    expect(problemOf(withHole({ circle: '50' }))).toContain('misses the face')
    expect(problemOf(withHole({ head: 'counterbore', headDiameter: '3' }))).toContain('no wider')
    const deep = withHole({ head: 'counterbore', headDiameter: '6', headDepth: '12' })
    expect(problemOf(deep)).toContain('as deep as the hole')
    expect(problemOf(withHole({ on: 'step9/l1' }))).toContain('no longer there')
    expect(problemOf(withHole({ count: '2.5' }))).toContain('whole number')
    const close = evaluate(withHole({ count: '40' })).steps.at(-1)
    expect(close?.notes.join()).toContain('run into one another')
  })

  test('offered first are six on a pitch circle that fit', () => {
    const part = spindle()
    const { section } = bodyOf(part)
    const face = edgesOf(section).find((e) => edgeKey(e.name) === key(part, 'face at 20'))
    if (!face) throw new Error('there is no shoulder')
    const drilled = run(part, addStep(offeredHoles('body1', face, section, part.units)))
    expect(problemOf(drilled)).toBe('')
    expect(change(drilled)).toBeLessThan(-10)
  })
})

describe('cross holes', () => {
  const cross = (change: Partial<Extract<NewStep, { kind: 'holes' }>>): Part =>
    withHole({ way: 'cross', on: '', distance: '75', count: '1', diameter: '6', ...change })

  test('go to a depth from the surface, through one wall, to the axis, through all', () => {
    // What a hole of r takes from a shaft of R, right through: Steinmetz, by a fine sum.
    const through = (r: number, R: number): number => {
      const n = 20000
      let sum = 0
      for (let i = 0; i < n; i++) {
        const y = -r + ((i + 0.5) * 2 * r) / n
        sum += 2 * Math.sqrt(r * r - y * y) * 2 * Math.sqrt(R * R - y * y)
      }
      return (sum * 2 * r) / n
    }
    const whole = through(3, 10)
    expect(-change(cross({ reach: 'through' })) / whole).toBeCloseTo(1, 6)
    expect(-change(cross({ reach: 'axis' })) / (whole / 2)).toBeCloseTo(1, 6)
    expect(-change(cross({ reach: 'wall' })) / whole).toBeCloseTo(1, 6)
    // The cap between the plane at the surface's height and the round is not there to be cut.
    const cap = Math.PI * 9 * 10 - whole / 2
    expect(-change(cross({ depth: '4' }))).toBeCloseTo(Math.PI * 9 * 4 - cap, 1)
  })

  test('off the body they are refused', () => {
    expect(problemOf(cross({ distance: '120' }))).toContain('miss the body')
  })
})

describe('flats', () => {
  const flats = (change: Partial<Extract<NewStep, { kind: 'flats' }>>): Part =>
    run(
      spindle(),
      addStep({
        ...{
          kind: 'flats',
          body: 'body1',
          count: '2',
          measure: 'across',
          size: '16',
          end: 'right',
        },
        ...{ distance: '', length: '15', phase: '' },
        ...change,
      } as NewStep),
    )
  const segment = (R: number, d: number): number =>
    R * R * Math.acos(d / R) - d * Math.sqrt(R * R - d * d)

  test('take away segments, told across or by depth', () => {
    expect(change(flats({}))).toBeCloseTo(-2 * 15 * segment(10, 8), 6)
    expect(change(flats({ measure: 'depth', size: '2' }))).toBeCloseTo(-2 * 15 * segment(10, 8), 6)
    // A single one goes over to the far side.
    expect(change(flats({ count: '1', size: '18' }))).toBeCloseTo(-15 * segment(10, 8), 6)
  })

  test('six of them make a hexagon', () => {
    const hexagon = 6 * 8 * 8 * Math.tan(Math.PI / 6)
    // Across 16 the corners of a hexagon lie within ⌀20: at 18.475.
    expect(change(flats({ count: '6' }))).toBeCloseTo(-15 * (100 * Math.PI - hexagon), 6)
  })

  test('outside of the body, or meeting in the axis, are refused', () => {
    expect(problemOf(flats({ size: '21' }))).toContain('outside of the body')
    expect(problemOf(flats({ measure: 'depth', size: '10' }))).toContain('meet in the axis')
    expect(problemOf(flats({ distance: '200' }))).toContain('beyond the body')
  })
})

describe('keyways, half-round seats and slots', () => {
  const slotted = (change: Partial<Extract<NewStep, { kind: 'slot' }>>): Part => {
    const part = spindle()
    return run(
      part,
      addStep({
        ...{ kind: 'slot', body: 'body1', form: 'keyway', on: key(part, 'cylinder ⌀30'), from: '' },
        ...{ distance: '5', width: '8', depth: '4', length: '28', ends: 'round', cutter: '' },
        ...{ count: '1', phase: '' },
        ...change,
      } as NewStep),
    )
  }

  /** Area over a floor at a height up to the round, over a width across, in mm². */
  const overFloor = (R: number, floor: number, half: number): number => {
    const under = (x: number): number =>
      (x * Math.sqrt(R * R - x * x) + R * R * Math.asin(x / R)) / 2
    return 2 * (under(half) - floor * half)
  }

  test('a square keyway takes what lies between its floor and the round', () => {
    const part = slotted({ ends: 'square' })
    expect(change(part)).toBeCloseTo(-28 * overFloor(15, 11, 4), 5)
  })

  test('round ends take less, by what lies beside their half circles', () => {
    const [square, round] = [change(slotted({ ends: 'square' })), change(slotted({}))]
    expect(Math.abs(round)).toBeLessThan(Math.abs(square))
    expect(Math.abs(square) - Math.abs(round)).toBeCloseTo((64 - 16 * Math.PI) * 3.7, -1)
  })

  test('two are opposite, and an edge to the right counts to the left', () => {
    expect(change(slotted({ count: '2' })) / change(slotted({}))).toBeCloseTo(2, 7)
    const back = slotted({ from: key(spindle(), 'face at 60'), distance: '5' })
    const middle = built(back).figures?.centre
    const plain = built(slotted({ distance: '7' })).figures?.centre
    for (const way of ['x', 'y', 'z'] as const) {
      expect(middle?.[way]).toBeCloseTo(plain?.[way] ?? Number.NaN, 6)
    }
  })

  test('a half-round seat and a slot across the end are cut', () => {
    const seat = slotted({
      form: 'woodruff',
      distance: '20',
      width: '6',
      depth: '7.5',
      cutter: '25',
    })
    expect(change(seat)).toBeLessThan(-6 * 60)
    const part = spindle()
    const across = slotted({
      form: 'end',
      on: key(part, 'face at 90'),
      width: '3',
      depth: '5',
      length: '',
    })
    const strip = 2 * (1.5 * Math.sqrt(100 - 2.25) + 100 * Math.asin(0.15))
    expect(change(across)).toBeCloseTo(-5 * strip, 5)
  })

  test('what does not fit is refused', () => {
    expect(problemOf(slotted({ depth: '15' }))).toContain('as deep as the axis')
    expect(problemOf(slotted({ width: '30' }))).toContain('as wide as the cylinder')
    expect(problemOf(slotted({ length: '6' }))).toContain('longer than wide')
    expect(problemOf(slotted({ distance: '60' }))).toContain('off its cylinder')
  })
})

describe('edges of holes and flats', () => {
  const holes = (): Part => withHole({ reach: 'wall', circle: '35' })
  const finish = (step: NewStep): Part => run(holes(), addStep(step))
  const pick = (part: Part) => ({ kind: 'step' as const, step: part.route.at(-1)?.id ?? '' })

  test('are bevelled: both mouths of every hole', () => {
    const part = finish({
      ...{ kind: 'chamfer', body: 'body1' },
      sets: [{ pick: pick(holes()), along: '0.3', across: '', angle: '45' }],
    })
    const cone = 0.045 * 2 * Math.PI * (2 + 0.3 / 3)
    expect(change(part) - change(holes())).toBeCloseTo(-8 * cone, 6)
  })

  test('are rounded, and named after the step', () => {
    const part = finish({
      ...{ kind: 'fillet', body: 'body1' },
      sets: [{ pick: pick(holes()), radius: '0.3' }],
    })
    const ring = (1 - Math.PI / 4) * 0.09
    const less = change(holes()) - change(part)
    expect(less).toBeGreaterThan(8 * ring * 2 * Math.PI * 2)
    expect(less).toBeLessThan(8 * ring * 2 * Math.PI * 2.3)
    const step = part.route.at(-1)?.id ?? ''
    expect(built(part).mesh.faces.map((f) => f.name)).toContain(`${step}/round`)
  })

  test('too large are refused by the kernel, and the hole stays', () => {
    const part = finish({
      ...{ kind: 'fillet', body: 'body1' },
      sets: [{ pick: pick(holes()), radius: '12' }],
    })
    const state = settlePlans(part, (plan) => kernel.weigh(plan))
    expect(state.steps.at(-1)?.status).toBe('failed')
    expect(state.steps.at(-1)?.problem?.message).toContain('does not fit')
    const [stays, before] = [state.bodies[0]?.plan, bodyOf(holes()).plan]
    expect(stays && before && planKey(stays) === planKey(before)).toBe(true)
  })

  test('of several steps are finished one set after another', () => {
    const two = run(
      holes(),
      addStep({
        ...{ kind: 'flats', body: 'body1', count: '2', measure: 'across', size: '16' },
        ...{ end: 'right', distance: '', length: '15', phase: '' },
      } as NewStep),
    )
    const [drilled, milled] = two.route
      .slice(-2)
      .map((s) => ({ kind: 'step' as const, step: s.id }))
    const sets = [drilled, milled].flatMap((own) =>
      own ? [{ pick: own, along: '0.3', across: '', angle: '45' }] : [],
    )
    const part = run(two, addStep({ kind: 'chamfer', body: 'body1', sets } as NewStep))
    expect(change(part)).toBeLessThan(change(two) - 1)
    // The step before is still there to be built on.
    expect(change(two)).toBeLessThan(change(holes()) - 100)
  })

  test('go in a step of their own', () => {
    const part = finish({
      ...{ kind: 'fillet', body: 'body1' },
      sets: [
        { pick: pick(holes()), radius: '0.3' },
        { pick: { kind: 'outside' }, radius: '0.3' },
      ],
    })
    expect(problemOf(part)).toContain('a step of their own')
  })
})

describe('steps after the first that is no full turn', () => {
  test('go on as full turns on the solid, and holes repeat round the axis', () => {
    const part = withHole({ count: '1' })
    const again = run(
      part,
      addStep({ kind: 'around', steps: [part.route.at(-1)?.id ?? ''], count: '5', range: '' }),
    )
    expect(change(again)).toBeCloseTo(-5 * Math.PI * 4 * 10, 6)
    const bored = run(
      again,
      addStep({
        ...{ kind: 'bore', body: 'body1', end: 'left', parts: [{ diameter: '10', depth: '30' }] },
        ...{ upTo: '', tip: 'flat', tipAngle: '118', sinkDiameter: '', sinkAngle: '90' },
      } as NewStep),
    )
    expect(change(bored)).toBeCloseTo(-5 * Math.PI * 4 * 10 - Math.PI * 25 * 30, 6)
    const row = evaluate(bored).steps.at(-1)
    expect(row?.status).toBe('done')
  })

  test('halves are kept, and the other one makes a body', () => {
    const part = run(
      spindle(),
      addStep({ kind: 'halve', body: 'body1', angle: '90', offset: '', into: '' } as NewStep),
    )
    const whole = solidProperties(bodyOf(spindle()).section)?.volume ?? 0
    const { figures } = built(part)
    expect((figures?.volume ?? 0) / (whole / 2)).toBeCloseTo(1, 10)
    expect(figures?.centre.y).toBeGreaterThan(1)
  })

  test('what the kernel cannot do fails that step alone, and the shape before stays', () => {
    const part = withHole({})
    const { plan } = bodyOf(part)
    if (!plan) throw new Error('the body is a full turn')
    const copy: Part = { ...part, name: 'Spindle that fails' }
    const wrong = run(
      copy,
      changeStep(copy.route.at(-1)?.id ?? '', (s) => ({ ...s, diameter: '4.2' }) as Step),
    )
    const failing = bodyOf(wrong).plan
    if (!failing) throw new Error('the body is a full turn')
    const { problem } = new KernelFault('kernel.test', 'The kernel gave up.', 'Change it.')
    const state = evaluate(wrong, withFault(NOTHING_FOUND, failing, problem, undefined))
    expect(state.steps.at(-1)).toMatchObject({
      status: 'failed',
      problem: { message: 'The kernel gave up.' },
    })
    expect(state.bodies[0]?.plan).toBeUndefined()
    expect(state.bodies[0]?.mass).toBeGreaterThan(0)
  })
})

describe('turns about another line', () => {
  /** A bar of 10 × 6, its middle at radius 33, and a centre line along the axis at radius 25. */
  function bar(turn: Partial<RevolveStep>): Part {
    const start = createPart({ name: 'Guide' })
    const sketch = start.sketches[0]?.id ?? ''
    const drawn = run(
      start,
      drawDraft('draw', sketch, rectangle({ at: { x: 0, y: 30 } }, { at: { x: 10, y: 36 } })),
      drawPiece({
        ...{ sketch, from: { at: { x: 0, y: 25 } }, to: { at: { x: 10, y: 25 } } },
        ...{ role: 'centre', directions: ['axial'], ties: [] },
      }),
    )
    const axis = drawn.sketches[0]?.entities.at(-1)?.id ?? ''
    return run(drawn, addStep({ ...revolveOf(sketch, 'body1', 'add'), axis, ...turn } as NewStep))
  }

  test('go round that line, fully or by a part', () => {
    const ring = 2 * Math.PI * (33 - 25) * 60
    const whole = built(bar({})).figures
    expect((whole?.volume ?? 0) / ring).toBeCloseTo(1, 8)
    expect(whole?.centre.x).toBeCloseTo(25, 6)
    const part = built(bar({ turn: '90', side: 'symmetric' })).figures
    expect((part?.volume ?? 0) / (ring / 4)).toBeCloseTo(1, 8)
    expect(part?.centre.y).toBeCloseTo(0, 6)
  })

  test('of a profile on both sides of it are refused', () => {
    const start = createPart({ name: 'Guide' })
    const sketch = start.sketches[0]?.id ?? ''
    const part = run(
      start,
      drawDraft('draw', sketch, rectangle({ at: { x: 0, y: 20 } }, { at: { x: 10, y: 36 } })),
      drawPiece({
        ...{ sketch, from: { at: { x: 0, y: 25 } }, to: { at: { x: 10, y: 25 } } },
        ...{ role: 'centre', directions: ['axial'], ties: [] },
      }),
    )
    const axis = part.sketches[0]?.entities.at(-1)?.id ?? ''
    const turned = run(part, addStep({ ...revolveOf(sketch, 'body1', 'add'), axis } as NewStep))
    expect(problemOf(turned)).toContain('both sides of the line')
  })
})
