import * as fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  VERTEX_TOLERANCE,
  apart,
  areaBeside,
  arc,
  boundsOf,
  controlOf,
  coursesOf,
  cubic,
  curvatureAt,
  distance,
  integrate,
  lengthOf,
  line,
  meetingsOf,
  mirroredAcross,
  nearestOn,
  parallelsTo,
  pointAt,
  pointsAlong,
  reversed,
  simplePieces,
  stretch,
  tangentAt,
  translated,
  vec,
  windingAround,
  windingsBeside,
  type CubicPiece,
  type Piece,
} from '../src'

/** The same curves every time: some bounds below are those of a look, not of a proof. */
const always = <T>(property: fc.IProperty<T>, more: fc.Parameters<T> = {}): void =>
  fc.assert(property, { seed: 20, ...more })

const place = fc
  .record({
    x: fc.double({ min: -10, max: 10, noNaN: true }),
    y: fc.double({ min: 0.5, max: 20, noNaN: true }),
  })
  .map(({ x, y }) => vec(x, y))
const anyCubic = fc.tuple(place, place, place, place).map(([a, b, c, d]) => cubic(a, b, c, d))

const isCubic = (p: Piece): p is CubicPiece => p.kind === 'cubic'
/** A simple part of any curve, of a millimetre at least. */
const anySimple = anyCubic
  .map((c) => simplePieces(c).filter(isCubic))
  .filter((parts) => parts.some((p) => lengthOf(p) > 1))
  .map(
    (parts) =>
      parts.find((p) => lengthOf(p) > 1) ?? cubic(vec(0, 1), vec(1, 1), vec(1, 2), vec(3, 3)),
  )

/** The curve as many short lines, which tell the same by another way. */
const asLines = (piece: Piece, n = 4000): Piece[] =>
  Array.from({ length: n }, (_, i) => line(pointAt(piece, i / n), pointAt(piece, (i + 1) / n)))

describe('curves meet as often whichever is asked first', () => {
  test('curves one of which ends on the other and crosses it close by', () => {
    const first = [
      cubic(
        vec(4.1728859487921, 9.32403989834711),
        vec(3.9282518811523914, 2.0533813908696175),
        vec(6.82542271213606, 2.7836555638350546),
        vec(1.786444114986807, 3.7967391358688474),
      ),
      cubic(
        vec(4.5018978437222525, 4.732309736739843),
        vec(2.0156090310774744, 5.79384628450498),
        vec(4.827109104953706, 5.749567998573184),
        vec(4.782359958787991, 3.3611846901645954),
      ),
    ] as const
    const second = [
      cubic(
        vec(6.715398617088795, 6.984859816730022),
        vec(9.870950253680348, 1.6967161232605577),
        vec(8.146987131331116, 6.277371135074645),
        vec(3.6870257137343287, 8.198961962480098),
      ),
      cubic(
        vec(8.295801049626897, 4.551853845012373),
        vec(6.477160374633968, 8.371414642315358),
        vec(3.7444768799468875, 9.216279704123735),
        vec(8.315543817880187, 4.529866449290739),
      ),
    ] as const
    for (const [a, b] of [first, second]) {
      const counts = simplePieces(a).flatMap((x) =>
        simplePieces(b).map((y) => [
          meetingsOf(x, y, VERTEX_TOLERANCE).length,
          meetingsOf(y, x, VERTEX_TOLERANCE).length,
        ]),
      )
      expect(counts.map(([one]) => one)).toEqual(counts.map(([, other]) => other))
      expect(Math.max(...counts.flat())).toBeGreaterThan(0)
    }
  })

  test('any curves', () => {
    always(
      fc.property(anyCubic, anyCubic, (a, b) => {
        for (const x of simplePieces(a)) {
          for (const y of simplePieces(b)) {
            const [one, other] = [
              meetingsOf(x, y, VERTEX_TOLERANCE),
              meetingsOf(y, x, VERTEX_TOLERANCE),
            ]
            expect(one.length).toBe(other.length)
          }
        }
      }),
      { numRuns: 400 },
    )
  })
})

describe('a free curve', () => {
  test('has the direction and curvature of its points', () => {
    always(
      fc.property(anySimple, fc.double({ min: 0.1, max: 0.9, noNaN: true }), (c, t) => {
        const h = 1e-5
        const [a, b] = [pointAt(c, t - h), pointAt(c, t + h)]
        const far = distance(a, b)
        fc.pre(far > 1e-6)
        const tangent = tangentAt(c, t)
        expect(tangent.x).toBeCloseTo((b.x - a.x) / far, 5)
        expect(tangent.y).toBeCloseTo((b.y - a.y) / far, 5)
        const [u, v] = [tangentAt(c, t - h), tangentAt(c, t + h)]
        const turn = (u.x * v.y - u.y * v.x) / far
        expect(curvatureAt(c, t) / (1 + Math.abs(turn))).toBeCloseTo(turn / (1 + Math.abs(turn)), 3)
      }),
    )
  })

  test('bounds the integrals that its polygon converges to', () => {
    always(
      fc.property(anyCubic, (c) => {
        const exact = integrate(c, 1)
        const sums = asLines(c).map((l) => integrate(l, 1))
        for (const name of ['area', 'y', 'xy', 'yyy', 'xxy', 'yAlong'] as const) {
          const sum = sums.reduce((s, i) => s + i[name], 0)
          const size = sums.reduce((s, i) => s + Math.abs(i[name]), 1)
          expect(Math.abs(exact[name] - sum) / size).toBeLessThan(1e-5)
        }
        const chord = line(c.to, c.from)
        expect(areaBeside(c) + areaBeside(chord)).toBeCloseTo(
          exact.area + integrate(chord, 1).area,
          9,
        )
      }),
      { numRuns: 50 },
    )
  })

  test('is as long as its parts, and as its image', () => {
    always(
      fc.property(anyCubic, (c) => {
        const parts = simplePieces(c)
        const sum = parts.reduce((s, p) => s + lengthOf(p), 0)
        // Parts too short to be told apart are left out.
        expect(sum).toBeCloseTo(lengthOf(c), 4)
        const image = mirroredAcross(translated(c, vec(3, 0)), 7)
        expect(lengthOf(image)).toBeCloseTo(lengthOf(c), 7)
        expect(areaBeside(reversed(c))).toBeCloseTo(-areaBeside(c), 9)
      }),
      { numRuns: 100 },
    )
  })

  test('comes apart into parts that turn one way and never back', () => {
    always(
      fc.property(anyCubic, (c) => {
        const parts = simplePieces(c)
        parts.forEach((p, i) => {
          const next = parts[i + 1]
          if (next) expect(p.to).toBe(next.from)
          const box = boundsOf(p)
          const ends = [p.from, p.to]
          for (const of of ['x', 'y'] as const) {
            expect(box.min[of]).toBeCloseTo(Math.min(...ends.map((e) => e[of])), 4)
            expect(box.max[of]).toBeCloseTo(Math.max(...ends.map((e) => e[of])), 4)
          }
          if (lengthOf(p) < 0.01) return
          // What is next to straight has no turn that rounding could tell.
          const turns = [0.1, 0.3, 0.5, 0.7, 0.9]
            .map((t) => curvatureAt(p, t))
            .filter((c) => Math.abs(c) > 1e-6)
          expect(new Set(turns.map(Math.sign)).size).toBeLessThan(2)
        })
      }),
      { numRuns: 300 },
    )
  })

  test('that is straight is lines', () => {
    const straight = simplePieces(cubic(vec(0, 1), vec(2, 2), vec(4, 3), vec(8, 5)))
    expect(straight).toEqual([line(vec(0, 1), vec(8, 5))])
    // One whose handles reach too far runs there and back.
    const doubled = simplePieces(cubic(vec(0, 1), vec(20, 1), vec(-12, 1), vec(8, 1)))
    expect(doubled.map((p) => p.kind)).toEqual(['line', 'line', 'line'])
  })

  test('with its handles on its ends has a direction there', () => {
    const c = cubic(vec(0, 1), vec(0, 1), vec(4, 4), vec(4, 4))
    expect(tangentAt(c, 0).x).toBeCloseTo(0.8, 12)
    expect(tangentAt(c, 1).y).toBeCloseTo(0.6, 12)
  })

  test('is drawn by chords that stay within the tolerance', () => {
    always(
      fc.property(anyCubic, (c) => {
        const points = pointsAlong(c, 0.01)
        points.slice(1).forEach((q, i) => {
          const p = points[i] ?? q
          const middle = vec((p.x + q.x) / 2, (p.y + q.y) / 2)
          expect(nearestOn(c, middle).distance).toBeLessThan(0.0101)
        })
      }),
      { numRuns: 60 },
    )
  })

  test('finds its places again, and its stretches', () => {
    always(
      fc.property(anySimple, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (c, t) => {
        const at = pointAt(c, t)
        expect(nearestOn(c, at).distance).toBeLessThan(1e-9)
        const [one, two] = [stretch(c, c.from, at), stretch(c, at, c.to)]
        expect(lengthOf(one) + lengthOf(two)).toBeCloseTo(lengthOf(c), 8)
        for (const course of coursesOf(c, 'x')) {
          const x = course.low + 0.3 * (course.high - course.low)
          expect(nearestOn(c, vec(x, course.at(x))).distance).toBeLessThan(1e-7)
        }
      }),
    )
  })

  test('winds round what it goes round', () => {
    // Four quarters of nearly a circle, by the usual length of the handles.
    const k = 0.5522847498
    const ring = [
      cubic(vec(5, 5), vec(5, 5 + k), vec(4 + k, 6), vec(4, 6)),
      cubic(vec(4, 6), vec(4 - k, 6), vec(3, 5 + k), vec(3, 5)),
      cubic(vec(3, 5), vec(3, 5 - k), vec(4 - k, 4), vec(4, 4)),
      cubic(vec(4, 4), vec(4 + k, 4), vec(5, 5 - k), vec(5, 5)),
    ].map((piece) => ({ piece, times: 1 }))
    expect(windingAround(vec(4, 5), ring)).toBe(1)
    expect(windingAround(vec(4.69, 5.69), ring)).toBe(1)
    expect(windingAround(vec(4.72, 5.72), ring)).toBe(0)
    const pieces = ring.map((r) => r.piece)
    const back = pieces.map((piece) => reversed(piece))
    const beside = (piece: Piece, all: readonly Piece[]): number =>
      all.map(windingsBeside(piece)).reduce((sum, n) => sum + n, 0)
    for (const piece of pieces) expect(beside(piece, pieces)).toBe(1)
    for (const piece of back) expect(beside(piece, back)).toBe(0)
  })
})

describe('where curves meet', () => {
  const others: fc.Arbitrary<Piece> = fc.oneof(
    fc.tuple(place, place).map(([a, b]) => line(a, b)),
    fc.tuple(place, place).map(([a, b]) => arc(a, vec(2 * b.x - a.x, 2 * b.y - a.y), b, true)),
    anySimple,
  )

  test('both have that place, and fine polygons cross as often', () => {
    always(
      fc.property(anySimple, others, (a, b) => {
        fc.pre(lengthOf(b) > 0.1)
        // What all but lies on the other meets it in one long touch.
        const far = [0.25, 0.5, 0.75].map((t) => nearestOn(b, pointAt(a, t)).distance)
        fc.pre(Math.max(...far) > 1e-3)
        const found = meetingsOf(a, b, 1e-6)
        for (const m of found) {
          expect(distance(pointAt(a, m.t), m.at)).toBeLessThan(2e-6)
          expect(distance(pointAt(b, m.u), m.at)).toBeLessThan(2e-6)
        }
        const [p, q] = [asLines(a, 150), asLines(b, 150)]
        const crossed = p.flatMap((l) => q.flatMap((k) => meetingsOf(l, k, 1e-12)))
        // Each crossing of polygons is near one of the curves, but where they all but touch.
        for (const c of crossed) {
          const near = Math.min(Infinity, ...found.map((m) => distance(m.at, c.at)))
          const [s, t] = [tangentAt(a, nearestOn(a, c.at).t), tangentAt(b, nearestOn(b, c.at).t)]
          if (Math.abs(s.x * t.y - s.y * t.x) > 0.05) expect(near).toBeLessThan(0.05)
        }
        expect(meetingsOf(b, a, 1e-6)).toHaveLength(found.length)
      }),
      { numRuns: 150 },
    )
  })

  test('a line through two of its places meets it there', () => {
    always(
      fc.property(anySimple, (c) => {
        const [p, q] = [pointAt(c, 0.2), pointAt(c, 0.7)]
        fc.pre(distance(p, q) > 0.1)
        // A curve that all but follows the line meets it in one long touch.
        fc.pre(nearestOn(line(p, q), pointAt(c, 0.45)).distance > 1e-3)
        const through = line(
          vec(p.x - (q.x - p.x), p.y - (q.y - p.y)),
          vec(q.x + (q.x - p.x), q.y + (q.y - p.y)),
        )
        const ts = meetingsOf(c, through, 1e-6).map((m) => m.t)
        expect(ts.some((t) => Math.abs(t - 0.2) < 1e-5)).toBe(true)
        expect(ts.some((t) => Math.abs(t - 0.7) < 1e-5)).toBe(true)
      }),
    )
  })

  test('what touches it meets it once', () => {
    const c = cubic(vec(0, 2), vec(0, 6), vec(4, 10), vec(8, 10))
    const at = pointAt(c, 0.5)
    const along = tangentAt(c, 0.5)
    const touching = line(
      vec(at.x - 5 * along.x, at.y - 5 * along.y),
      vec(at.x + 5 * along.x, at.y + 5 * along.y),
    )
    expect(meetingsOf(c, touching, 1e-6)).toHaveLength(1)
    for (const turn of [3, -3]) {
      const centre = vec(at.x + along.y * turn, at.y - along.x * turn)
      expect(meetingsOf(c, arc(at, at, centre, true), 1e-6)).toHaveLength(1)
      const around = arc(vec(centre.x + 3, centre.y), vec(centre.x + 3, centre.y), centre, true)
      expect(meetingsOf(c, around, 1e-6)).toHaveLength(1)
    }
    // Its own image about its tangent there touches it in one place.
    const image = controlOf(c).map((p) => {
      const off = (p.x - at.x) * along.y - (p.y - at.y) * along.x
      return vec(p.x - 2 * off * along.y, p.y + 2 * off * along.x)
    })
    const [p = at, q = at, r = at, s = at] = image
    expect(meetingsOf(c, simplePieces(cubic(p, q, r, s))[0] ?? c, 1e-6).length).toBeLessThan(2)
    const all = simplePieces(cubic(p, q, r, s)).flatMap((x) => meetingsOf(c, x, 1e-6))
    expect(all).toHaveLength(1)
    expect(distance(all[0]?.at ?? vec(0, 0), at)).toBeLessThan(1e-3)
  })

  test('a stretch of itself shares both its ends with it and nothing else', () => {
    always(
      fc.property(anySimple, (c) => {
        const part = stretch(c, pointAt(c, 0.25), pointAt(c, 0.75))
        const again = cubic(...controlOf(part as CubicPiece))
        expect(meetingsOf(c, again, 1e-6)).toHaveLength(2)
      }),
    )
  })
})

describe('beside a curve', () => {
  test('all lies at the distance', () => {
    always(
      fc.property(anySimple, fc.double({ min: -4, max: 4, noNaN: true }), (c, by) => {
        fc.pre(Math.abs(by) > 0.1)
        const found = parallelsTo(c, by)
        expect(found[0]?.of.from).toEqual(c.from)
        expect(found.at(-1)?.of.to).toEqual(c.to)
        for (const { of, piece, tight } of found) {
          if (tight || lengthOf(of) < 0.05) continue
          for (const t of [0.2, 0.5, 0.8]) {
            const p = pointAt(piece, t)
            // Straight across from it, as other parts of a bent curve may be nearer.
            const foot = nearestOn(of, p)
            expect(Math.abs(foot.distance - Math.abs(by))).toBeLessThan(2e-6)
          }
        }
      }),
      { numRuns: 200 },
    )
  })

  test('of a curve that all but stands still at its end, has numbers', () => {
    for (const handle of [vec(0, 5), vec(1e-120, 5), vec(1e-9, 5)]) {
      const found = parallelsTo(cubic(vec(0, 5), handle, vec(4, 9), vec(8, 9)), 1)
      const places = found.flatMap(({ piece }) => [piece.from, pointAt(piece, 0.5), piece.to])
      expect(places.every((p) => Number.isFinite(p.x + p.y))).toBe(true)
    }
  })

  test('how far two are apart is what fine polygons tell', () => {
    always(
      fc.property(anySimple, anySimple, (a, b) => {
        const far = apart(a, b)
        expect(distance(far.from, far.to)).toBeCloseTo(far.distance, 9)
        const least = Math.min(
          ...Array.from({ length: 101 }, (_, i) => nearestOn(b, pointAt(a, i / 100)).distance),
        )
        expect(far.distance).toBeLessThan(least + 1e-9)
        expect(far.distance).toBeGreaterThan(least - 0.3)
      }),
      { numRuns: 200 },
    )
  })
})
