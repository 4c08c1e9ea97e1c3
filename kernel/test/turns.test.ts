import { beforeAll, describe, expect, test } from 'vitest'
import {
  createPart,
  type NewStep,
  type Part,
  type RevolveStep,
  type WallStep,
} from '@lathica/core/part'
import {
  FULL_WALL,
  addSketch,
  addStep,
  drawDraft,
  drawPiece,
  rectangle,
  revolveOf,
} from '@lathica/core/edit'
import type { Kernel } from '../src'
import { builtBy, problemOf, run } from './support'
import { sharedKernel } from './support/kernel'

let kernel: Kernel
beforeAll(async () => {
  kernel = await sharedKernel()
})

const volumeOf = (part: Part): number => builtBy(kernel, part).figures?.volume ?? 0
/** A ring of ⌀60 to ⌀72, 10 wide, turned once. */
const RING = Math.PI * (36 ** 2 - 30 ** 2) * 10

/** A profile of a ring, and an end sketch with a point at a quarter turn and one on the axis. */
function guide(): { readonly part: Part; readonly profile: string; readonly point: string } {
  const start = createPart({ name: 'Line guide' })
  const profile = start.sketches[0]?.id ?? ''
  const drawn = run(
    start,
    drawDraft('draw', profile, rectangle({ at: { x: 0, y: 30 } }, { at: { x: 10, y: 36 } })),
    addSketch('end'),
  )
  const end = drawn.sketches.at(-1)?.id ?? ''
  // To the left, as it is seen from the right, lies y: a quarter turn on.
  const points = { '~p': { at: { x: -20, y: 0 } }, '~q': { at: { x: 0, y: 0 } } }
  const part = run(drawn, drawDraft('draw points', end, { points, entities: [] }))
  const [p] = part.sketches.at(-1)?.points ?? []
  return { part, profile, point: `${end}.${p?.id ?? ''}` }
}
const turned = (part: Part, profile: string, change: Partial<RevolveStep>): Part =>
  run(part, addStep({ ...revolveOf(profile, 'body1', 'add'), ...change } as NewStep))

describe('a turn up to a place', () => {
  test('of an end sketch goes round to its point', () => {
    const { part, profile, point } = guide()
    expect(volumeOf(turned(part, profile, { turnTo: point }))).toBeCloseTo(RING / 4, 5)
    const later = turned(part, profile, { turnTo: point, phase: '60' })
    expect(volumeOf(later)).toBeCloseTo(RING / 12, 5)
    // From behind it goes nearly all round.
    const round = turned(part, profile, { turnTo: point, phase: '120' })
    expect(volumeOf(round)).toBeCloseTo((RING * 330) / 360, 5)
  })

  test('of an earlier part turn closes what is left open, whichever end it goes to', () => {
    const { part, profile } = guide()
    const first = turned(part, profile, { turn: '120', phase: '30' })
    const id = first.route[0]?.id ?? ''
    const closed = turned(first, profile, { phase: '150', turnTo: `${id}/first` })
    expect(volumeOf(closed)).toBeCloseTo(RING, 5)
    const most = turned(first, profile, { phase: '200', turnTo: `${id}/last` })
    // 200° on to 150°: 310°, of which 120° are there already.
    expect(volumeOf(most)).toBeCloseTo((RING * 310) / 360, 5)
  })

  test('that is gone, lies on the axis, or is where it begins is refused', () => {
    const { part, profile, point } = guide()
    expect(problemOf(turned(part, profile, { turnTo: 'step9/first' }))).toContain('is gone')
    const onAxis = `${point.split('.')[0] ?? ''}.${part.sketches.at(-1)?.points[1]?.id ?? ''}`
    expect(problemOf(turned(part, profile, { turnTo: onAxis }))).toContain('is gone')
    expect(problemOf(turned(part, profile, { turnTo: point, phase: '90' }))).toContain(
      'begins in the plane',
    )
    expect(problemOf(turned(part, profile, { turnTo: point, facets: '6' }))).toContain(
      'right round',
    )
  })
})

describe('a wall by a part turn', () => {
  test('has its share of the full one, to one side, evenly, or up to a place', () => {
    const { part, point } = guide()
    const begun = run(part, addSketch())
    const chain = begun.sketches.at(-1)?.id ?? ''
    const drawn = run(
      begun,
      drawPiece({
        ...{ sketch: chain, from: { at: { x: 20, y: 20 } }, to: { at: { x: 50, y: 20 } } },
        ...{ role: 'outline', directions: ['axial'], ties: [] },
      }),
    )
    const wall = (change: Partial<WallStep>): Part =>
      run(
        drawn,
        addStep({
          ...{ kind: 'wall', sketch: chain, side: 'outside', thickness: '2', inner: '2' },
          ...{ corners: 'sharp', ends: 'flat', effect: 'add', body: 'body1' },
          ...FULL_WALL,
          ...change,
        }),
      )
    const tube = Math.PI * (22 ** 2 - 20 ** 2) * 30
    expect(volumeOf(wall({ turn: '90' }))).toBeCloseTo(tube / 4, 5)
    const even = builtBy(kernel, wall({ turn: '120', turnSide: 'symmetric' })).figures
    expect(even?.volume).toBeCloseTo(tube / 3, 5)
    expect(even?.centre.y).toBeCloseTo(0, 8)
    expect(volumeOf(wall({ turnTo: point, phase: '45' }))).toBeCloseTo(tube / 8, 5)
    expect(problemOf(wall({ turn: '400' }))).toContain('more than a full turn')
  })
})
