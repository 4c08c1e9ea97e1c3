import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  apart,
  capacityAt,
  capacityCurve,
  cavityOf,
  clearanceBetween,
  combine,
  distance,
  filledRoom,
  heightFor,
  latheMesh,
  leastWall,
  lengthwise,
  line,
  pointAt,
  ringsAt,
  sectionArea,
  solidProperties,
  stationsAlong,
  stationsOfSolid,
  translated,
  vec,
  type Loop,
  type Piece,
  type Section,
} from '../src'
import { anySection, bulged, outlineOf, rectangle } from './support/sections'

const at = (x: number, y: number, bulge?: number) =>
  bulge === undefined ? { at: vec(x, y) } : { at: vec(x, y), bulge }

/** A tube closed on the left: a cup that lies on its back, its open end to the right. */
const cup = (height: number, radius: number, wall: number): Section =>
  outlineOf([
    at(0, 0),
    at(0, radius),
    at(height, radius),
    at(height, radius - wall),
    at(wall, radius - wall),
    at(wall, 0),
  ])

const joined = (a: Section, b: Section, effect: 'add' | 'cut'): Section => {
  const made = combine(a, b, effect)
  if (!made) throw new Error('the outline came out open')
  return made
}

describe('the least distance of two pieces', () => {
  const anyPiece = fc
    .record({
      x: fc.double({ min: -5, max: 5, noNaN: true }),
      y: fc.double({ min: -5, max: 5, noNaN: true }),
      dx: fc.double({ min: 0.5, max: 4, noNaN: true }),
      dy: fc.double({ min: -3, max: 3, noNaN: true }),
      bulge: fc.constantFrom(0, 0.3, -0.6, 1),
    })
    .map(({ x, y, dx, dy, bulge }): Piece => bulged(vec(x, y), vec(x + dx, y + dy), bulge))

  test('is that of the nearest of many places on them', () => {
    fc.assert(
      fc.property(anyPiece, anyPiece, (a, b) => {
        const found = apart(a, b)
        let least = Infinity
        for (let i = 0; i <= 60; i++) {
          for (let k = 0; k <= 60; k++) {
            least = Math.min(least, distance(pointAt(a, i / 60), pointAt(b, k / 60)))
          }
        }
        expect(found.distance).toBeLessThanOrEqual(least + 1e-9)
        // Places on a grid miss the nearest by no more than half its pitch along both.
        expect(found.distance).toBeGreaterThan(least - 0.3)
        expect(distance(found.from, found.to)).toBeCloseTo(found.distance, 9)
      }),
      { numRuns: 200 },
    )
  })

  test('of an arc before a line is square to both', () => {
    const round = bulged(vec(-2, 0), vec(2, 0), 1)
    expect(apart(round, line(vec(-9, -5), vec(9, -5))).distance).toBeCloseTo(3, 12)
  })
})

describe('stations along the axis', () => {
  test('of a stepped shaft with a bore agree with closed forms, on both sides of a shoulder', () => {
    const shaft = joined(
      joined(rectangle(0, 0, 30, 10), rectangle(30, 0, 50, 6, 't'), 'add'),
      rectangle(0, 0, 20, 4, 'u'),
      'cut',
    )
    const all = stationsAlong(shaft, 100)
    const [first, last] = [all[0], all.at(-1)]
    expect(first).toMatchObject({ x: 0, outer: 20, inner: 8, volume: 0 })
    expect(first?.area).toBeCloseTo(Math.PI * (100 - 16), 10)
    expect(first?.secondMoment).toBeCloseTo((Math.PI / 4) * (1e4 - 256), 8)
    const shoulder = all.filter((s) => s.x === 30)
    expect(shoulder.map((s) => s.outer)).toEqual([20, 12])
    expect(all.filter((s) => s.x === 20).map((s) => s.inner)).toEqual([8, 0])
    expect(last?.volume).toBeCloseTo(solidProperties(shaft)?.volume ?? 0, 8)
  })

  test('of a ball are those of a ball', () => {
    const ball = outlineOf([at(-10, 0), at(10, 0, 1)])
    for (const { x, outer, area, secondMoment, volume } of stationsAlong(ball, 200)) {
      const square = 100 - x * x
      expect(outer).toBeCloseTo(2 * Math.sqrt(square), 9)
      expect(area / Math.PI).toBeCloseTo(square, 9)
      expect(secondMoment).toBeCloseTo((Math.PI / 4) * square * square, 7)
      // A cap of height h: πh²(3R − h)/3.
      const h = x + 10
      expect(volume).toBeCloseTo((Math.PI * h * h * (30 - h)) / 3, 9)
    }
  })

  test('add up to the volume of any part', () => {
    fc.assert(
      fc.property(anySection('s'), (section) => {
        const total = solidProperties(section)?.volume ?? 0
        expect(stationsAlong(section, 40).at(-1)?.volume).toBeCloseTo(total, 8)
      }),
      { numRuns: 200 },
    )
  })

  test('by the triangles of any part are those of its section', () => {
    fc.assert(
      fc.property(anySection('s'), (section) => {
        const { volume } = solidProperties(section) ?? { volume: 0 }
        const all = stationsOfSolid(latheMesh(section, 0.005), volume, 60)
        const { breaks } = lengthwise(section)
        const sum = (x: number, power: number): number =>
          ringsAt(section, x).reduce((total, [i, o]) => total + o ** power - i ** power, 0)
        for (const s of all) {
          // At a shoulder there are two answers, and where a round turns back the slope is endless.
          if (breaks.some((x) => Math.abs(x - s.x) < 0.02)) continue
          const [area, secondMoment] = [Math.PI * sum(s.x, 2), (Math.PI / 4) * sum(s.x, 4)]
          // Where a side is steep a small error along the axis is a large one across it.
          const steep = (power: number): number =>
            Math.abs(sum(s.x + 0.02, power) - sum(s.x - 0.02, power)) * Math.PI
          expect(Math.abs(s.area - area)).toBeLessThan(0.01 * area + 0.01 + steep(2))
          expect(Math.abs(s.secondMoment - secondMoment)).toBeLessThan(
            0.02 * secondMoment + 0.1 + steep(4),
          )
          expect(s.mostMoment - s.secondMoment).toBeLessThan(1e-3 * secondMoment + 0.01)
        }
        expect(all.at(-1)?.volume).toBeCloseTo(volume, 6)
      }),
      { numRuns: 60 },
    )
  })

  test('by triangles: diameters, and both sides of a shoulder', () => {
    const shaft = joined(rectangle(0, 4, 30, 10), rectangle(30, 4, 50, 6, 't'), 'add')
    const all = stationsOfSolid(latheMesh(shaft, 0.02), solidProperties(shaft)?.volume ?? 0, 100)
    const shoulder = all.filter((s) => Math.abs(s.x - 30) < 1e-4)
    expect(shoulder).toHaveLength(2)
    expect(shoulder[0]?.outer).toBeCloseTo(20, 4)
    expect(shoulder[1]?.outer).toBeCloseTo(12, 4)
    for (const s of all) {
      expect(s.inner).toBeCloseTo(8, 4)
      expect(s.area / (Math.PI * ((s.outer * s.outer) / 4 - 16))).toBeCloseTo(1, 4)
    }
    expect(
      stationsOfSolid({ ...latheMesh(shaft, 0.02), indices: new Uint32Array() }, 1, 9),
    ).toEqual([])
  })
})

describe('what a vessel holds', () => {
  test('a cup holds its inner cylinder, to the brim and to a height', () => {
    const room = cavityOf(cup(40, 20, 2))
    if (!room) throw new Error('a cup holds something')
    expect(room).toMatchObject({ closed: false, floor: 2, brim: 40 })
    expect(room.volume).toBeCloseTo(Math.PI * 18 * 18 * 38, 8)
    expect(capacityAt(room, 10)).toBeCloseTo(Math.PI * 18 * 18 * 10, 8)
    expect(capacityAt(room, -1)).toBe(0)
    expect(capacityAt(room, 1000)).toBeCloseTo(room.volume, 8)
    expect(sectionArea(filledRoom(room, 10))).toBeCloseTo(180, 9)
  })

  test('a bowl with a rounded rim is filled to the top of the rim', () => {
    // A half ball of radius 20 inside, 24 outside, its rim a half circle between them.
    const bowl = outlineOf(
      [
        at(-24, 0),
        at(0, 24, -Math.tan(Math.PI / 8)),
        at(0, 20, -1),
        at(-20, 0, Math.tan(Math.PI / 8)),
      ].map((c, i, all) => ({ at: c.at, bulge: all[(i + 1) % 4]?.bulge ?? 0 })),
    )
    const room = cavityOf(bowl)
    expect(room?.brim).toBeCloseTo(2, 9)
    expect(room?.floor).toBeCloseTo(-20, 9)
    // Above the half ball the rim closes in from 20 to 22 on a circle of radius 2 about 22.
    const g = (x: number): number => 2 * Math.asin(x / 2) + (x / 2) * Math.sqrt(4 - x * x)
    const rim = Math.PI * (22 * 22 * 2 - 44 * g(2) + (4 * 2 - 8 / 3))
    expect(room?.volume).toBeCloseTo((2 / 3) * Math.PI * 8000 + rim, 6)
  })

  test('a closed float holds its inside; a tube open at the bottom holds nothing', () => {
    const shell = joined(rectangle(0, 0, 50, 20), rectangle(2, 0, 48, 18, 't'), 'cut')
    expect(cavityOf(shell)).toMatchObject({ closed: true, floor: 2, brim: 48 })
    expect(cavityOf(shell)?.volume).toBeCloseTo(Math.PI * 324 * 46, 7)
    expect(cavityOf(rectangle(0, 8, 50, 10))).toBeUndefined()
    expect(cavityOf({ regions: [] })).toBeUndefined()
  })

  test('a neck narrower than the belly counts to the brim of the neck', () => {
    const flask = joined(
      outlineOf([
        at(0, 0),
        at(0, 20),
        at(30, 20),
        at(40, 8),
        at(50, 8),
        at(50, 6),
        at(39, 6),
        at(29, 18),
        at(2, 18),
        at(2, 0),
      ]),
      rectangle(60, 0, 61, 1, 't'),
      'add',
    )
    const room = cavityOf(flask)
    const cone = (Math.PI * 10 * (18 * 18 + 18 * 6 + 36)) / 3
    expect(room?.volume).toBeCloseTo(Math.PI * 324 * 27 + cone + Math.PI * 36 * 11, 7)
  })

  test('the height for a volume is the one at which it holds that volume', () => {
    const room = cavityOf(cup(40, 20, 3))
    if (!room) throw new Error('a cup holds something')
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (share) => {
        const height = heightFor(room, share * room.volume) ?? Number.NaN
        expect(capacityAt(room, height)).toBeCloseTo(share * room.volume, 6)
      }),
    )
    expect(heightFor(room, 1.01 * room.volume)).toBeUndefined()
    const curve = capacityCurve(room, 10)
    expect(curve).toHaveLength(11)
    expect(curve.at(-1)?.volume).toBeCloseTo(room.volume, 8)
  })
})

describe('a body nested in another', () => {
  /** A roller of radius r and length l about x = 0. */
  const roller = (r: number, l: number): Section => rectangle(-l / 2, 0, l / 2, r, 'roller')
  /** A guide ring about it: two flanges that reach further in than its bore. */
  const ring = outlineOf([at(-12, 8), at(12, 8), at(12, 20), at(-12, 20)])
  const guide = joined(ring, rectangle(-10, 0, 10, 11, 'bore'), 'cut')

  test('has the play its diameters and lengths leave, and is held both ways', () => {
    const found = clearanceBetween(roller(10.5, 19), guide)
    expect(found).toMatchObject({ overlap: false })
    expect(found?.radial).toBeCloseTo(0.5, 12)
    expect(found?.left).toBeCloseTo(0.5, 12)
    expect(found?.right).toBeCloseTo(0.5, 12)
    expect(found?.gap.distance).toBeCloseTo(0.5, 12)
  })

  test('leaves freely where nothing reaches in as far as it reaches out', () => {
    const thin = clearanceBetween(roller(7.9, 19), guide)
    expect(thin?.left).toBeUndefined()
    expect(thin?.right).toBeUndefined()
    expect(thin?.radial).toBeCloseTo(3.1, 12)
    const beyond = clearanceBetween(rectangle(40, 0, 50, 10, 'far'), guide)
    expect(beyond?.radial).toBeUndefined()
    expect(beyond?.left).toBeCloseTo(28, 12)
    expect(beyond?.right).toBeUndefined()
  })

  test('of one diameter slides, and of a greater one overlaps', () => {
    expect(clearanceBetween(roller(8, 60), guide)).toMatchObject({ overlap: false, radial: 0 })
    expect(clearanceBetween(roller(8, 60), guide)?.left).toBeUndefined()
    expect(clearanceBetween(roller(9, 60), guide)?.overlap).toBe(true)
    expect(clearanceBetween(roller(9, 60), { regions: [] })).toBeUndefined()
  })

  test('a ball in a cone stops where their slopes agree', () => {
    // A cone of 45° about the axis from radius 0 at x = 20; a ball of radius 5 at the datum.
    const cone = outlineOf([at(0, 20), at(20, 0), at(20, 30), at(0, 30)])
    const found = clearanceBetween(outlineOf([at(-5, 0), at(5, 0, 1)]), cone)
    // The sphere touches x + y = 20 when its centre has come to 20 − 5√2.
    expect(found?.right).toBeCloseTo(20 - 5 * Math.SQRT2, 9)
  })

  test('moved by its travel it touches, and by more it overlaps', () => {
    fc.assert(
      fc.property(anySection('a'), anySection('b'), (a, b) => {
        const far = { regions: moved(b, 60).regions }
        const found = clearanceBetween(a, far)
        if (found?.right === undefined) return
        const near = moved(a, found.right - 1e-4)
        const deep = moved(a, found.right + 1e-2)
        expect(clearanceBetween(near, far)?.overlap).toBe(false)
        expect(clearanceBetween(deep, far)?.overlap).toBe(true)
      }),
      { numRuns: 60 },
    )
  })
})

function moved(section: Section, by: number): Section {
  const shift = (loop: Loop): Loop =>
    loop.map((e) => ({ ...e, piece: translated(e.piece, vec(by, 0)) }))
  return {
    regions: section.regions.map((r) => ({ outer: shift(r.outer), holes: r.holes.map(shift) })),
  }
}

describe('the least wall', () => {
  test('of a cup is its wall, of a shaft its least diameter', () => {
    expect(leastWall(cup(40, 20, 2))?.distance).toBeCloseTo(2, 12)
    const shaft = joined(rectangle(0, 0, 30, 10), rectangle(12, 6, 16, 20, 't'), 'cut')
    expect(leastWall(shaft)?.distance).toBeCloseTo(12, 9)
    expect(leastWall(rectangle(0, 0, 90, 5))?.distance).toBeCloseTo(10, 12)
    expect(leastWall({ regions: [] })).toBeUndefined()
  })

  test('lies between an inside corner and the surface before it', () => {
    // A bore with a flat bottom under a groove: the corner of the groove is nearest to the bore's.
    const bar = joined(rectangle(0, 0, 40, 10), rectangle(0, 0, 20, 5, 'bore'), 'cut')
    const grooved = joined(bar, rectangle(23, 8, 30, 20, 'groove'), 'cut')
    expect(leastWall(grooved)?.distance).toBeCloseTo(Math.hypot(3, 3), 9)
  })

  test('of a wall that tapers to its rim is found at the rim', () => {
    const tapered = outlineOf([at(0, 0), at(0, 20), at(50, 20), at(50, 19), at(4, 16), at(4, 0)])
    expect(leastWall(tapered)?.distance).toBeCloseTo(1, 2)
  })

  test('takes neither a rounded edge nor a bevel for a thin wall', () => {
    const rounded = outlineOf([
      at(0, 0),
      at(0, 9, -Math.tan(Math.PI / 8)),
      at(1, 10),
      at(30, 10),
      at(31, 9),
      at(31, 0),
    ])
    expect(leastWall(rounded)?.distance).toBeGreaterThan(15)
  })
})
