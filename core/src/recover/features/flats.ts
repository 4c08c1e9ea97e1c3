import { edgesOf, extentOf, greatestRadius } from '../../section'
import type { NewStep } from '../../part'
import { alike, figureOf, isOne, spreadsOf } from './figures'
import {
  angleBetween,
  directionsAt,
  lengthwisePlanes,
  rangeAlong,
  squarePlanes,
  type LengthwisePlane,
  type SquarePlane,
} from './planes'
import type { Feature, Finder, Host, RestFace } from './types'

interface Flat extends Omit<LengthwisePlane, 'face'> {
  readonly faces: readonly RestFace[]
}

/** Plane faces along the axis that cut off some of what is round. */
export const flats: Finder = (rest, host) => {
  const single = lengthwisePlanes(rest).filter((p) => p.out > host.near)
  // What grooves part is one flat.
  const whole = alike(
    single,
    (a, b) => isOne(a.out, b.out, host) && angleBetween(a.angle, b.angle) < 1e-6,
  ).map((parts): Flat => {
    const [first] = parts
    const [angle, out] = [first?.angle ?? 0, first?.out ?? 0]
    const [from, to] = [Math.min(...parts.map((p) => p.from)), Math.max(...parts.map((p) => p.to))]
    const shoulders = shouldersOf(angle, out, [from, to], rest, host)
    const has = (at: number): boolean => shoulders.some((s) => Math.abs(s.at - at) <= host.near)
    return {
      ...{ angle, out, faces: [...parts, ...shoulders].map((p) => p.face) },
      from: has(from) ? from : runOut(host, from, -1, out),
      to: has(to) ? to : runOut(host, to, 1, out),
    }
  })
  const kinds = alike(
    whole,
    (a, b) => isOne(a.out, b.out, host) && isOne(a.from, b.from, host) && isOne(a.to, b.to, host),
  )
  return kinds.flatMap((kind) =>
    spreadsOf(kind).flatMap(({ start, range, items }) =>
      range === undefined
        ? [featureOf(items, start, host)]
        : items.map((flat) => featureOf([flat], flat.angle, host)),
    ),
  )
}

function featureOf(items: readonly Flat[], start: number, host: Host): Feature {
  const { section, units, near, body } = host
  const mm = (value: number): string => figureOf(value, 'length', units)
  const [{ out, from, to } = { out: 0, from: 0, to: 0 }] = items
  const [left, right] = extentOf(section)
  const [isLeft, isRight] = [from - left <= near, right - to <= near]
  const end = isRight && !isLeft ? 'right' : 'left'
  const distance = end === 'left' ? from - left : right - to
  const count = items.length
  const isAcross = count % 2 === 0
  const step: NewStep = {
    ...{ kind: 'flats', body, count: String(count), end },
    measure: isAcross ? 'across' : 'depth',
    size: mm(isAcross ? 2 * out : greatestRadius(section, from, to) - out),
    distance: distance <= near ? '' : mm(distance),
    length: (end === 'left' ? isRight : isLeft) ? '' : mm(to - from),
    phase: start === 0 ? '' : figureOf(start, 'angle', units),
  }
  return { kind: 'flat', count, step, faces: items.flatMap((f) => f.faces.map((g) => g.number)) }
}

/** The faces that end a flat where it does not run out. */
function shouldersOf(
  angle: number,
  out: number,
  ends: readonly number[],
  rest: readonly RestFace[],
  { near }: Host,
): SquarePlane[] {
  const [outwards] = directionsAt(angle)
  return squarePlanes(rest).filter(
    ({ face, at }) =>
      ends.some((end) => Math.abs(at - end) <= near) && rangeAlong(face, outwards)[0] >= out - near,
  )
}

/**
 * How far a flat may go on past a place where it runs out, without touching the body again: its end on a cone is no
 * figure that anyone would type.
 */
function runOut({ section, near }: Host, from: number, way: 1 | -1, out: number): number {
  const corners = edgesOf(section).flatMap(({ piece }) => [piece.from.x, piece.to.x])
  const beyond = [...new Set(corners)]
    .filter((x) => way * (x - from) > near)
    .sort((a, b) => way * (a - b))
  let reached = from
  for (const x of beyond) {
    // Next to where it runs out the body is as high as the flat.
    const begin = reached === from ? (from + x) / 2 : reached
    const [low, high] = way === 1 ? [begin, x] : [x, begin]
    if (greatestRadius(section, low, high) > out + near) break
    reached = x
  }
  return reached
}
