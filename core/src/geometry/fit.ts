import { cubicAt, cubicSlope } from './cubic'
import { pointAt, lengthOf, curvatureAt, tangentAt, type Piece } from './piece'
import { departureOf } from './departure'
import { asFrame, asThrough, splinePieces, type Spline } from './spline'
import { distance, dot, norm, scale, subtract, unit, type Vec } from './vector'

/** A curve with other places, and how far it and the curve it was fitted to are apart at most. */
export interface Fitted {
  readonly spline: Spline
  /** In mm: never less than it is, and hardly more. */
  readonly deviation: number
  /** Where that is. */
  readonly at: Vec
}

/** Places at which each stretch of a curve is compared. */
const SAMPLES = 24
/** Rounds in which samples are matched to the places of the fit that are nearest to them. */
const ROUNDS = 4
/** A direction that has to be kept counts so many times as much as a place. */
const HOLD = 1e5

/**
 * The free curve of so many places that is nearest to another in the sum of squares. It begins and ends where that
 * does, and in its directions; it runs through places or over a frame as that does.
 * @param count how many places: two or more through them, four or more over a frame
 * @returns undefined for a curve without length
 */
export const fittedSpline = (source: Spline, count: number): Fitted | undefined =>
  fittedTo(splinePieces(source), source.way, count)

/**
 * The free curve of so many places that is nearest to pieces, end to end and without corners, in the sum of squares.
 * @param count how many places: two or more through them, four or more over a frame
 * @returns undefined for pieces without length
 */
export function fittedTo(
  pieces: readonly Piece[],
  way: Spline['way'],
  count: number,
): Fitted | undefined {
  const stretches = way === 'through' ? count - 1 : count - 3
  if (pieces.length === 0 || stretches < 1) return undefined
  const samples = sampled(pieces)
  const knots = knotsFor(samples, stretches)
  let parameters = samples.map((s) => s.at)
  let frame = leastSquares(samples, parameters, knots)
  for (let round = 0; round < ROUNDS; round++) {
    const found = splinePieces(frame)
    parameters = matched(samples, parameters, found, knots)
    frame = leastSquares(samples, parameters, knots)
  }
  return told(pieces, way === 'through' ? asThrough(frame) : frame)
}

/**
 * The same curve with its short waves smoothed out: of a wave of the given length half stays, of longer ones more, of
 * shorter ones hardly anything. It keeps its ends and how many places it has.
 * @param wave in mm along the curve
 * @param keeps whether it keeps its direction at its start, and at its end
 * @returns undefined for a curve without length
 */
export function smoothedSpline(
  source: Spline,
  wave: number,
  keeps: readonly [boolean, boolean],
): Fitted | undefined {
  const pieces = splinePieces(source)
  if (pieces.length === 0) return undefined
  const { spans } = asFrame(source)
  const whole = pieces.reduce((sum, p) => sum + lengthOf(p), 0)
  const total = spans.reduce((sum, s) => sum + s, 0)
  // Its own parameter stands for the way along it, so that it departs from nothing by being gone through otherwise.
  const knots = [0]
  for (const s of spans) knots.push((knots.at(-1) ?? 0) + s / total)
  const parameters = pieces.flatMap((_, i) => {
    const [low, high] = [knots[i] ?? 0, knots[i + 1] ?? 1]
    return steps(i === 0 ? 0 : 1).map((t) => low + (high - low) * t)
  })
  const samples = sampled(pieces)
  const reach = wave / (2 * Math.PI * whole)
  const frame = leastSquares(samples, parameters, knots, { by: reach ** 4, keeps })
  return told(pieces, source.way === 'through' ? asThrough(frame) : frame)
}

/** A curve made of pieces, with how far it departs from them. */
function told(pieces: readonly Piece[], spline: Spline): Fitted {
  const { by, at } = departureOf(pieces, splinePieces(spline))
  return { spline, deviation: by, at }
}

/** The shares of a piece at which it is sampled. */
const steps = (first: number): number[] =>
  Array.from({ length: SAMPLES + 1 - first }, (_, i) => (i + first) / SAMPLES)

/** A place of the curve that is fitted to, with how far along it is as a share. */
interface Sample {
  readonly place: Vec
  readonly along: Vec
  /** From 0 to 1. */
  readonly at: number
  /** What it counts for where places are shared out: length, more where it bends. */
  readonly weight: number
}

function sampled(pieces: readonly Piece[]): Sample[] {
  const whole = pieces.reduce((sum, p) => sum + lengthOf(p), 0)
  const found: { place: Vec; along: Vec; length: number; bend: number }[] = []
  pieces.forEach((piece, n) => {
    for (const t of steps(n === 0 ? 0 : 1)) {
      const bend = Math.abs(curvatureAt(piece, t))
      found.push({ place: pointAt(piece, t), along: directionOn(piece, t), length: 0, bend })
    }
  })
  let length = 0
  const lengths = found.map(({ place }, i) => {
    length += distance(place, found[i - 1]?.place ?? place)
    return length
  })
  return found.map(({ place, along, bend }, i): Sample => {
    const step = (lengths[i] ?? 0) - (lengths[i - 1] ?? 0)
    // Stretches are shorter where the curve bends within a small share of its length.
    const weight = (step / length) * (1 + Math.sqrt(Math.min(bend, 1e3 / whole) * whole))
    return { place, along, at: (lengths[i] ?? 0) / length, weight }
  })
}

function directionOn(piece: Piece, t: number): Vec {
  if (piece.kind !== 'cubic') return tangentAt(piece, t)
  const slope = cubicSlope(piece.on, piece.start + (piece.end - piece.start) * t)
  return norm(slope) > 0 ? unit(slope) : { x: 0, y: 0 }
}

/** Where stretches of the fit begin and end, from 0 to 1, so that each has its share of length and bends. */
function knotsFor(samples: readonly Sample[], stretches: number): number[] {
  const total = samples.reduce((sum, s) => sum + s.weight, 0)
  const knots = [0]
  let sum = 0
  for (const { at, weight } of samples) {
    sum += weight
    if (sum >= (total * knots.length) / stretches && knots.length < stretches) knots.push(at)
  }
  const [first = 0, ...rest] = knots
  const grown = [first]
  // No two at one place.
  for (const k of rest) grown.push(Math.max(k, (grown.at(-1) ?? 0) + 1e-4))
  while (grown.length < stretches) grown.push((grown.at(-1) ?? 0) + 1e-4)
  return [...grown, Math.max(1, (grown.at(-1) ?? 0) + 1e-4)]
}

/** The values of the cubic basis functions that do not vanish at a parameter, and the number of the first. */
function basis(
  knots: readonly number[],
  at: number,
): { readonly first: number; readonly values: readonly number[] } {
  const last = knots.length - 2
  let span = 0
  while (span < last && at >= (knots[span + 1] ?? 1)) span++
  const u = (i: number): number => knots[Math.min(Math.max(i, 0), last + 1)] ?? 0
  // The triangle of de Boor and Cox, upwards from the one function of degree nought.
  let row = [1]
  for (let degree = 1; degree <= 3; degree++) {
    const next = new Array<number>(degree + 1).fill(0)
    row.forEach((value, i) => {
      const [low, high] = [u(span + 1 - degree + i), u(span + 1 + i)]
      const share = high > low ? (at - low) / (high - low) : 0
      next[i] = (next[i] ?? 0) + value * (1 - share)
      next[i + 1] = (next[i + 1] ?? 0) + value * share
    })
    row = next
  }
  return { first: span, values: row }
}

/**
 * The frame on given knots whose curve is nearest to samples at their parameters.
 * @param fair how much the integral of the square of its second derivative counts beside that of the squares of distances
 */
function leastSquares(
  samples: readonly Sample[],
  parameters: readonly number[],
  knots: readonly number[],
  fair?: { readonly by: number; readonly keeps: readonly [boolean, boolean] },
): Spline {
  const count = knots.length + 2
  // Both coordinates of every place are unknown but those of the ends.
  const size = 2 * count
  const matrix = Array.from({ length: size }, () => new Float64Array(size))
  const right = new Float64Array(size)
  const take = (terms: readonly (readonly [number, number])[], value: number, by: number): void => {
    for (const [i, a] of terms) {
      right[i] = (right[i] ?? 0) + by * a * value
      const row = matrix[i]
      if (row) for (const [j, b] of terms) row[j] = (row[j] ?? 0) + by * a * b
    }
  }
  samples.forEach(({ place }, n) => {
    const own = parameters[n] ?? 0
    const { first, values } = basis(knots, own)
    const reach = (parameters[n + 1] ?? own) - (parameters[n - 1] ?? own)
    const counts = fair ? reach / 2 : 1
    take(
      values.map((v, i) => [2 * (first + i), v] as const),
      place.x,
      counts,
    )
    take(
      values.map((v, i) => [2 * (first + i) + 1, v] as const),
      place.y,
      counts,
    )
  })
  if (fair) {
    // Between knots the second derivative is linear: its square is integrated by what it is at both.
    const bends = knots.map((_, k) => bendAt(knots, k))
    knots.slice(1).forEach((high, k) => {
      const length = high - (knots[k] ?? 0)
      const [a = [], b = []] = [bends[k], bends[k + 1]]
      for (const terms of [a, b, [...a, ...b]]) {
        for (const across of [0, 1]) {
          take(
            terms.map(([j, v]) => [2 * j + across, v] as const),
            0,
            (fair.by * length) / 6,
          )
        }
      }
    })
  }
  const [start, end] = [samples[0], samples.at(-1)]
  const [keepsStart, keepsEnd] = fair?.keeps ?? [true, true]
  for (const [sample, own, next, keeps] of [
    [start, 0, 1, keepsStart],
    [end, count - 1, count - 2, keepsEnd],
  ] as const) {
    if (!sample) continue
    const { place, along } = sample
    take([[2 * own, 1]], place.x, HOLD * HOLD)
    take([[2 * own + 1, 1]], place.y, HOLD * HOLD)
    if (!keeps) continue
    // The first leg lies along the curve's own direction.
    const terms = [
      [2 * next, along.y],
      [2 * own, -along.y],
      [2 * next + 1, -along.x],
      [2 * own + 1, along.x],
    ] as const
    take(terms, 0, HOLD)
  }
  const solved = cholesky(matrix, right)
  const places = Array.from({ length: count }, (_, i): Vec => ({
    x: solved[2 * i] ?? 0,
    y: solved[2 * i + 1] ?? 0,
  }))
  if (start) places[0] = start.place
  if (end) places[count - 1] = end.place
  return {
    ...{ way: 'frame', places, ends: [undefined, undefined] },
    spans: knots.slice(1).map((k, i) => k - (knots[i] ?? 0)),
  }
}

/** The second derivative of a frame's curve at one of its knots, as weights of three of its places. */
function bendAt(
  knots: readonly number[],
  knot: number,
): readonly (readonly [place: number, weight: number])[] {
  const last = knots.length - 1
  const u = (i: number): number => knots[Math.min(Math.max(i, 0), last)] ?? 0
  // Differences of places, then of those, each over the knots it reaches across; de Boor's rule for derivatives.
  const first = (j: number): number => 3 / (u(j + 1) - u(j - 2))
  const reach = 2 / (u(knot + 1) - u(knot - 1))
  const [one, two] = [first(knot), first(knot + 1)]
  return [
    [knot, reach * one],
    [knot + 1, -reach * (one + two)],
    [knot + 2, reach * two],
  ]
}

/** The solution of a symmetric positive system of small size, by Cholesky's method; what it leaves open stays nought. */
function cholesky(matrix: readonly Float64Array[], right: Float64Array): Float64Array {
  const n = right.length
  const lower = matrix.map((row) => Float64Array.from(row))
  const x = Float64Array.from(right)
  const at = (i: number, j: number): number => lower[i]?.[j] ?? 0
  for (let j = 0; j < n; j++) {
    for (let k = 0; k < j; k++) {
      const l = at(j, k)
      if (l === 0) continue
      for (let i = j; i < n; i++) {
        const row = lower[i]
        if (row) row[j] = (row[j] ?? 0) - (row[k] ?? 0) * l
      }
    }
    const pivot = Math.sqrt(Math.max(at(j, j), 1e-14))
    for (let i = j; i < n; i++) {
      const row = lower[i]
      if (row) row[j] = (row[j] ?? 0) / pivot
    }
  }
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i] = (x[i] ?? 0) - at(i, k) * (x[k] ?? 0)
    x[i] = (x[i] ?? 0) / at(i, i)
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i] = (x[i] ?? 0) - at(k, i) * (x[k] ?? 0)
    x[i] = (x[i] ?? 0) / at(i, i)
  }
  return x
}

/** Parameters moved to where the fit is nearest to each sample (one step of Newton's, by the slope alone). */
function matched(
  samples: readonly Sample[],
  parameters: readonly number[],
  pieces: readonly Piece[],
  knots: readonly number[],
): number[] {
  let before = 0
  return parameters.map((at, n) => {
    const sample = samples[n]
    if (!sample || n === 0) return 0
    if (n === parameters.length - 1) return 1
    let span = 0
    while (span < knots.length - 2 && at >= (knots[span + 1] ?? 1)) span++
    const piece = pieces[span]
    const [low, high] = [knots[span] ?? 0, knots[span + 1] ?? 1]
    if (piece?.kind !== 'cubic') return at
    const t = (at - low) / (high - low)
    const slope = scale(cubicSlope(piece.on, t), 1 / (high - low))
    const off = subtract(sample.place, cubicAt(piece.on, t))
    const square = dot(slope, slope)
    const moved = square > 0 ? at + dot(off, slope) / square : at
    before = Math.min(1, Math.max(before, moved))
    return before
  })
}
