import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  cornersOf,
  edgeKey,
  edgesOf,
  finishCorners,
  line,
  offsetSection,
  radiusOf,
  sectionArea,
  shellOf,
  solidProperties,
  vec,
  wallOf,
  type ChamferSize,
  type Corner,
  type Finished,
  type Section,
  type SectionEdge,
  type ShellSpec,
  type WallSpec,
} from '../src'
import { anySection, bulged, disc, outlineOf, rectangle } from './support/sections'

const roundCorner = (s: Section, corner: Corner, radius: number, step: string): Finished =>
  finishCorners(s, [{ corners: [corner], work: { kind: 'round', radius } }], step)
const bevelCorner = (s: Section, corner: Corner, size: ChamferSize, step: string): Finished =>
  finishCorners(s, [{ corners: [corner], work: { kind: 'bevel', size } }], step)

const SHELL: ShellSpec = {
  step: 'h',
  side: 'inside',
  thickness: 2,
  open: new Set(),
  faces: new Map(),
  corners: 'sharp',
}
const shelled = (s: Section, change: Partial<ShellSpec> = {}): Section => {
  const result = shellOf(s, { ...SHELL, ...change })
  if (!result) throw new Error('the outline came out open')
  return result
}
const volume = (s: Section): number => solidProperties(s)?.volume ?? 0
const cylinder = (r: number, l: number): number => Math.PI * r * r * l
/** Bottom of a cup at x = 0: e0 wall bottom face … named by position on the outline. */
const cup = outlineOf([
  { at: vec(0, 0) },
  { at: vec(0, 20) },
  { at: vec(50, 20) },
  { at: vec(50, 0) },
])

describe('a shell', () => {
  test('of a cylinder open at one end is a cup', () => {
    const open = new Set(['s/e2'])
    expect(volume(shelled(cup, { open }))).toBeCloseTo(cylinder(20, 50) - cylinder(18, 48), 8)
  })

  test('without an open face keeps a closed hollow', () => {
    expect(volume(shelled(cup))).toBeCloseTo(cylinder(20, 50) - cylinder(18, 46), 8)
  })

  test('has faces of their own thickness', () => {
    const faces = new Map([['s/e0', 5]])
    expect(volume(shelled(cup, { open: new Set(['s/e2']), faces }))).toBeCloseTo(
      cylinder(20, 50) - cylinder(18, 45),
      8,
    )
  })

  test('outwards makes the body the hollow', () => {
    const open = new Set(['s/e2'])
    expect(volume(shelled(cup, { side: 'outside', open }))).toBeCloseTo(
      cylinder(22, 52) - cylinder(20, 50),
      8,
    )
  })

  test('of a cone ends in the plane of its open face', () => {
    // A funnel from the point on the axis to a mouth of radius 30 at x = 40.
    const cone = outlineOf([{ at: vec(0, 0) }, { at: vec(40, 30) }, { at: vec(40, 0) }])
    const hollow = shelled(cone, { open: new Set(['s/e1']) })
    // The inner cone is the same, moved along by the thickness over the sine of its half angle.
    const left = 40 - 2 / 0.6
    expect(volume(hollow)).toBeCloseTo(
      (Math.PI / 3) * (30 * 30 * 40 - (0.75 * left) ** 2 * left),
      8,
    )
  })

  test('leaning the other way ends in the plane of its open face too', () => {
    const dish = outlineOf([
      { at: vec(0, 0) },
      { at: vec(0, 30) },
      { at: vec(40, 20) },
      { at: vec(40, 0) },
    ])
    const hollow = shelled(dish, { open: new Set(['s/e0']), thickness: 1 })
    const slope = Math.hypot(40, 10) / 40
    const inner = (x: number): number => 30 - x / 4 - slope
    const frustum = (a: number, b: number, h: number): number =>
      ((Math.PI * h) / 3) * (a * a + a * b + b * b)
    expect(volume(hollow)).toBeCloseTo(frustum(30, 20, 40) - frustum(inner(0), inner(39), 39), 8)
  })

  test('after a fillet carries the reduced radius inside, before it the same at both', () => {
    const corner = cornersOf(cup).find((c) => c.key === 's/e0|s/e1')
    if (!corner) throw new Error('no corner')
    const round = roundCorner(cup, corner, 6, 'f')
    if (!round.ok) throw new Error('does not fit')
    const hollow = shelled(round.section, { open: new Set(['s/e2']) })
    const radii = edgesOf(hollow).flatMap(({ piece }) =>
      piece.kind === 'arc' ? [radiusOf(piece)] : [],
    )
    expect(radii.sort((a, b) => a - b)).toEqual([expect.closeTo(4, 9), expect.closeTo(6, 9)])
  })

  test('loses inner rounds that the thickness uses up', () => {
    const corner = cornersOf(cup).find((c) => c.key === 's/e0|s/e1')
    const round = corner && roundCorner(cup, corner, 1.5, 'f')
    if (!round?.ok) throw new Error('does not fit')
    const hollow = shelled(round.section, { open: new Set(['s/e2']) })
    const arcs = edgesOf(hollow).filter((e) => e.piece.kind === 'arc')
    expect(arcs).toHaveLength(1)
    // The round lies 1.5 (1 − π/4) from the corner and so outside the hollow.
    expect(sectionArea(hollow)).toBeCloseTo(1000 - 18 * 48 - 1.5 * 1.5 * (1 - Math.PI / 4), 9)
  })

  test('goes round an outside corner of the hollow to a point or with one distance', () => {
    const stepped = outlineOf([
      { at: vec(0, 0) },
      { at: vec(0, 10) },
      { at: vec(30, 10) },
      { at: vec(30, 20) },
      { at: vec(60, 20) },
      { at: vec(60, 0) },
    ])
    const sharp = shelled(stepped)
    const round = shelled(stepped, { corners: 'round' })
    expect(sectionArea(sharp) - sectionArea(round)).toBeCloseTo(4 - Math.PI, 9)
  })
})

describe('the parallel of a section', () => {
  test('of a disc is a disc', () => {
    const grown = offsetSection(disc(20, 20, 6), 2, 'round', 'o')
    const shrunk = offsetSection(disc(20, 20, 6), -2, 'round', 'o')
    expect(sectionArea(grown ?? cup)).toBeCloseTo(64 * Math.PI, 9)
    expect(sectionArea(shrunk ?? cup)).toBeCloseTo(16 * Math.PI, 9)
  })

  test('outside is larger by length and corners, as Steiner tells of convex outlines', () => {
    const bar = rectangle(10, 10, 30, 20)
    const round = offsetSection(bar, 3, 'round', 'o') ?? cup
    const sharp = offsetSection(bar, 3, 'sharp', 'o') ?? cup
    expect(sectionArea(round)).toBeCloseTo(200 + 3 * 60 + 9 * Math.PI, 9)
    expect(sectionArea(sharp)).toBeCloseTo(26 * 16, 9)
    expect(sectionArea(offsetSection(bar, -6, 'round', 'o') ?? cup)).toBe(0)
  })

  test('out and in again is no smaller, and in and out again no larger', () => {
    fc.assert(
      fc.property(anySection('a'), fc.constantFrom(0.1, 0.25, 0.5, 1), (a, by) => {
        const area = sectionArea(a)
        const out = offsetSection(a, by, 'round', 'o')
        const closed = out && offsetSection(out, -by, 'round', 'p')
        const into = offsetSection(a, -by, 'round', 'q')
        const opened = into && offsetSection(into, by, 'round', 'r')
        expect(closed && opened).toBeDefined()
        expect(sectionArea(closed ?? cup)).toBeGreaterThan(area - 1e-6)
        expect(sectionArea(opened ?? cup)).toBeLessThan(area + 1e-6)
      }),
      { numRuns: 150 },
    )
  })
})

describe('a wall', () => {
  const chain = (...corners: readonly [number, number, number?][]): SectionEdge[] =>
    corners.slice(1).map(([x, y], i) => {
      const [px, py, bulge] = corners[i] ?? [0, 0]
      return {
        piece: bulge ? bulged(vec(px, py), vec(x, y), bulge) : line(vec(px, py), vec(x, y)),
        name: { step: 's', entity: `e${i}`, role: 'drawn' },
      }
    })
  const wall = (edges: readonly SectionEdge[], change: Partial<WallSpec>): number =>
    sectionArea(
      wallOf(edges, { step: 'w', left: 0, right: 0, corners: 'sharp', ends: 'flat', ...change }) ??
        cup,
    )
  const angle = chain([10, 10], [40, 10], [40, 30])

  test('round a right angle keeps to either side or both', () => {
    expect(wall(angle, { left: 2 })).toBeCloseTo(2 * 50 - 4, 9)
    expect(wall(angle, { right: 2 })).toBeCloseTo(2 * 50 + 4, 9)
    expect(wall(angle, { left: 1, right: 3 })).toBeCloseTo(50 - 1 + 150 + 9, 9)
  })

  test('has sharp, round and bevelled corners, flat and round ends', () => {
    expect(wall(angle, { right: 2, corners: 'round' })).toBeCloseTo(100 + Math.PI, 9)
    expect(wall(angle, { right: 2, corners: 'bevelled' })).toBeCloseTo(102, 9)
    expect(wall(angle, { right: 2, ends: 'round' })).toBeCloseTo(104 + Math.PI, 9)
  })

  test('keeps to its side at corners sharper than square', () => {
    const sharp = chain([10, 10], [40, 10], [20, 30])
    const outside = wall(sharp, { right: 1 })
    const inside = wall(sharp, { left: 1 })
    const lengths = 30 + Math.hypot(20, 20)
    const half = Math.PI / 8
    expect(inside).toBeCloseTo(lengths - 1 / Math.tan(half), 9)
    expect(outside).toBeCloseTo(lengths + 1 / Math.tan(half), 9)
  })

  test('along an arc thicker than its radius loses the arc inside', () => {
    const bend = chain([10, 20], [30, 20, 0.4142135623730951], [32, 22], [32, 40])
    expect(wall(bend, { left: 3 })).toBeCloseTo(3 * 22 + 3 * 20 - 9 - (4 - Math.PI), 6)
  })

  test('that meets the axis stays above it', () => {
    const dome = chain([0, 0], [10, 5], [30, 5])
    const props = solidProperties(
      wallOf(dome, { step: 'w', left: 0, right: 2, corners: 'sharp', ends: 'flat' }) ?? cup,
    )
    expect(props?.volume).toBeGreaterThan(0)
    expect(props?.from).toBeGreaterThan(-0.01)
  })
})

describe('corners', () => {
  const stepped = outlineOf([
    { at: vec(0, 0) },
    { at: vec(0, 10) },
    { at: vec(30, 10) },
    { at: vec(30, 20) },
    { at: vec(60, 20) },
    { at: vec(60, 0) },
  ])
  const called = (s: Section, key: string): Corner => {
    const found = cornersOf(s).find((c) => c.key === key)
    if (!found) throw new Error(`no corner ${key}`)
    return found
  }

  test('are those off the axis, told inside from outside', () => {
    const turns = cornersOf(stepped).map((c) => Math.sign(c.turn))
    expect(turns.filter((t) => t > 0)).toHaveLength(3)
    expect(turns.filter((t) => t < 0)).toHaveLength(1)
  })

  test('are rounded: outside ones lose what inside ones gain', () => {
    const out = roundCorner(stepped, called(stepped, 's/e0|s/e1'), 3, 'f')
    const into = roundCorner(stepped, called(stepped, 's/e1|s/e2'), 3, 'f')
    const change = 9 * (1 - Math.PI / 4)
    expect(out.ok && sectionArea(out.section)).toBeCloseTo(900 - change, 9)
    expect(into.ok && sectionArea(into.section)).toBeCloseTo(900 + change, 9)
    expect(out.ok && edgesOf(out.section).map((e) => edgeKey(e.name))).toContain(
      'f/round(s/e1+s/e0)',
    )
  })

  test('take no more than fits, and say how much that is', () => {
    const fits = roundCorner(stepped, called(stepped, 's/e1|s/e2'), 10, 'f')
    expect(fits.ok).toBe(true)
    const large = roundCorner(stepped, called(stepped, 's/e1|s/e2'), 14, 'f')
    expect(!large.ok && large.largest).toBeCloseTo(10, 5)
    expect(roundCorner(stepped, called(stepped, 's/e1|s/e2'), 1e9, 'f').ok).toBe(false)
  })

  test('are bevelled by legs, or by a leg and an angle', () => {
    const corner = called(stepped, 's/e2|s/e3')
    const legs = bevelCorner(stepped, corner, { kind: 'legs', along: 4, across: 2 }, 'c')
    expect(legs.ok && sectionArea(legs.section)).toBeCloseTo(900 - 4, 9)
    const angle = bevelCorner(stepped, corner, { kind: 'angle', along: 4, angle: Math.PI / 6 }, 'c')
    expect(angle.ok && sectionArea(angle.section)).toBeCloseTo(900 - 8 * Math.tan(Math.PI / 6), 9)
  })

  test('between lines and arcs are rounded tangent to both', () => {
    fc.assert(
      fc.property(
        anySection('a'),
        fc.nat(),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        (a, n, r) => {
          const corners = cornersOf(a)
          const corner = corners[n % corners.length]
          if (!corner) return
          const done = roundCorner(a, corner, r, 'f')
          if (!done.ok) {
            expect(done.largest).toBeLessThan(r)
            return
          }
          const i = edgesOf(done.section).findIndex((e) => e.name.step === 'f')
          const arcEdge = edgesOf(done.section)[i]
          expect(arcEdge?.piece.kind === 'arc' && radiusOf(arcEdge.piece)).toBeCloseTo(r, 5)
          // Tangent to both: a corner is left only where it used an edge up.
          const usedUp = edgesOf(a).length + 1 - edgesOf(done.section).length
          const left = cornersOf(done.section).filter((c) => c.key.includes('round('))
          expect(left.length).toBeLessThanOrEqual(usedUp)
          const change = sectionArea(done.section) - sectionArea(a)
          expect(Math.sign(change)).toBe(-Math.sign(corner.turn))
        },
      ),
      { numRuns: 500 },
    )
  })
})
