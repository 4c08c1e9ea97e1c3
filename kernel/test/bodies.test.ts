import { beforeAll, describe, expect, test } from 'vitest'
import { place } from '@lathica/core/geometry'
import { ORIGIN_ID } from '@lathica/core/sketch'
import { edgeKey, edgesOf, extentOf, sectionArea, solidProperties } from '@lathica/core/section'
import {
  createPart,
  type CombineStep,
  type MirrorStep,
  type MoveStep,
  type NewStep,
  type Part,
  type ShellStep,
  type Step,
} from '@lathica/core/part'
import { evaluate, type BodyState } from '@lathica/core/route'
import {
  addStep,
  changeStep,
  combineOf,
  drawDraft,
  intoOtherBody,
  nextStepId,
  offeredHoleAt,
  offeredStep,
  rectangle,
  revolveOf,
} from '@lathica/core/edit'
import type { Kernel } from '../src'
import { key, problemOf, run, spindle, watertight } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const states = (part: Part): readonly BodyState[] => evaluate(part).bodies
const stateAt = (part: Part, i: number): BodyState => {
  const found = states(part)[i]
  if (!found) throw new Error('there is no such body')
  return found
}
const sectionOf = (part: Part) => stateAt(part, 0).section
const VOLUME = solidProperties(sectionOf(spindle()))?.volume ?? 0
/** What the flats of the spindle's thin end leave, in mm³. */
let flatted = 0

/** A body's volume and centre by the kernel. */
function built(part: Part, i = 0) {
  const { plan } = stateAt(part, i)
  if (!plan) throw new Error(`the body is a full turn: ${problemOf(part)}`)
  const solid = kernel.build(plan, 0.05)
  expect(solid.valid).toBe(true)
  expect(watertight(solid.mesh)).toBe(true)
  if (!solid.figures) throw new Error('it has no figures')
  return solid.figures
}

/** The spindle with one flat, so that it is no full turn. */
const withFlat = (): Part => {
  const part = spindle()
  const flats = offeredStep('flats', 'body1', sectionOf(part), undefined, part.units)
  return run(part, addStep({ ...flats, count: '1', measure: 'depth', size: '4' } as typeof flats))
}
beforeAll(() => {
  flatted = built(withFlat()).volume
})

function moved(part: Part, change: Partial<MoveStep>, isCopy = false): Part {
  const id = nextStepId(part)
  const step = offeredStep('move', 'body1', sectionOf(part), undefined, part.units)
  const put = run(part, addStep({ ...step, along: '0', ...change } as typeof step))
  return isCopy ? run(put, intoOtherBody(id)) : put
}

describe('a body that is moved', () => {
  test('along the axis takes its section with it, as a full turn', () => {
    const part = moved(spindle(), { along: '12' })
    const { section, plan, solid } = stateAt(part, 0)
    expect(plan).toBeUndefined()
    expect(solid?.from).toBeCloseTo(12, 12)
    expect(sectionArea(section)).toBeCloseTo(sectionArea(sectionOf(spindle())), 9)
    // Faces keep their names, so that what refers to them holds.
    const names = (p: Part) => edgesOf(sectionOf(p)).map((e) => edgeKey(e.name))
    expect(names(part)).toEqual(names(spindle()))
  })

  test('turned takes what is no full turn with it', () => {
    const before = built(withFlat()).centre
    const part = moved(withFlat(), { turn: '90', along: '5' })
    const { volume, centre } = built(part)
    expect(volume).toBeCloseTo(flatted, 6)
    expect(centre.x).toBeCloseTo(-before.y, 9)
    expect(centre.y).toBeCloseTo(before.x, 9)
    expect(centre.z).toBeCloseTo(before.z + 5, 9)
  })

  test('stands beside the axis, and says that turned steps stay about it', () => {
    const part = moved(spindle(), { beside: '100', towards: '90' })
    const { volume, centre } = built(part)
    expect(volume).toBeCloseTo(VOLUME, 5)
    expect(centre.y).toBeCloseTo(100, 8)
    expect(centre.x).toBeCloseTo(0, 8)
    expect(evaluate(part).steps.at(-1)?.notes.join()).toContain('beside the axis')
    // As a full turn it is the ring of ⌀160 to ⌀240 that the ⌀40 of it would sweep.
    const { section } = stateAt(part, 0)
    const radii = edgesOf(section).map((e) => e.piece.from.y)
    expect([Math.min(...radii), Math.max(...radii)]).toEqual([80, 120])
    expect(extentOf(section)).toEqual([0, 90])
  })

  test('beside the axis it is drilled in faces of its own', () => {
    const end = key(spindle(), 'face at 90')
    const part = moved(spindle(), { beside: '100', towards: '90' })
    const { section } = stateAt(part, 0)
    const hole = offeredHoleAt('body1', end, place(3, 100, 0), section, part.units)
    const flat = { diameter: '4', tip: 'flat', reach: 'depth', depth: '5' }
    const blind = run(part, addStep({ ...hole, ...flat } as NewStep))
    expect(problemOf(blind)).toBe('')
    expect(built(blind).volume).toBeCloseTo(VOLUME - Math.PI * 4 * 5, 5)
    const through = run(part, addStep({ ...hole, ...flat, reach: 'through' } as NewStep))
    expect(built(through).volume).toBeCloseTo(VOLUME - Math.PI * 4 * 90, 5)
    const side = key(spindle(), 'cylinder ⌀40')
    const wrong = run(part, addStep({ ...hole, ...flat, on: side } as NewStep))
    expect(problemOf(wrong)).not.toBe('')
  })

  test('is copied into a body of its own, and the first stays', () => {
    const part = moved(withFlat(), { along: '100' }, true)
    expect(states(part)).toHaveLength(2)
    expect(built(part, 0).volume).toBeCloseTo(flatted, 6)
    expect(built(part, 1).volume).toBeCloseTo(flatted, 6)
    expect(built(part, 1).centre.z).toBeCloseTo(built(part, 0).centre.z + 100, 8)
  })

  test('by nothing, or onto a body with material, is refused', () => {
    expect(problemOf(moved(spindle(), {}))).toContain('moves nothing')
    const twice = moved(moved(spindle(), { along: '100' }, true), { along: '200' })
    const other = twice.bodies[1]?.id ?? ''
    const clash = run(
      twice,
      changeStep(twice.route.at(-1)?.id ?? '', (s) => ({ ...s, into: other }) as Step),
    )
    expect(problemOf(clash)).toContain('material of its own')
    expect(
      evaluate(moved(spindle(), { turn: '30' }))
        .steps.at(-1)
        ?.notes.join(),
    ).toContain('looks the same')
  })
})

describe('two bodies', () => {
  const pair = (along: string): Part => moved(withFlat(), { along }, true)
  function put(part: Part, change: Partial<CombineStep>): Part {
    const [a, b] = part.bodies
    return run(
      part,
      addStep({ ...combineOf(a?.id ?? '', b?.id ?? '', 'add'), ...change } as CombineStep),
    )
  }

  test('are joined to one, the second gone or kept', () => {
    const part = put(pair('90'), {})
    expect(built(part).volume).toBeCloseTo(2 * flatted, 5)
    expect(stateAt(part, 1).section.regions).toHaveLength(0)
    expect(stateAt(part, 1).plan).toBeUndefined()
    const kept = put(pair('90'), { keep: true })
    expect(built(kept, 1).volume).toBeCloseTo(flatted, 6)
  })

  test('are cut one from the other, and keep what they have in common', () => {
    // Moved by ten, the lands of ⌀40, ⌀30 and ⌀20 overlap themselves and their neighbours.
    const both = built(put(pair('10'), { effect: 'common' })).volume
    const rest = built(put(pair('10'), { effect: 'cut', keep: true })).volume
    expect(both + rest).toBeCloseTo(flatted, 5)
    const all = built(put(pair('10'), { effect: 'add' })).volume
    expect(all).toBeCloseTo(2 * flatted - both, 5)
  })

  test('that are full turns stay a full turn', () => {
    const part = put(moved(spindle(), { along: '90' }, true), {})
    const { plan, solid } = stateAt(part, 0)
    expect(plan).toBeUndefined()
    expect(solid?.volume).toBeCloseTo(2 * VOLUME, 5)
    const common = put(moved(spindle(), { along: '70' }, true), { effect: 'common' })
    // Of the thick land of the copy what lies in the thin end of the first.
    expect(stateAt(common, 0).solid?.volume).toBeCloseTo(Math.PI * 100 * 20, 5)
  })

  test('are refused where one is missing or has nothing', () => {
    const part = pair('90')
    expect(problemOf(put(part, { other: part.bodies[0]?.id ?? '' }))).toContain('another one')
    expect(problemOf(put(part, { other: 'gone' }))).toContain('gone')
    expect(problemOf(put(put(part, {}), {}))).toContain('no material')
  })
})

describe('a mirrored body', () => {
  const mirrored = (part: Part, change: Partial<MirrorStep>): Part => {
    const step = offeredStep('mirror', 'body1', sectionOf(part), undefined, part.units)
    return run(part, addStep({ ...step, ...change } as typeof step))
  }

  test('takes flats and holes along, about a plane square to the axis', () => {
    const part = mirrored(withFlat(), { about: key(withFlat(), 'face at 90') })
    const { volume, centre } = built(part)
    expect(volume).toBeCloseTo(2 * flatted, 5)
    expect(centre.z).toBeCloseTo(90, 8)
    // Its section follows, so that turned steps find both ends.
    expect(stateAt(part, 0).solid ?? sectionOf(part).regions.length).toBeTruthy()
    expect(edgesOf(sectionOf(part)).some((e) => Math.abs(e.piece.from.x - 180) < 1e-9)).toBe(true)
  })

  test('is a body of its own about a plane through the axis', () => {
    const hole = moved(withFlat(), { turn: '30' })
    const id = nextStepId(hole)
    const along = mirrored(hole, { way: 'along', angle: '90' })
    expect(problemOf(along)).toContain('falls into the body itself')
    const part = run(along, intoOtherBody(id))
    const [a, b] = [built(part, 0), built(part, 1)]
    expect(b.volume).toBeCloseTo(a.volume, 6)
    // The plane at 90° holds the axis and y: x goes over to the other side.
    expect(b.centre.x).toBeCloseTo(-a.centre.x, 9)
    expect(b.centre.y).toBeCloseTo(a.centre.y, 9)
    const turned = mirrored(spindle(), { way: 'along', angle: '0' })
    const image = run(turned, intoOtherBody(turned.route.at(-1)?.id ?? ''))
    expect(evaluate(image).steps.at(-1)?.notes.join()).toContain('its own image')
  })
})

describe('a shell that follows the whole solid', () => {
  /** A bar of 20 across its six flats and 30 long. */
  function bar(): Part {
    const start = createPart({ name: 'Oil cup' })
    const sketch = start.sketches[0]?.id ?? ''
    const outline = rectangle({ at: { x: 0, y: 0 }, point: ORIGIN_ID }, { at: { x: 30, y: 10 } })
    const turn = { ...revolveOf(sketch, 'body1', 'add'), facets: '6' } as NewStep
    return run(start, drawDraft('draw', sketch, outline), addStep(turn))
  }
  const hexagon = (across: number): number => (Math.sqrt(3) / 2) * across ** 2
  const shelled = (change: Partial<ShellStep>): Part => {
    const part = bar()
    const step = offeredStep('shell', 'body1', sectionOf(part), undefined, part.units)
    const open = [key(part, 'face at 30')]
    return run(
      part,
      addStep({ ...step, thickness: '2', open, follow: 'solid', ...change } as NewStep),
    )
  }

  test('has one wall along flats, open or closed', () => {
    const cup = hexagon(20) * 30 - hexagon(16) * 28
    expect(built(shelled({})).volume).toBeCloseTo(cup, 6)
    const closed = hexagon(20) * 30 - hexagon(16) * 26
    expect(built(shelled({ open: [] })).volume).toBeCloseTo(closed, 6)
    // Along the turned shape alone its hollow is round.
    expect(built(shelled({ follow: 'turn' })).volume).not.toBeCloseTo(cup, 0)
  })

  test('goes inwards, and is refused where it does not fit', () => {
    expect(problemOf(shelled({ side: 'outside' }))).toContain('goes inwards')
    const part = withFlat()
    const step = offeredStep('shell', 'body1', sectionOf(part), undefined, part.units)
    const open = [key(part, 'face at 90')]
    const hollow = run(part, addStep({ ...step, thickness: '5', open, follow: 'solid' } as NewStep))
    const { plan } = stateAt(hollow, 0)
    // Its shoulders are nearer to one another than the wall is thick: what the kernel makes is not sound.
    expect(() => plan && kernel.build(plan, 0.05)).toThrow('cannot follow the whole solid')
  })
})
