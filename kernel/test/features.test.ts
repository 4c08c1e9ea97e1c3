import { beforeAll, describe, expect, test } from 'vitest'
import { packText, type SolidPlan } from '@lathica/core/solid'
import type { FlatsStep, HolesStep, NewStep, Part, SlotStep } from '@lathica/core/part'
import type { PartState } from '@lathica/core/route'
import { addStep } from '@lathica/core/edit'
import { countWords, recoverPart, type ForeignFace } from '@lathica/core/recover'
import { randomFrom } from '../../fuzz/random'
import { builtGeometry, partFromFile, settlePlans, type Kernel } from '../src'
import { key, problemOf, run, spindle } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const HOLE = {
  ...({
    kind: 'holes',
    body: 'body1',
    layout: 'circle',
    sketch: '',
    start: '',
    range: '',
  } as const),
  ...{ skip: [], places: [], from: '', distance: '', depth: '', tipAngle: '118', circle: '' },
  ...({ tip: 'flat', head: 'none', headDiameter: '', headDepth: '', headAngle: '90' } as const),
  ...({ count: '1', reach: 'through', diameter: '4', thread: '' } as const),
}

const endHole =
  (more: Partial<HolesStep>): ((part: Part) => NewStep) =>
  (part) => ({
    ...{ ...HOLE, way: 'end', on: key(part, 'face at 0'), circle: '28' },
    ...more,
  })

const crossHole =
  (more: Partial<HolesStep>): (() => NewStep) =>
  () => ({
    ...{ ...HOLE, way: 'cross', on: '', distance: '35' },
    ...more,
  })

const FLATS = {
  ...({ kind: 'flats', body: 'body1', count: '2', measure: 'across', size: '26' } as const),
  ...({ end: 'left', distance: '30', length: '12', phase: '' } as const),
}
const flats =
  (more: Partial<FlatsStep>): (() => NewStep) =>
  () => ({ ...FLATS, ...more })

const SLOT = {
  ...({ kind: 'slot', body: 'body1', form: 'keyway', from: '', distance: '8' } as const),
  ...({ width: '8', depth: '4', length: '22', ends: 'round', cutter: '', count: '1' } as const),
  phase: '',
}
const slot =
  (on: string, more: Partial<SlotStep>): ((part: Part) => NewStep) =>
  (part) => ({ ...SLOT, on: key(part, on), ...more })

/** The spindle with steps that take the kernel, as an exchange file. */
function fileOf(steps: readonly ((part: Part) => NewStep)[]): { state: PartState; text: string } {
  const part = steps.reduce((here, step) => {
    const next = run(here, addStep(step(here)))
    expect(problemOf(next)).toBe('')
    return next
  }, spindle())
  const state = settlePlans(part, (plan) => kernel.weigh(plan))
  const text = builtGeometry(kernel, state, 0.1).step
  if (text === undefined) throw new Error('there is nothing to write')
  return { state, text }
}

/** What steps a file of the spindle comes back with: all of them, and nothing is kept as it came. */
function stepsFrom(...steps: readonly ((part: Part) => NewStep)[]): {
  readonly words: string
  readonly last: Part['route'][number] | undefined
} {
  const { state, text } = fileOf(steps)
  const { part: found, solids } = partFromFile(kernel, text, 'Came in')
  const wanted = state.bodies[0]?.solid
  const got = settlePlans(found, (plan) => kernel.weigh(plan)).bodies[0]?.solid
  expect(solids.map((s) => [s.isTurned, s.isKept])).toEqual([[true, false]])
  expect((got?.volume ?? 0) / (wanted?.volume ?? 1)).toBeCloseTo(1, 7)
  expect((got?.area ?? 0) / (wanted?.area ?? 1)).toBeCloseTo(1, 7)
  const words = solids[0]?.steps.map(countWords).join(', ') ?? ''
  return { words, last: found.route.at(-1) }
}

describe('steps are found again in an exchange file', () => {
  const holes: readonly [string, Partial<HolesStep>, string, Partial<HolesStep>][] = [
    ['holes right through their flange', { count: '5', start: '10', reach: 'wall' }, '5 holes', {}],
    [
      'a counterbore',
      { count: '3', head: 'counterbore', headDiameter: '7', headDepth: '3', reach: 'wall' },
      '3 holes',
      { head: 'counterbore', headDiameter: '7', headDepth: '3' },
    ],
    [
      'a countersink',
      { count: '4', head: 'countersink', headDiameter: '8', reach: 'wall' },
      '4 holes',
      { head: 'countersink', headDiameter: '8', headAngle: '90' },
    ],
    [
      'a blind hole with a flat bottom',
      { reach: 'depth', depth: '9' },
      '1 hole',
      { reach: 'depth', depth: '9', tip: 'flat' },
    ],
    [
      'a blind hole with a tip',
      { reach: 'depth', depth: '9', tip: 'cone', tipAngle: '118' },
      '1 hole',
      { tip: 'cone', tipAngle: '118' },
    ],
    [
      'a part of the pitch circle',
      { count: '3', start: '20', range: '90', reach: 'wall' },
      '3 holes',
      { start: '20', range: '90' },
    ],
    [
      'places of their own',
      {
        layout: 'places',
        reach: 'wall',
        places: [
          { diameter: '26', angle: '10' },
          { diameter: '30', angle: '95' },
          { diameter: '30', angle: '200' },
          { diameter: '30', angle: '333' },
        ],
      },
      '1 hole, 3 holes',
      { layout: 'places' },
    ],
  ]
  test.each(holes)('%s', (_words, more, words, wanted) => {
    const found = stepsFrom(endHole(more))
    expect(found.words).toBe(words)
    expect(found.last).toMatchObject({ kind: 'holes', way: 'end', ...wanted })
  })

  test('holes from the other end, into a shoulder', () => {
    const into = (part: Part): NewStep => ({
      ...HOLE,
      ...{ way: 'end', on: key(part, 'face at 20'), circle: '35', count: '6', diameter: '3' },
    })
    const found = stepsFrom(into)
    expect(found.words).toBe('6 holes')
    expect(found.last).toMatchObject({ circle: '35', count: '6', diameter: '3' })
  })

  const across: readonly [string, Partial<HolesStep>, Partial<HolesStep>][] = [
    ['right through', {}, { reach: 'through', distance: '35' }],
    ['two that cross', { count: '2', range: '90' }, { count: '2', range: '90' }],
    [
      'to a depth with a tip',
      { reach: 'depth', depth: '8', tip: 'cone', start: '60' },
      { reach: 'depth', depth: '8', tip: 'cone', start: '60' },
    ],
    [
      'three to a depth',
      { reach: 'depth', depth: '6', count: '3', diameter: '3' },
      { count: '3', depth: '6' },
    ],
    [
      'with a countersink',
      { head: 'countersink', headDiameter: '8', reach: 'depth', depth: '9' },
      { head: 'countersink', headDiameter: '8' },
    ],
    [
      'with a counterbore',
      { head: 'counterbore', headDiameter: '8', headDepth: '5', reach: 'depth', depth: '10' },
      { head: 'counterbore', headDiameter: '8', headDepth: '5' },
    ],
  ]
  test.each(across)('a cross hole %s', (_words, more, wanted) => {
    const found = stepsFrom(crossHole(more))
    expect(found.words).toMatch(/^\d cross holes?$/)
    expect(found.last).toMatchObject({ kind: 'holes', way: 'cross', ...wanted })
  })

  const planes: readonly [string, Partial<FlatsStep>, Partial<FlatsStep>][] = [
    [
      'two over a stretch',
      {},
      { count: '2', measure: 'across', size: '26', distance: '30', length: '12' },
    ],
    [
      'six over the right end',
      { count: '6', size: '18', end: 'right', distance: '', length: '20' },
      { count: '6', end: 'right', distance: '', length: '20' },
    ],
    [
      'a single one over all',
      { count: '1', measure: 'depth', size: '12', distance: '', length: '', phase: '45' },
      { count: '1', measure: 'depth', size: '12', distance: '', length: '', phase: '45' },
    ],
    [
      'three',
      { count: '3', measure: 'depth', size: '2' },
      { count: '3', measure: 'depth', size: '2' },
    ],
  ]
  test.each(planes)('flats: %s', (_words, more, wanted) => {
    const found = stepsFrom(flats(more))
    expect(found.words).toMatch(/^\d flats?$/)
    expect(found.last).toMatchObject({ kind: 'flats', ...wanted })
  })

  const slots: readonly [string, string, Partial<SlotStep>, string, Partial<SlotStep>][] = [
    [
      'a keyway with round ends',
      'cylinder ⌀30',
      {},
      '1 keyway',
      { distance: '8', length: '22', ends: 'round' },
    ],
    [
      'two with square ends',
      'cylinder ⌀30',
      { ends: 'square', count: '2', phase: '30' },
      '2 keyways',
      { ends: 'square', count: '2', phase: '30' },
    ],
    [
      'a half-round seat',
      'cylinder ⌀30',
      { form: 'woodruff', cutter: '16', depth: '5', width: '4', length: '', distance: '20' },
      '1 half-round seat',
      { form: 'woodruff', cutter: '16', depth: '5' },
    ],
    [
      'a slot across the end',
      'face at 90',
      { form: 'end', distance: '', length: '', width: '4', depth: '5' },
      '1 end slot',
      { form: 'end', width: '4', depth: '5', phase: '' },
    ],
    [
      'a cross of two slots',
      'face at 90',
      { form: 'end', distance: '', length: '', width: '4', depth: '5', count: '2', phase: '20' },
      '2 end slots',
      { count: '2', phase: '20' },
    ],
  ]
  test.each(slots)('%s', (_words, on, more, words, wanted) => {
    const found = stepsFrom(slot(on, more))
    expect(found.words).toBe(words)
    expect(found.last).toMatchObject({ kind: 'slot', ...wanted })
  })

  test('all kinds on one part', () => {
    const { words } = stepsFrom(
      endHole({
        count: '6',
        reach: 'wall',
        head: 'counterbore',
        headDiameter: '6',
        headDepth: '2',
      }),
      crossHole({ distance: '24', diameter: '3' }),
      slot('cylinder ⌀30', { distance: '12' }),
      flats({ end: 'right', distance: '', length: '15', size: '17' }),
    )
    expect(words).toBe('6 holes, 1 cross hole, 1 keyway, 2 flats')
  })
})

test('faces that were parted in halves on their way are one', () => {
  const { text } = fileOf([
    endHole({ count: '3', reach: 'depth', depth: '9', tip: 'cone' }),
    endHole({ count: '2', start: '90', circle: '26', reach: 'depth', depth: '7', diameter: '3' }),
    endHole({
      ...{ count: '2', start: '30', circle: '30', diameter: '3', reach: 'wall' },
      ...{ head: 'counterbore', headDiameter: '5', headDepth: '3' },
    }),
  ])
  const whole = kernel.read(text)
  const parted = whole.map((solid) => ({ ...solid, faces: solid.faces.flatMap(halves) }))
  expect(parted[0]?.faces.length).toBeGreaterThan(1.5 * (whole[0]?.faces.length ?? 0))
  const weigh = (plan: SolidPlan) => kernel.weigh(plan)
  const { solids } = recoverPart('Came in', parted, packText(text), { weigh })
  expect(solids).toMatchObject([{ isTurned: true, isKept: false }])
  expect(solids[0]?.steps.map(countWords).sort()).toEqual(['2 holes', '2 holes', '3 holes'])
})

/** A face as other programs tell it: in two, on either side of a plane through what it is turned about. */
function halves(face: ForeignFace): ForeignFace[] {
  const { nodes, triangles, axis, kind } = face
  const count = nodes.length / 3
  const middle = [0, 1, 2].map((k) => {
    let sum = 0
    for (let i = 0; i < count; i++) sum += nodes[3 * i + k] ?? 0
    return sum / count
  })
  const about = axis && kind !== 'plane' ? [axis.at.x, axis.at.y] : middle
  const sides: number[][] = [[], []]
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => triangles[t + k] ?? 0)
    const off = corners.reduce((sum, c) => {
      const [x, y] = [
        (nodes[3 * c] ?? 0) - (about[0] ?? 0),
        (nodes[3 * c + 1] ?? 0) - (about[1] ?? 0),
      ]
      return sum + 0.8 * x + 0.6 * y
    }, 0)
    sides[off > 0 ? 0 : 1]?.push(...corners)
  }
  return sides.flatMap((own): ForeignFace[] => {
    const used = [...new Set(own)]
    const at = new Map(used.map((c, i) => [c, i]))
    const places = used.flatMap((c) => [0, 1, 2].map((k) => nodes[3 * c + k] ?? 0))
    return own.length === 0
      ? []
      : [
          {
            ...face,
            nodes: Float64Array.from(places),
            triangles: Uint32Array.from(own.map((c) => at.get(c) ?? 0)),
          },
        ]
  })
}

test('random parts come back with the volume and surface they had', () => {
  const random = randomFrom(20261)
  const pick = <T>(...all: readonly T[]): T => all[Math.floor(random() * all.length)] as T
  const between = (low: number, high: number): string => (low + (high - low) * random()).toFixed(2)
  for (let i = 0; i < 12; i++) {
    const blind = random() < 0.5
    stepsFrom(
      endHole({
        ...{ count: pick('1', '3', '4', '7'), start: between(0, 80), diameter: between(1.5, 5) },
        ...{ circle: between(22, 32), reach: blind ? 'depth' : 'wall', depth: between(4, 15) },
        tip: pick('flat', 'cone'),
      }),
      crossHole({
        ...{ distance: between(25, 29), diameter: between(1, 4), start: between(0, 170) },
        reach: pick('through', 'depth'),
        depth: between(3, 9),
      }),
      flats({
        ...{ count: pick('1', '2', '3', '6'), measure: 'depth', size: between(0.4, 2) },
        ...{ distance: between(36, 40), length: between(5, 18), phase: between(0, 50) },
      }),
      slot('cylinder ⌀20', { width: between(3, 6), depth: between(1, 4), distance: between(2, 5) }),
    )
  }
}, 120_000)
