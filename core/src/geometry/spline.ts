import { sameAsLast } from '../once'
import { cubicAt, cubicOn, type Cubic } from './cubic'
import { line, type Piece } from './piece'
import { distance, isSameVec, mix, scale, add, subtract, type Vec } from './vector'
import { VERTEX_TOLERANCE } from '../tolerances'

/**
 * A free curve of many places: cubics joined so that direction and curvature go on without a jump.
 *
 * Through its places it is the interpolating cubic spline. The parameter of each stretch grows with the square root
 * of its chord (centripetal parameters: E. T. Y. Lee, Choosing nodes in parametric curve interpolation, 1989), which
 * keeps it from looping where places lie close together, times the stretch's own share. Over a frame it is the clamped
 * cubic B-spline of its places, whose knots lie the shares apart.
 */
export interface Spline {
  readonly way: 'through' | 'frame'
  /** At least two, in mm. */
  readonly places: readonly Vec[]
  /** Shares of the stretches: one fewer than places through them, three fewer over a frame. */
  readonly spans: readonly number[]
  /** Where the curve heads from its first place and comes from to its last; free where undefined. Through places only. */
  readonly ends: readonly [Vec | undefined, Vec | undefined]
}

/** How many shares a curve has. */
export const spanCount = (way: Spline['way'], places: number): number =>
  Math.max(0, way === 'through' ? places - 1 : places - 3)

/** A curve with places one is led to, evenly, with free ends. */
export const evenSpline = (way: Spline['way'], places: readonly Vec[]): Spline => ({
  ...{ way, places, ends: [undefined, undefined] },
  spans: Array.from({ length: spanCount(way, places.length) }, () => 1),
})

/** One cubic of a spline, and how long its parameter runs. */
export interface Stretch {
  readonly on: Cubic
  readonly length: number
}

/**
 * The curve as cubics, end to end. Places that fall together count once; a curve of two free places is a line.
 * @returns nothing where all places are one
 */
export function splinePieces(spline: Spline): Piece[] {
  const stretches = stretchesOf(spline)
  const [only] = stretches
  if (stretches.length === 1 && only && isEven(only.on)) return [line(only.on[0], only.on[3])]
  const own = stretches.map((s) => s.on)
  return asBefore(`${spline.way} ${own.length}`, own).map(cubicOn)
}

/** A place pushed moves the curve far from it by less than its last digit: what is told of those cubics stays known. */
const asBefore = sameAsLast<Cubic>((one, other) => one.every((p, i) => isSameVec(p, at(other, i))))

/** Whether a cubic is a line run through at one speed. */
const isEven = ([a, b, c, d]: Cubic): boolean =>
  distance(b, mix(a, d, 1 / 3)) + distance(c, mix(a, d, 2 / 3)) <= 1e-12 * distance(a, d)

/** The curve as cubics, lines too; nothing where all places are one. */
export const cubicsOf = (spline: Spline): readonly Cubic[] => stretchesOf(spline).map((s) => s.on)

const stretchesOf = (spline: Spline): Stretch[] =>
  spline.way === 'through' ? through(spline) : over(spline)

/** The places that are apart from the one before, their numbers, and the shares between them. */
function apart({ places, spans }: Spline): { places: Vec[]; spans: number[]; kept: number[] } {
  const [first, ...rest] = places
  if (!first) return { places: [], spans: [], kept: [] }
  const kept = [first]
  const numbers = [0]
  const shares: number[] = []
  rest.forEach((p, i) => {
    if (distance(p, kept.at(-1) ?? first) > VERTEX_TOLERANCE) {
      kept.push(p)
      numbers.push(i + 1)
      shares.push(spans[i] ?? 1)
    } else if (i === rest.length - 1 && kept.length > 1) {
      kept[kept.length - 1] = p
      numbers[numbers.length - 1] = i + 1
    }
  })
  return { places: kept, spans: shares, kept: numbers }
}

/** What leads a curve through places that are apart: see the functions below. */
export interface Through {
  readonly places: readonly Vec[]
  /** Their numbers among all of the curve's places. */
  readonly kept: readonly number[]
  /** For how long the parameter of each stretch runs. */
  readonly h: readonly number[]
  readonly rows: readonly Row[]
  readonly slopes: readonly Vec[]
}

export function throughOf(spline: Spline): Through {
  const { places, spans, kept } = apart(spline)
  const h = spans.map((share, i) => share * Math.sqrt(distance(at(places, i), at(places, i + 1))))
  const rows = h.length === 0 ? [] : rowsThrough(places, h, spline.ends)
  return { places, kept, h, rows, slopes: solved(rows) }
}

function through(spline: Spline): Stretch[] {
  const { places, h, slopes } = throughOf(spline)
  return h.map((length, i) => {
    const [a, d] = [at(places, i), at(places, i + 1)]
    const b = add(a, scale(at(slopes, i), length / 3))
    const c = subtract(d, scale(at(slopes, i + 1), length / 3))
    return { on: [a, b, c, d], length }
  })
}

/**
 * The system whose solution are the derivatives at places for which the second derivative goes on without a jump. At a free end it is that of the
 * other end of the stretch; between two free ends it is nought.
 */
function rowsThrough(
  places: readonly Vec[],
  h: readonly number[],
  [start, end]: Spline['ends'],
): Row[] {
  const last = h.length
  const chord = (i: number): Vec => subtract(at(places, i + 1), at(places, i))
  const span = (i: number): number => h[i] ?? 1
  // Only one stretch: with two free ends a line, with one a parabola.
  const bent = last > 1 || start !== undefined || end !== undefined ? 1 : 2
  const rows: Row[] = []
  rows.push(
    start
      ? { below: 0, own: 1, above: 0, right: scale(subtract(start, at(places, 0)), 3 / span(0)) }
      : { below: 0, own: bent, above: 1, right: scale(chord(0), (bent + 1) / span(0)) },
  )
  for (let i = 1; i < last; i++) {
    const [p, q] = [span(i - 1), span(i)]
    rows.push({
      ...{ below: q, own: 2 * (p + q), above: p },
      right: add(scale(chord(i - 1), (3 * q) / p), scale(chord(i), (3 * p) / q)),
    })
  }
  const q = span(last - 1)
  rows.push(
    end
      ? { below: 0, own: 1, above: 0, right: scale(subtract(at(places, last), end), 3 / q) }
      : { below: 1, own: bent, above: 0, right: scale(chord(last - 1), (bent + 1) / q) },
  )
  return rows
}

/** One row of a system of three bands. */
export interface Row {
  readonly below: number
  readonly own: number
  readonly above: number
  readonly right: Vec
}

/** The solution of a system of three bands, by elimination downwards. */
function solved(rows: readonly Row[]): Vec[] {
  const above: number[] = []
  const right: Vec[] = []
  rows.forEach((row, i) => {
    const own = row.own - row.below * (above[i - 1] ?? 0)
    above.push(row.above / own)
    right.push(
      scale(subtract(row.right, scale(right[i - 1] ?? { x: 0, y: 0 }, row.below)), 1 / own),
    )
  })
  for (let i = rows.length - 2; i >= 0; i--) {
    right[i] = subtract(at(right, i), scale(at(right, i + 1), above[i] ?? 0))
  }
  return right
}

const at = (places: readonly Vec[], i: number): Vec => places[i] ?? { x: 0, y: 0 }

/*
 * Over a frame: place j stands at the knots j, j + 1 and j + 2, the first and last knot counting three times. What
 * lies at any three parameters (the polar form of a cubic stretch) is found by three rounds of dividing in ratio.
 */

interface Frame {
  readonly places: readonly Vec[]
  readonly knots: readonly number[]
}

/** The frame of at least four places of the same curve: fewer are a line or a parabola. */
function frameOf({ places, spans }: Spline): Frame {
  const [a, b, c] = [at(places, 0), at(places, 1), at(places, 2)]
  const raised =
    places.length === 2
      ? [a, mix(a, b, 1 / 3), mix(a, b, 2 / 3), b]
      : places.length === 3
        ? [a, mix(a, b, 2 / 3), mix(b, c, 1 / 3), c]
        : places
  const inner = [0]
  for (let i = 0; i < raised.length - 3; i++) inner.push((inner[i] ?? 0) + (spans[i] ?? 1))
  return { places: raised, knots: knotsOf(inner) }
}

const knotsOf = (inner: readonly number[]): number[] => {
  const end = inner.at(-1) ?? 0
  return [0, 0, ...inner, end, end]
}

/** What lies at three parameters on the cubic of the stretch from one knot to the next. */
function polar({ places, knots }: Frame, stretch: number, x: number, y: number, z: number): Vec {
  const u = (i: number): number => knots[i] ?? 0
  const share = (t: number, from: number, to: number): number => (t - u(from)) / (u(to) - u(from))
  const first = stretch - 2
  const one = [0, 1, 2].map((i) => {
    const j = first + i
    return mix(at(places, j), at(places, j + 1), share(x, j, j + 3))
  })
  const two = [0, 1].map((i) => {
    const j = first + i
    return mix(at(one, i), at(one, i + 1), share(y, j + 1, j + 3))
  })
  return mix(at(two, 0), at(two, 1), share(z, stretch, stretch + 1))
}

/** The numbers of the knots where stretches begin. */
const beginnings = ({ places }: Frame): number[] => places.slice(3).map((_, i) => i + 2)

function over(spline: Spline): Stretch[] {
  if (spline.places.every((p) => distance(p, at(spline.places, 0)) <= VERTEX_TOLERANCE)) return []
  const frame = frameOf(spline)
  return beginnings(frame).map((s) => {
    const [a, b] = [frame.knots[s] ?? 0, frame.knots[s + 1] ?? 0]
    const inner = [polar(frame, s, a, a, b), polar(frame, s, a, b, b)] as const
    return {
      on: [polar(frame, s, a, a, a), inner[0], inner[1], polar(frame, s, b, b, b)],
      length: b - a,
    }
  })
}

/** What lies at three parameters of a cubic, each counted from 0 to 1 along it. */
export function polarOf(on: Cubic, x: number, y: number, z: number): Vec {
  let row: readonly Vec[] = on
  for (const t of [x, y, z]) row = row.slice(1).map((p, i) => mix(at(row, i), p, t))
  return at(row, 0)
}

/** The same curve over a frame: exactly where it was through places that are apart. */
export function asFrame(spline: Spline): Spline {
  if (spline.way === 'frame') return spline
  return frameOver(through(spline))
}

/** The cubics of a curve over a frame, end to end. */
export const cubicsOver = (frame: Spline): readonly Cubic[] => over(frame).map((s) => s.on)

/** The frame whose curve is made of cubics that go on from one another without a jump of curvature. */
export function frameOver(stretches: readonly Stretch[]): Spline {
  const inner = [0]
  for (const { length } of stretches) inner.push((inner.at(-1) ?? 0) + length)
  const knots = knotsOf(inner)
  const places = knots.slice(2).map((_, j): Vec => {
    // Of the three knots a place stands at, the stretch behind the middle one; the last one has none behind it.
    const i = Math.min(Math.max(j - 1, 0), stretches.length - 1)
    const { on, length } = stretches[i] ?? { on: NOWHERE, length: 1 }
    const [x = 0, y = 0, z = 0] = [0, 1, 2].map(
      (k) => ((knots[j + k] ?? 0) - (inner[i] ?? 0)) / length,
    )
    return polarOf(on, x, y, z)
  })
  return {
    ...{ way: 'frame', places, ends: [undefined, undefined] },
    spans: stretches.map((s) => s.length),
  }
}

const NOWHERE: Cubic = [at([], 0), at([], 0), at([], 0), at([], 0)]

/** Beyond so many places no more are put in to part stretches without a chord. */
const MOST_PARTED = 400

/** The same curve through places: those where its cubics meet, with its directions at the ends. */
export function asThrough(spline: Spline): Spline {
  if (spline.way === 'through') return spline
  const stretches = over(spline)
  // A stretch that comes back to where it began has no chord: a place on the way parts it.
  const round = stretches.findIndex(({ on }) => distance(on[0], on[3]) <= VERTEX_TOLERANCE)
  const parted =
    round >= 0 && spline.places.length < MOST_PARTED ? withPlace(spline, round, 0.4) : undefined
  if (parted) return asThrough(parted.spline)
  const [first, last] = [stretches[0], stretches.at(-1)]
  if (!first || !last) return evenSpline('through', spline.places)
  const places = [first.on[0], ...stretches.map((s) => s.on[3])]
  const spans = stretches.map(({ on, length }) => {
    const chord = distance(on[0], on[3])
    return chord > VERTEX_TOLERANCE ? length / Math.sqrt(chord) : 1
  })
  return { way: 'through', places, spans, ends: [first.on[1], last.on[2]] }
}

/** A curve with a place put in, and where in its places that is. */
export interface PutIn {
  readonly spline: Spline
  /** The number of the first place that is new or has moved, and how many of the old ones stood there. */
  readonly index: number
  readonly instead: number
}

/**
 * The same curve with one place more.
 * @param piece the number of the cubic, as {@link splinePieces} tells them
 * @param t where on it, strictly between 0 and 1
 */
export function withPlace(spline: Spline, piece: number, t: number): PutIn | undefined {
  return spline.way === 'through' ? placeThrough(spline, piece, t) : placeOver(spline, piece, t)
}

function placeThrough(spline: Spline, piece: number, t: number): PutIn | undefined {
  const { places, spans } = apart(spline)
  const found = through(spline)[piece]
  if (!found) return undefined
  const { on, length } = found
  const put = cubicAt(on, t)
  const [before, behind] = [distance(on[0], put), distance(put, on[3])]
  if (Math.min(before, behind) <= VERTEX_TOLERANCE) return undefined
  const parts = [(length * t) / Math.sqrt(before), (length * (1 - t)) / Math.sqrt(behind)]
  // The handles keep the directions at the ends, at the length that a shorter stretch has.
  const [start, end] = spline.ends
  const ends: Spline['ends'] = [
    start && piece === 0 ? mix(at(places, 0), start, t) : start,
    end && piece === places.length - 2 ? mix(end, at(places, places.length - 1), t) : end,
  ]
  return {
    ...{ index: piece + 1, instead: 0 },
    spline: {
      ...{ way: 'through', ends },
      places: [...places.slice(0, piece + 1), put, ...places.slice(piece + 1)],
      spans: [...spans.slice(0, piece), ...parts, ...spans.slice(piece + 1)],
    },
  }
}

function placeOver(spline: Spline, piece: number, t: number): PutIn | undefined {
  const { places } = spline
  const [a, b, c] = [at(places, 0), at(places, 1), at(places, 2)]
  const raised = (put: readonly Vec[], index: number, instead: number): PutIn => ({
    ...{ index, instead },
    spline: evenSpline('frame', put),
  })
  // A line is a parabola of three even places, and a parabola a cubic of four.
  if (places.length === 2) return raised([a, mix(a, b, 1 / 2), b], 1, 0)
  if (places.length === 3) return raised([a, mix(a, b, 2 / 3), mix(b, c, 1 / 3), c], 1, 1)
  const frame = frameOf(spline)
  const s = beginnings(frame)[piece]
  if (s === undefined) return undefined
  const { knots } = frame
  const [low, high] = [knots[s] ?? 0, knots[s + 1] ?? 0]
  const x = low + (high - low) * t
  const grown = [...knots.slice(0, s + 1), x, ...knots.slice(s + 1)]
  const made = [s - 1, s, s + 1].map((j) => {
    const [u = 0, v = 0, w = 0] = grown.slice(j, j + 3)
    return polar(frame, s, u, v, w)
  })
  const parts = [x - low, high - x]
  return {
    ...{ index: s - 1, instead: 2 },
    spline: {
      ...{ way: 'frame', ends: spline.ends },
      places: [...places.slice(0, s - 1), ...made, ...places.slice(s + 1)],
      spans: [...spline.spans.slice(0, piece), ...parts, ...spline.spans.slice(piece + 1)],
    },
  }
}

/** The curve without one of its places; ends cannot be taken out. */
export function withoutPlace(spline: Spline, index: number): Spline {
  const { way, places, spans } = spline
  const left = places.filter((_, i) => i !== index)
  const lost = way === 'through' ? index : Math.min(Math.max(index - 2, 0), spans.length - 1)
  const kept = spans.filter((_, i) => i !== lost).slice(0, spanCount(way, left.length))
  return { ...spline, places: left, spans: kept }
}
