import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  addReference,
  addSize,
  constrain,
  drawChain,
  fittingConstraints,
  changeSize,
  drawCurve,
  fittingSizes,
  nudgePoints,
  perform,
  setPointCount,
} from '@lathica/core/edit'
import {
  bendRead,
  byPoints,
  cubicsOf,
  distance,
  lengthRead,
  placeRead,
  pointAt,
  radiusRead,
  type Cubic,
  type Reading,
  type Spline,
  type Vec,
} from '@lathica/core/geometry'
import { createPart, type Part } from '@lathica/core/part'
import { sketchStates } from '@lathica/core/route'
import { locator, piecesOf, type Size } from '@lathica/core/sketch'
import { must, placeIn, sketchOf, splineIn } from './support/parts'

const SKETCH = 'sketch2'

/** The belly of an ink flask: a free curve of six places. */
function belly(way: 'through' | 'frame'): Part {
  const at = (x: number, y: number) => ({ at: { x, y } })
  return must(
    createPart({ name: 'Ink flask' }),
    drawCurve({
      ...{ sketch: SKETCH, way, role: 'outline', square: false },
      places: [at(4, 22), at(15, 34), at(40, 46), at(70, 30), at(95, 16), at(120, 24)],
    }),
  )
}

/** Places close together along the curve. */
function along(part: Part): readonly Vec[] {
  const pieces = piecesOf(splineIn(part), locator(sketchOf(part)))
  return pieces.flatMap((piece) => Array.from({ length: 4001 }, (_, i) => pointAt(piece, i / 4000)))
}

/** What is read off places along the curve. */
function read(part: Part, kind: Size['kind']): number {
  const places = along(part)
  const sorted = [...places].sort((p, q) => p.y - q.y)
  const [least, greatest] = [sorted[0], sorted.at(-1)]
  if (kind === 'greatestDiameter') return 2 * (greatest?.y ?? 0)
  if (kind === 'leastDiameter') return 2 * (least?.y ?? 0)
  if (kind === 'greatestAt') return greatest?.x ?? 0
  if (kind === 'leastAt') return least?.x ?? 0
  if (kind === 'arcLength') {
    return places.slice(1).reduce((sum, p, i) => sum + distance(p, places[i] ?? p), 0)
  }
  // The circle through three places in a row.
  const radii = places.slice(4, -4).map((p, i) => {
    const [a, b] = [places[i] ?? p, places[i + 8] ?? p]
    const [u, v] = [
      { x: p.x - a.x, y: p.y - a.y },
      { x: b.x - a.x, y: b.y - a.y },
    ]
    const area = Math.abs(u.x * v.y - u.y * v.x)
    return (distance(a, p) * distance(p, b) * distance(a, b)) / (2 * area || 1e-30)
  })
  return Math.min(...radii)
}

/** How near reading places comes to the truth, in mm. */
const NEAR: Partial<Record<Size['kind'], number>> = {
  leastRadius: 0.02,
  greatestAt: 0.02,
  leastAt: 0.02,
}

describe.each(['through', 'frame'] as const)('sizes of a free curve %s', (way) => {
  const part = belly(way)
  const curve = splineIn(part).id
  const offers = fittingSizes(sketchOf(part), [curve])

  test('are its diameters and their places, its length and its least radius', () => {
    expect(offers.map((o) => o.kind)).toEqual([
      ...['greatestDiameter', 'leastDiameter', 'greatestAt', 'leastAt'],
      ...['arcLength', 'leastRadius'],
    ])
  })

  test.each(offers.map((o) => [o.kind, o] as const))(
    '%s is told and comes to what is typed',
    (kind, offer) => {
      const told = must(part, addReference(SKETCH, offer))
      const [size] = sketchOf(told).sizes
      const now =
        sketchStates(told)
          .get(SKETCH)
          ?.measured.get(size?.id ?? '') ?? 0
      const near = NEAR[kind] ?? 1e-4
      expect(Math.abs(now - read(part, kind))).toBeLessThan(near)
      for (const times of [0.93, 1.04]) {
        const sized = must(part, addSize(SKETCH, offer, String(now * times)))
        expect(Math.abs(read(sized, kind) - now * times), `${times}`).toBeLessThan(near)
        const again = must(
          sized,
          changeSize(SKETCH, sketchOf(sized).sizes[0]?.id ?? '', String(now)),
        )
        expect(Math.abs(read(again, kind) - now)).toBeLessThan(near)
      }
    },
  )

  test('hold while its points are pulled, and together', () => {
    const [diameter, , place, , length] = offers
    if (!diameter || !place || !length) throw new Error('not offered')
    const sized = must(
      part,
      addSize(SKETCH, diameter, '100'),
      addSize(SKETCH, place, '44'),
      addSize(SKETCH, length, '160'),
    )
    const last = splineIn(sized).to
    const pulled = must(sized, nudgePoints(SKETCH, [last], { x: 3, y: 2 }))
    expect(placeIn(pulled, last).y).toBeCloseTo(placeIn(sized, last).y + 2, 6)
    for (const p of [sized, pulled]) {
      expect(read(p, 'greatestDiameter')).toBeCloseTo(100, 4)
      expect(Math.abs(read(p, 'greatestAt') - 44)).toBeLessThan(0.02)
      expect(read(p, 'arcLength')).toBeCloseTo(160, 3)
      expect(sketchStates(p).get(SKETCH)?.solution.freedoms).toBe(12 - 3)
    }
  })

  test('what cannot be is refused, and nothing moves', () => {
    const [diameter, least] = offers
    if (!diameter || !least) throw new Error('not offered')
    const sized = must(part, addSize(SKETCH, diameter, '90'))
    const done = perform(sized, addSize(SKETCH, least, '95'))
    expect(done.ok).toBe(false)
  })

  test('go on with the curve when its points are fewer', () => {
    const [diameter] = offers
    if (!diameter) throw new Error('not offered')
    const sized = must(part, addSize(SKETCH, diameter, '90'))
    const fewer = must(sized, setPointCount(SKETCH, curve, 5))
    expect(sketchOf(fewer).sizes).toHaveLength(1)
    expect(read(fewer, 'greatestDiameter')).toBeCloseTo(90, 4)
  })
})

describe.each(['through', 'frame'] as const)('a point held on a free curve %s', (way) => {
  const curve = splineIn(belly(way)).id
  const ends = [{ at: { x: 52, y: 60 } }, { at: { x: 52, y: 44 } }]
  const part = must(belly(way), drawChain(SKETCH, ends, []))
  const point = sketchOf(part).points.at(-1)?.id ?? ''
  const held = must(part, constrain(SKETCH, 'pointOn', [curve, point]))
  const off = (p: Part): number => {
    const at = placeIn(p, point)
    return Math.min(...along(p).map((q) => distance(at, q)))
  }

  test('comes to lie on it, with one freedom less', () => {
    expect(off(part)).toBeGreaterThan(1)
    expect(off(held)).toBeLessThan(0.02)
    const freedoms = (p: Part) => sketchStates(p).get(SKETCH)?.solution.freedoms
    expect(freedoms(held)).toBe((freedoms(part) ?? 0) - 1)
  })

  test('goes along when the curve is pulled, and pulls it', () => {
    const [, , third] = curvePointsIn(held)
    const pulled = must(held, nudgePoints(SKETCH, [third ?? ''], { x: 2, y: 9 }))
    expect(placeIn(pulled, third ?? '').y).toBeCloseTo(placeIn(held, third ?? '').y + 9, 6)
    expect(off(pulled)).toBeLessThan(0.02)
    const lifted = must(held, nudgePoints(SKETCH, [point], { x: 0, y: 6 }))
    expect(placeIn(lifted, point).y).toBeCloseTo(placeIn(held, point).y + 6, 6)
    expect(off(lifted)).toBeLessThan(0.02)
  })

  test('is not offered to one of its own points', () => {
    const [own] = curvePointsIn(part)
    expect(fittingConstraints(sketchOf(part), [curve, own ?? ''])).not.toContain('pointOn')
    expect(fittingConstraints(sketchOf(part), [curve, point])).toContain('pointOn')
  })
})

const curvePointsIn = (part: Part): readonly string[] => {
  const { from, by, to } = splineIn(part)
  return [from, ...by, to]
}

const READ: Readonly<Record<string, (cubics: readonly Cubic[]) => Reading>> = {
  'greatest radius': (c) => radiusRead(c, 'greatest'),
  'least radius': (c) => radiusRead(c, 'least'),
  'place of the greatest': (c) => placeRead(c, 'greatest'),
  length: lengthRead,
  curvature: bendRead,
}

describe('how what is read off a curve changes with its points', () => {
  const place = fc.record({
    x: fc.double({ min: -4, max: 4, noNaN: true }),
    y: fc.double({ min: -4, max: 4, noNaN: true }),
  })
  /** Places that go on along the axis, so that nothing is read off at a cusp. */
  const spline = fc
    .record({
      way: fc.constantFrom('through' as const, 'frame' as const),
      places: fc.array(place, { minLength: 4, maxLength: 9 }),
      shares: fc.array(fc.double({ min: 0.6, max: 1.6, noNaN: true }), {
        minLength: 9,
        maxLength: 9,
      }),
      ends: fc.tuple(fc.option(place, { nil: undefined }), fc.option(place, { nil: undefined })),
      twice: fc.boolean(),
    })
    .map(({ way, places, shares, ends, twice }): Spline => {
      const spread = places.map((p, i) => ({ x: 14 * i + p.x, y: 30 + 6 * ((i % 3) - 1) + p.y }))
      const [second] = spread.slice(1, 2)
      // A place that is there twice leads a curve through places no otherwise.
      const all =
        twice && way === 'through' && second
          ? [spread[0] ?? second, second, ...spread.slice(1)]
          : spread
      const [first, last] = [all[0], all.at(-1)]
      const handles = [
        ends[0] && first && { x: first.x + 6 + ends[0].x, y: first.y + ends[0].y },
        ends[1] && last && { x: last.x - 6 + ends[1].x, y: last.y + ends[1].y },
      ] as const
      return {
        ...{ way, places: all },
        spans: shares.slice(0, way === 'through' ? all.length - 1 : all.length - 3),
        ends: way === 'through' ? handles : [undefined, undefined],
      }
    })

  test.each(Object.entries(READ))('%s', (name, read) => {
    let compared = 0
    fc.assert(
      fc.property(spline, (own) => {
        const told = byPoints(own, read(cubicsOf(own)).by())
        const value = (moved: Spline): number => read(cubicsOf(moved)).value
        const step = 1e-5
        /** Where two places are as good the reading has a slope to either side, and none of its own. */
        const slope = (change: (by: number) => Spline): number | undefined => {
          const [back, here, on] = [-step, 0, step].map((by) => value(change(by)))
          const [before, behind] = [(here ?? 0) - (back ?? 0), (on ?? 0) - (here ?? 0)]
          const isKink = Math.abs(behind - before) > 1e-3 * (Math.abs(behind) + step * size)
          return isKink ? undefined : (before + behind) / (2 * step)
        }
        const size = name === 'curvature' ? 1e-3 : 1
        const near = (found = 0, wanted?: number): void => {
          if (wanted === undefined || Math.abs(wanted) > 50 * size) return
          compared++
          expect(Math.abs(found - wanted)).toBeLessThan(1e-3 * (size + Math.abs(wanted)))
        }
        own.places.forEach((p, i) => {
          // What is there twice goes as one.
          if (own.places.some((q, j) => j !== i && distance(p, q) < 1e-9)) return
          const to = (q: Vec): Spline => ({
            ...own,
            places: own.places.map((o, j) => (j === i ? q : o)),
          })
          const wanted = [
            slope((by) => to({ x: p.x + by, y: p.y })),
            slope((by) => to({ x: p.x, y: p.y + by })),
          ]
          const found = told.places[i]
          near(found?.x, wanted[0])
          near(found?.y, wanted[1])
        })
        own.ends.forEach((p, i) => {
          if (!p) return
          const to = (q: Vec): Spline => ({
            ...own,
            ends: i === 0 ? [q, own.ends[1]] : [own.ends[0], q],
          })
          near(
            told.ends[i]?.x,
            slope((by) => to({ x: p.x + by, y: p.y })),
          )
          near(
            told.ends[i]?.y,
            slope((by) => to({ x: p.x, y: p.y + by })),
          )
        })
      }),
      { numRuns: 150 },
    )
    expect(compared).toBeGreaterThan(800)
  })
})
