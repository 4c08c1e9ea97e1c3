import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  asFrame,
  asThrough,
  controlOf,
  cross,
  cubic,
  distance,
  evenSpline,
  fittedSpline,
  joinedCubics,
  nearestOn,
  pointAt,
  splinePieces,
  subtract,
  tangentAt,
  withPlace,
  withoutPlace,
  type Cubic,
  type Piece,
  type Spline,
  type Vec,
} from '../src'

const near = (min: number, max: number) => fc.double({ min, max, noNaN: true })
/** Drawn to a micrometre: what is smaller is no place of a drawing. */
const anyPlace = fc
  .record({ x: near(-100, 100), y: near(0, 80) })
  .map(({ x, y }): Vec => ({ x: Math.round(1e3 * x) / 1e3, y: Math.round(1e3 * y) / 1e3 }))
/** Curves of places that are some way apart. */
const anySpline = (way: Spline['way'], least = 2): fc.Arbitrary<Spline> =>
  fc
    .array(anyPlace, { minLength: least, maxLength: 12 })
    .filter((places) => places.every((p, i) => i === 0 || distance(p, places[i - 1] ?? p) > 1))
    .map((places) => evenSpline(way, places))
const eitherWay = fc.oneof(anySpline('through'), anySpline('frame'))

/** The second and first derivatives at both ends of a cubic, from its control points. */
function derivatives(piece: Piece): { slope: [Vec, Vec]; bend: [Vec, Vec] } {
  if (piece.kind !== 'cubic') throw new Error('it is a cubic')
  const [a, b, c, d] = controlOf(piece)
  const second = (p: Vec, q: Vec, r: Vec): Vec => ({
    x: 6 * (p.x - 2 * q.x + r.x),
    y: 6 * (p.y - 2 * q.y + r.y),
  })
  const first = (p: Vec, q: Vec): Vec => ({ x: 3 * (q.x - p.x), y: 3 * (q.y - p.y) })
  return { slope: [first(a, b), first(c, d)], bend: [second(a, b, c), second(b, c, d)] }
}

/** The signed curvature of a derivative and the next one. */
const curvature = (slope: Vec, bend: Vec): number =>
  cross(slope, bend) / Math.hypot(slope.x, slope.y) ** 3

const places = (pieces: readonly Piece[]): Vec[] =>
  pieces.flatMap((p) => Array.from({ length: 40 }, (_, i) => pointAt(p, i / 40)))

/** How far the places of one curve lie off another, in mm. */
const off = (one: readonly Piece[], two: readonly Piece[]): number =>
  Math.max(...places(one).map((p) => Math.min(...two.map((q) => nearestOn(q, p).distance))))

describe('a free curve of many places', () => {
  test('goes through them', () => {
    fc.assert(
      fc.property(anySpline('through'), (spline) => {
        const pieces = splinePieces(spline)
        expect(pieces).toHaveLength(spline.places.length - 1)
        const ends = [...pieces.map((p) => p.from), pieces.at(-1)?.to]
        expect(ends).toEqual(spline.places)
      }),
    )
  })

  test('has no jump of direction or curvature where its cubics meet', () => {
    fc.assert(
      fc.property(eitherWay, (spline) => {
        const pieces = splinePieces(spline)
        for (const [i, next] of pieces.slice(1).entries()) {
          const before = pieces[i]
          if (before?.kind !== 'cubic' || next.kind !== 'cubic') continue
          expect(distance(before.to, next.from)).toBeLessThan(1e-9)
          const [one, two] = [derivatives(before), derivatives(next)]
          const [u, v] = [one.slope[1], two.slope[0]]
          const [m, n] = [Math.hypot(u.x, u.y), Math.hypot(v.x, v.y)]
          // Where it all but stands still, neither is well told.
          if (Math.min(m, n) < 1) continue
          expect(cross(u, v) / (m * n)).toBeCloseTo(0, 7)
          expect(u.x * v.x + u.y * v.y).toBeGreaterThan(0)
          const size = Math.max(1, Math.abs(curvature(u, one.bend[1])))
          expect(
            Math.abs(curvature(u, one.bend[1]) - curvature(v, two.bend[0])) / size,
          ).toBeLessThan(1e-6)
        }
      }),
    )
  })

  test('of two places is a line, of three through them a parabola', () => {
    const [a, b, c] = [
      { x: 0, y: 0 },
      { x: 10, y: 4 },
      { x: 20, y: 0 },
    ]
    for (const way of ['through', 'frame'] as const) {
      expect(splinePieces(evenSpline(way, [a, b]))).toEqual([{ kind: 'line', from: a, to: b }])
    }
    // y = x (20 − x) / 25, by equal chords.
    for (const p of places(splinePieces(evenSpline('through', [a, b, c])))) {
      expect(p.y).toBeCloseTo((p.x * (20 - p.x)) / 25, 10)
    }
    // Over a frame of three it is the parabola that touches both legs.
    for (const p of places(splinePieces(evenSpline('frame', [a, b, c])))) {
      expect(p.y).toBeCloseTo((p.x * (20 - p.x)) / 50, 10)
    }
  })

  test('over a frame lies within the frame, and four places are the control points of a cubic', () => {
    const four = [
      { x: 0, y: 0 },
      { x: 5, y: 10 },
      { x: 15, y: 10 },
      { x: 20, y: 0 },
    ]
    const [only] = splinePieces(evenSpline('frame', four))
    expect(only && controlOf(only as Piece & { kind: 'cubic' })).toEqual(four)
    fc.assert(
      fc.property(anySpline('frame'), ({ places: all, ...rest }) => {
        const xs = all.map((p) => p.x)
        for (const p of places(splinePieces({ ...rest, places: all }))) {
          expect(p.x).toBeGreaterThan(Math.min(...xs) - 1e-9)
          expect(p.x).toBeLessThan(Math.max(...xs) + 1e-9)
        }
      }),
    )
  })

  test('heads where it is told to at its ends', () => {
    fc.assert(
      fc.property(anySpline('through'), anyPlace, anyPlace, (spline, leave, come) => {
        const pieces = splinePieces({ ...spline, ends: [leave, come] })
        const [first, last] = [pieces[0], pieces.at(-1)]
        if (first?.kind !== 'cubic' || last?.kind !== 'cubic') return
        expect(distance(controlOf(first)[1], leave)).toBeLessThan(1e-9)
        expect(distance(controlOf(last)[2], come)).toBeLessThan(1e-9)
      }),
    )
  })

  test('is the same the other way round', () => {
    fc.assert(
      fc.property(eitherWay, (spline) => {
        const back = splinePieces({
          ...spline,
          places: [...spline.places].reverse(),
          spans: [...spline.spans].reverse(),
        })
        const pieces = splinePieces(spline)
        expect(off(pieces, back)).toBeLessThan(1e-7)
        expect(off(back, pieces)).toBeLessThan(1e-7)
      }),
    )
  })

  test('is turned into the other way with its shape kept', () => {
    fc.assert(
      fc.property(eitherWay, (spline) => {
        const turned = spline.way === 'frame' ? asThrough(spline) : asFrame(spline)
        expect(turned.way).not.toBe(spline.way)
        expect(off(splinePieces(turned), splinePieces(spline))).toBeLessThan(1e-7)
        const again = turned.way === 'frame' ? asThrough(turned) : asFrame(turned)
        expect(off(splinePieces(again), splinePieces(spline))).toBeLessThan(1e-7)
      }),
      { numRuns: 60 },
    )
  })

  test('is turned through places too where it comes back to where it was', () => {
    // Half way along it is where it began.
    const places = [0, 100, 0, -100, 0].map((x, i) => ({ x, y: i === 4 ? 0.5 : 0 }))
    const spline = evenSpline('frame', places)
    const turned = asThrough(spline)
    expect(turned.places).toHaveLength(4)
    expect(off(splinePieces(turned), splinePieces(spline))).toBeLessThan(1e-7)
    expect(off(splinePieces(spline), splinePieces(turned))).toBeLessThan(1e-7)
  })

  test('keeps its shape when a place is put in, and again with ends that are told', () => {
    fc.assert(
      fc.property(
        eitherWay,
        near(0, 0.999),
        near(0.1, 0.9),
        fc.boolean(),
        (free, which, t, told) => {
          const [a, z] = [free.places[0], free.places.at(-1)]
          if (!a || !z) return
          const ends =
            told && free.way === 'through'
              ? ([
                  { x: a.x + 3, y: a.y + 4 },
                  { x: z.x, y: z.y + 5 },
                ] as const)
              : free.ends
          const spline = { ...free, ends }
          const before = splinePieces(spline)
          const number = Math.floor(which * before.length)
          const put = withPlace(spline, number, t)
          if (!put) return
          expect(put.spline.places).toHaveLength(spline.places.length + 1)
          const piece = before[number]
          const at = piece && pointAt(piece, t)
          if (at && spline.way === 'through') {
            expect(distance(put.spline.places[put.index] ?? a, at)).toBeLessThan(1e-9)
          }
          const after = splinePieces(put.spline)
          expect(off(before, after)).toBeLessThan(1e-7)
          expect(off(after, before)).toBeLessThan(1e-7)
          // A place taken out again leaves the others.
          if (spline.way !== 'through') return
          const without = withoutPlace(put.spline, put.index)
          expect(without.places).toEqual(spline.places)
          expect(without.spans).toHaveLength(spline.spans.length)
        },
      ),
    )
  })

  test('takes places that fall together as one, and nothing as nothing', () => {
    const [a, b] = [
      { x: 0, y: 5 },
      { x: 10, y: 5 },
    ]
    const c = { x: 20, y: 9 }
    const told = splinePieces(evenSpline('through', [a, b, { ...b }, c]))
    expect(told).toEqual(splinePieces(evenSpline('through', [a, b, c])))
    for (const way of ['through', 'frame'] as const) {
      expect(splinePieces(evenSpline(way, [a, { ...a }, { ...a }]))).toEqual([])
      const pieces = splinePieces(evenSpline(way, [a, a, a, b, c, c, c]))
      for (const p of places(pieces)) expect(Number.isFinite(p.x + p.y)).toBe(true)
    }
  })

  test('does not loop where places lie close together', () => {
    // With even parameters the curve would run back between the two.
    const pieces = splinePieces(
      evenSpline('through', [
        { x: 0, y: 0 },
        { x: 40, y: 20 },
        { x: 41, y: 20 },
        { x: 80, y: 0 },
      ]),
    )
    const all = places(pieces)
    all.slice(1).forEach((p, i) => expect(p.x).toBeGreaterThan(all[i]?.x ?? 0))
    expect(subtract(all[1] ?? all[0] ?? { x: 0, y: 0 }, { x: 0, y: 0 }).y).toBeGreaterThan(0)
  })
})

describe('a free curve with fewer or more places', () => {
  /** The greatest distance of 10,000 places of each curve from the other, by itself. */
  function trulyOff(one: readonly Piece[], two: readonly Piece[]): number {
    const far = (from: readonly Piece[], to: readonly Piece[]): number => {
      const each = Math.ceil(10_000 / from.length)
      let most = 0
      for (const piece of from) {
        for (let i = 0; i <= each; i++) {
          const p = pointAt(piece, i / each)
          most = Math.max(most, Math.min(...to.map((q) => nearestOn(q, p).distance)))
        }
      }
      return most
    }
    return Math.max(far(one, two), far(two, one))
  }

  const belly = evenSpline('through', [
    { x: 0, y: 22 },
    { x: 9, y: 31 },
    { x: 20, y: 36 },
    { x: 33, y: 35 },
    { x: 45, y: 28 },
    { x: 55, y: 18 },
    { x: 63, y: 12 },
    { x: 72, y: 11 },
    { x: 80, y: 14 },
  ])

  test.each(['through', 'frame'] as const)(
    '%s: never departs by more than told, nor much less',
    (way) => {
      const source = way === 'through' ? belly : asFrame(belly)
      for (const count of [5, 6, 7, 9, 14]) {
        const fitted = fittedSpline(source, count)
        if (!fitted) throw new Error('it can be fitted')
        expect(fitted.spline.way).toBe(way)
        expect(fitted.spline.places).toHaveLength(count)
        const truly = trulyOff(splinePieces(source), splinePieces(fitted.spline))
        expect(fitted.deviation).toBeGreaterThanOrEqual(truly)
        expect(fitted.deviation).toBeLessThanOrEqual(1.05 * truly + 1e-9)
      }
    },
  )

  test('departs the less the more places it has, and hardly with as many', () => {
    const off = [4, 6, 9, 16].map((n) => fittedSpline(belly, n)?.deviation ?? Infinity)
    off.slice(1).forEach((d, i) => expect(d).toBeLessThan(off[i] ?? 0))
    expect(off[0]).toBeLessThan(3)
    expect(off[3]).toBeLessThan(0.02)
  })

  test('begins and ends where it did, in the directions it had', () => {
    const pieces = splinePieces(belly)
    const fitted = splinePieces(fittedSpline(belly, 5)?.spline ?? belly)
    expect(fitted[0]?.from).toEqual(pieces[0]?.from)
    expect(fitted.at(-1)?.to).toEqual(pieces.at(-1)?.to)
    const turn = (a: Piece | undefined, b: Piece | undefined, t: number): number => {
      if (!a || !b) throw new Error('there are pieces')
      return cross(tangentAt(a, t), tangentAt(b, t))
    }
    expect(turn(fitted[0], pieces[0], 0)).toBeCloseTo(0, 5)
    expect(turn(fitted.at(-1), pieces.at(-1), 1)).toBeCloseTo(0, 5)
  })

  test('of no length, or with too few places, is none', () => {
    const [p] = belly.places
    expect(
      fittedSpline(evenSpline('through', [p ?? { x: 0, y: 0 }, p ?? { x: 0, y: 0 }]), 4),
    ).toBeUndefined()
    expect(fittedSpline(belly, 1)).toBeUndefined()
    expect(fittedSpline(asFrame(belly), 3)).toBeUndefined()
  })
})

describe('cubics that are joined', () => {
  const cubicsIn = (spline: Spline): Cubic[] =>
    splinePieces(spline).flatMap((p) => (p.kind === 'cubic' ? [controlOf(p)] : []))

  test('property: those of one curve are that curve, over its frame', () => {
    fc.assert(
      fc.property(eitherWay, (spline) => {
        const cubics = cubicsIn(spline)
        const found = joinedCubics(cubics, 1e-9)
        if (cubics.length === 0) return found.length === 0
        // Where a curve stands still it has no direction to go on in.
        const legs = cubics.flatMap(([a, b, c, d]) => [distance(a, b), distance(c, d)])
        fc.pre(Math.min(...legs) > 1e-3)
        const [only, ...more] = found
        if (!only || more.length > 0) return false
        return off(splinePieces(only.frame), splinePieces(spline)) < 1e-8
      }),
      { numRuns: 200 },
    )
  })

  test('a cubic that was parted is one again, and what has a corner stays two', () => {
    const whole: Cubic = [
      { x: 0, y: 10 },
      { x: 10, y: 30 },
      { x: 30, y: 30 },
      { x: 40, y: 12 },
    ]
    const piece = cubic(...whole)
    const parts = [0, 0.2, 0.55, 1].slice(1).map((end, i) => {
      const start = [0, 0.2, 0.55][i] ?? 0
      return controlOf({ ...piece, start, end, from: piece.from, to: piece.to })
    })
    const [only, ...more] = joinedCubics(parts, 1e-9)
    expect(more).toEqual([])
    expect(only?.count).toBe(3)
    only?.frame.places.forEach((p, i) => expect(distance(p, whole[i] ?? p)).toBeLessThan(1e-9))
    const corner: Cubic = [
      { x: 40, y: 12 },
      { x: 50, y: 40 },
      { x: 60, y: 30 },
      { x: 70, y: 12 },
    ]
    expect(joinedCubics([whole, corner], 1e-9).map((j) => j.count)).toEqual([1, 1])
    // Without a corner, but with a jump of curvature.
    const smooth: Cubic = [
      { x: 40, y: 12 },
      { x: 50, y: -6 },
      { x: 80, y: 60 },
      { x: 90, y: 12 },
    ]
    expect(joinedCubics([whole, smooth], 1e-9).map((j) => j.count)).toEqual([1, 1])
    expect(joinedCubics([], 1e-9)).toEqual([])
  })
})
