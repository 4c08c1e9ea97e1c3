import { once } from '../once'
import type { Cubic } from './cubic'
import { cubicsOf, evenSpline, throughOf, type Spline } from './spline'
import { add, distance, scale, subtract, type Vec } from './vector'

/*
 * How the cubics of a free curve move with its points. Over a frame every control point is a sum of places with fixed
 * shares; through places these shares hang on how far the places are apart as well. Something told of the control
 * points is brought back to the points from behind: the system that gave the slopes is solved with its rows for its
 * columns (the adjoint method).
 */

/** The control points of each cubic, and something told for each of them. */
export type ByControl = readonly (readonly Vec[])[]

/** Derivatives by the points of a curve. */
export interface ByPoints {
  readonly places: readonly Vec[]
  readonly ends: readonly [Vec, Vec]
}

const NOUGHT: Vec = { x: 0, y: 0 }
const at = (list: readonly Vec[], i: number): Vec => list[i] ?? NOUGHT

/** From the derivatives of something by control points to those by the curve's points. */
export function byPoints(spline: Spline, by: ByControl): ByPoints {
  return spline.way === 'frame' ? overFrame(spline, by) : throughPlaces(spline, by)
}

/** The shares that places of a frame have in control points: by place, cubic and control point, told by x. */
const sharesOf = once((spans: readonly number[]) => sharesFor(spans.length + 3, spans))

const sharesFor = (count: number, spans: readonly number[]): readonly (readonly Cubic[])[] =>
  Array.from({ length: count }, (_, j) =>
    cubicsOf({
      ...evenSpline('frame', []),
      spans,
      places: Array.from({ length: count }, (_, i) => ({ x: i === j ? 1 : 0, y: 0 })),
    }),
  )

function overFrame({ places, spans }: Spline, by: ByControl): ByPoints {
  const shares = spans.length === 0 ? sharesFor(places.length, spans) : sharesOf(spans)
  return {
    places: places.map((_, j) => {
      let [x, y] = [0, 0]
      shares[j]?.forEach((cubic, i) => {
        cubic.forEach(({ x: share }, k) => {
          x += share * (by[i]?.[k]?.x ?? 0)
          y += share * (by[i]?.[k]?.y ?? 0)
        })
      })
      return { x, y }
    }),
    ends: [NOUGHT, NOUGHT],
  }
}

function throughPlaces(spline: Spline, by: ByControl): ByPoints {
  const { places, kept, h, rows, slopes } = throughOf(spline)
  const last = h.length
  const own = places.map(() => NOUGHT)
  const onSlopes = places.map(() => NOUGHT)
  const onSpans = h.map(() => 0)
  const give = (to: Vec[], i: number, what: Vec): void => {
    to[i] = add(at(to, i), what)
  }
  const dot = (p: Vec, q: Vec): number => p.x * q.x + p.y * q.y
  // The control points: a place, a third of its slope on from there, a third back from the next, and that.
  h.forEach((length, i) => {
    const [a = NOUGHT, b = NOUGHT, c = NOUGHT, d = NOUGHT] = by[i] ?? []
    give(own, i, add(a, b))
    give(own, i + 1, add(c, d))
    give(onSlopes, i, scale(b, length / 3))
    give(onSlopes, i + 1, scale(c, -length / 3))
    onSpans[i] = (dot(b, at(slopes, i)) - dot(c, at(slopes, i + 1))) / 3
  })
  const pull = solvedAcross(rows, onSlopes)
  const ends: [Vec, Vec] = [NOUGHT, NOUGHT]
  const chord = (i: number): Vec => subtract(at(places, i + 1), at(places, i))
  const span = (i: number): number => h[i] ?? 1
  const giveSpan = (i: number, what: number): void => {
    onSpans[i] = (onSpans[i] ?? 0) + what
  }
  rows.forEach((row, i) => {
    const force = at(pull, i)
    if (i > 0 && i < last) {
      const [p, q] = [span(i - 1), span(i)]
      const [before, behind] = [chord(i - 1), chord(i)]
      const [one, two] = [(3 * q) / p, (3 * p) / q]
      give(own, i - 1, scale(force, -one))
      give(own, i, scale(force, one - two))
      give(own, i + 1, scale(force, two))
      const [m, n, o] = [at(slopes, i - 1), at(slopes, i), at(slopes, i + 1)]
      const byP = subtract(add(scale(before, -one / p), scale(behind, 3 / q)), add(scale(n, 2), o))
      const byQ = subtract(add(scale(before, 3 / p), scale(behind, -two / q)), add(m, scale(n, 2)))
      giveSpan(i - 1, dot(force, byP))
      giveSpan(i, dot(force, byQ))
      return
    }
    // At an end the right side is so many times what leads there, by the span of its stretch.
    const k = i === 0 ? 0 : last - 1
    const [handle] = i === 0 ? [spline.ends[0]] : [spline.ends[1]]
    const times = handle ? 3 : row.own + 1
    const share = scale(force, times / span(k))
    if (!handle) {
      give(own, k + 1, share)
      give(own, k, scale(share, -1))
    } else if (i === 0) {
      ends[0] = share
      give(own, 0, scale(share, -1))
    } else {
      ends[1] = scale(share, -1)
      give(own, last, share)
    }
    giveSpan(k, -dot(force, row.right) / span(k))
  })
  // A stretch runs for its share times the root of its chord.
  h.forEach((length, i) => {
    const way = chord(i)
    const far = distance(at(places, i), at(places, i + 1)) || 1
    const force = scale(way, ((onSpans[i] ?? 0) * length) / (2 * far * far))
    give(own, i + 1, force)
    give(own, i, scale(force, -1))
  })
  const all = spline.places.map(() => NOUGHT)
  kept.forEach((j, i) => (all[j] = at(own, i)))
  return { places: all, ends }
}

interface Banded {
  readonly below: number
  readonly own: number
  readonly above: number
}

/** The solution of a system of three bands with rows for columns. */
function solvedAcross(rows: readonly Banded[], right: readonly Vec[]): Vec[] {
  // Row i of the system across holds what stands above in row i − 1, its own, and what stands below in row i + 1.
  const after: number[] = []
  const found: Vec[] = []
  rows.forEach(({ own }, i) => {
    const before = rows[i - 1]?.above ?? 0
    const pivot = own - before * (after[i - 1] ?? 0)
    after.push((rows[i + 1]?.below ?? 0) / pivot)
    found.push(scale(subtract(at(right, i), scale(at(found, i - 1), before)), 1 / pivot))
  })
  for (let i = rows.length - 2; i >= 0; i--) {
    found[i] = subtract(at(found, i), scale(at(found, i + 1), after[i] ?? 0))
  }
  return found
}
