import type { Problem } from '@lathica/core/result'
import {
  arc,
  arcThrough,
  cross,
  distance,
  dot,
  line,
  subtract,
  unit,
  type Piece,
  type Vec,
} from '@lathica/core/geometry'
import {
  arcAbout,
  centredRectangle,
  circle,
  polygon,
  rectangle,
  slot,
  type Draft,
  type DraftSize,
  type End,
} from '@lathica/core/edit'
import { problem } from '../entry'
import type { ShapeId } from '../tool'
import { freeCurve } from './freeCurve'
import type { Shape } from './placing'

const ORIGIN_END: End = { at: { x: 0, y: 0 } }
const nth = (places: readonly End[], i: number): End => places[i] ?? places.at(-1) ?? ORIGIN_END

const outline = (corners: readonly Vec[]): Piece[] =>
  corners.map((p, i) => line(p, corners[(i + 1) % corners.length] ?? p))

const round = (centre: Vec, radius: number): Piece => {
  const rim = { x: centre.x + radius, y: centre.y }
  return arc(rim, rim, centre, true)
}

const positive = (value: number | undefined, what: string): Problem | undefined =>
  value !== undefined && value <= 0
    ? problem('shape.zero', `The ${what} is greater than zero.`, 'Type another.')
    : undefined

const sizeIf = (value: number | undefined, size: DraftSize): DraftSize[] =>
  value === undefined ? [] : [size]

/** How a rectangle is drawn from two places, of which the second is a corner. */
function rectangleFrom(
  hints: readonly [string, string],
  made: (from: End, corner: End) => Draft,
  opposite: (from: Vec, corner: Vec) => Vec,
  /** how many times the way to the corner a side is long */
  times: 1 | 2,
  next: () => Shape,
): Shape {
  return {
    label: 'draw rectangle',
    hints,
    draft: (places) => made(nth(places, 0), nth(places, 1)),
    pieces: (places) => {
      const [from, corner] = [nth(places, 0).at, nth(places, 1).at]
      return box(opposite(from, corner), corner)
    },
    typed: {
      fields: (places) => sidesOf(nth(places, 0), nth(places, 1), times),
      draft: (places, [long, high], texts) => {
        const bad = positive(long, 'axial side') ?? positive(high, 'radial side')
        if (bad) return bad
        const [a, b] = [nth(places, 0), nth(places, 1)]
        const [right, up] = signs(a.at, b.at)
        const reach = (side: number | undefined, p: number, q: number): number =>
          side === undefined ? Math.abs(q - p) : side / times
        const corner = {
          x: a.at.x + right * reach(long, a.at.x, b.at.x),
          y: a.at.y + up * reach(high, a.at.y, b.at.y),
        }
        return withSides(made(a, { at: corner }), long, high, texts)
      },
    },
    next,
  }
}

const cornerRectangle: Shape = rectangleFrom(
  ['Click one corner of the rectangle.', 'Click the opposite corner, or type its sides.'],
  (from, corner) => rectangle(from, corner),
  (from) => from,
  1,
  () => middleRectangle,
)

const middleRectangle: Shape = rectangleFrom(
  ['Click the centre of the rectangle.', 'Click a corner, or type its sides.'],
  (from, corner) => centredRectangle(from, corner),
  (from, corner) => ({ x: 2 * from.x - corner.x, y: 2 * from.y - corner.y }),
  2,
  () => polygonOf(DEFAULT_SIDES),
)

function box(a: Vec, c: Vec): Piece[] {
  return outline([a, { x: c.x, y: a.y }, c, { x: a.x, y: c.y }])
}

const signs = (a: Vec, b: Vec): [number, number] => [b.x < a.x ? -1 : 1, b.y < a.y ? -1 : 1]

function sidesOf(a: End, b: End, times: number) {
  return [
    { label: 'axial', want: 'length', now: times * Math.abs(b.at.x - a.at.x) },
    { label: 'radial', want: 'length', now: times * Math.abs(b.at.y - a.at.y) },
  ] as const
}

function withSides(
  draft: Draft,
  long: number | undefined,
  high: number | undefined,
  texts: readonly string[],
): Draft {
  const sizes = [
    ...sizeIf(long, { offer: { kind: 'length', line: '~ab' }, formula: texts[0] ?? '' }),
    ...sizeIf(high, { offer: { kind: 'length', line: '~bc' }, formula: texts[1] ?? '' }),
  ]
  return { ...draft, sizes }
}

const circleShape: Shape = {
  label: 'draw circle',
  hints: ['Click the centre of the circle.', 'Click a place on the circle, or type its diameter.'],
  draft: (places) => {
    const [centre, rim] = [nth(places, 0), nth(places, 1)]
    return circle(centre, distance(centre.at, rim.at))
  },
  pieces: (places) => [round(nth(places, 0).at, distance(nth(places, 0).at, nth(places, 1).at))],
  typed: {
    fields: (places) => [
      {
        label: 'diameter',
        want: 'length',
        sign: '⌀',
        now: 2 * distance(nth(places, 0).at, nth(places, 1).at),
      },
    ],
    draft: (places, [diameter], texts) => {
      const bad = positive(diameter ?? 0, 'diameter')
      if (bad) return bad
      const offer = { kind: 'curveDiameter', curve: '~circle' } as const
      const drawn = circle(nth(places, 0), (diameter ?? 0) / 2)
      return { ...drawn, sizes: [{ offer, formula: texts[0] ?? '' }] }
    },
  },
}

/** An arc by its ends and a place on it. */
const throughArc: Shape = {
  label: 'draw arc',
  hints: ['Click where the arc begins.', 'Click where it ends.', 'Click a place on the arc.'],
  draft: (places) => {
    const [from, to, via] = [nth(places, 0), nth(places, 1), nth(places, 2)]
    const found = arcThrough(from.at, via.at, to.at)
    if (!found) return undefined
    const { centre, counterClockwise } = found
    return {
      points: { '~from': from, '~to': to, '~m': { at: centre } },
      entities: [
        {
          ...{ id: '~arc', kind: 'arc', from: '~from', to: '~to', centre: '~m', role: 'outline' },
          counterClockwise,
        },
      ],
    }
  },
  pieces: (places) => {
    const [from, to, via] = [nth(places, 0).at, nth(places, 1).at, nth(places, 2).at]
    const found = places.length > 2 ? arcThrough(from, via, to) : undefined
    return [found ? arc(from, to, found.centre, found.counterClockwise) : line(from, to)]
  },
  next: () => centreArc,
}

/** An arc by its centre, its start and the direction of its end. */
const centreArc: Shape = {
  label: 'draw arc',
  hints: ['Click the centre of the arc.', 'Click where it begins.', 'Click where it ends.'],
  draft: (places) => {
    const [centre, from, to] = [nth(places, 0), nth(places, 1), nth(places, 2)]
    const sweep = turnFrom(centre.at, from.at, to.at)
    return sweep === 0 ? undefined : arcAbout(centre, from, sweep)
  },
  pieces: (places) => {
    const [centre, from, to] = [nth(places, 0).at, nth(places, 1).at, nth(places, 2).at]
    const radius = distance(centre, from)
    if (places.length < 3) return [round(centre, radius)]
    const sweep = turnFrom(centre, from, to)
    const way = unit(subtract(to, centre))
    const end = { x: centre.x + radius * way.x, y: centre.y + radius * way.y }
    return [arc(from, end, centre, sweep > 0), line(centre, end)]
  },
  next: () => handledCurve,
}

const handledCurve: Shape = freeCurve(() => throughArc)

/** The lesser turn from one direction to another about a centre, in radians. */
function turnFrom(centre: Vec, from: Vec, to: Vec): number {
  const [u, v] = [subtract(from, centre), subtract(to, centre)]
  return Math.atan2(cross(u, v), dot(u, v))
}

const slotShape: Shape = {
  label: 'draw slot',
  hints: [
    'Click the centre of one end of the slot.',
    'Click the centre of the other end.',
    'Click beside it for its width, or type it.',
  ],
  draft: (places) => {
    const [a, b] = [nth(places, 0), nth(places, 1)]
    const radius = offLine(a.at, b.at, nth(places, 2).at)
    return radius > 0 && distance(a.at, b.at) > 0 ? slot(a, b, radius) : undefined
  },
  pieces: (places) => {
    const [a, b] = [nth(places, 0).at, nth(places, 1).at]
    const radius = places.length > 2 ? offLine(a, b, nth(places, 2).at) : 0
    if (radius <= 0 || distance(a, b) === 0) return [line(a, b)]
    const u = unit(subtract(b, a))
    const n = { x: -u.y * radius, y: u.x * radius }
    const beside = (p: Vec, s: number): Vec => ({ x: p.x + s * n.x, y: p.y + s * n.y })
    return [
      arc(beside(a, 1), beside(a, -1), a, true),
      line(beside(a, -1), beside(b, -1)),
      arc(beside(b, -1), beside(b, 1), b, true),
      line(beside(b, 1), beside(a, 1)),
    ]
  },
  typed: {
    fields: (places) => [
      {
        label: 'width',
        want: 'length',
        now: 2 * offLine(nth(places, 0).at, nth(places, 1).at, nth(places, 2).at),
      },
    ],
    draft: (places, [width], texts) => {
      const bad = positive(width ?? 0, 'width')
      if (bad) return bad
      const offer = { kind: 'curveDiameter', curve: '~left' } as const
      const drawn = slot(nth(places, 0), nth(places, 1), (width ?? 0) / 2)
      return { ...drawn, sizes: [{ offer, formula: texts[0] ?? '' }] }
    },
  },
}

const offLine = (a: Vec, b: Vec, p: Vec): number =>
  Math.abs(cross(unit(subtract(b, a)), subtract(p, a)))

const MOST_SIDES = 60
const DEFAULT_SIDES = 6

const polygonOf = (sides: number): Shape => ({
  label: 'draw polygon',
  next: () => cornerRectangle,
  hints: [
    `Click the centre of the polygon; it has ${sides} sides.`,
    'Click a corner, or type how many sides it has and its diameter over the corners.',
  ],
  draft: (places) => polygon(nth(places, 0), nth(places, 1), sides),
  pieces: (places) => {
    const [centre, corner] = [nth(places, 0).at, nth(places, 1).at]
    const spoke = subtract(corner, centre)
    return outline(
      Array.from({ length: sides }, (_, i) => {
        const [c, s] = [Math.cos((2 * Math.PI * i) / sides), Math.sin((2 * Math.PI * i) / sides)]
        return {
          x: centre.x + c * spoke.x - s * spoke.y,
          y: centre.y + s * spoke.x + c * spoke.y,
        }
      }),
    )
  },
  typed: {
    fields: (places) => [
      { label: 'sides', want: 'number', text: String(sides) },
      {
        label: 'over corners',
        want: 'length',
        sign: '⌀',
        now: 2 * distance(nth(places, 0).at, nth(places, 1).at),
      },
    ],
    draft: (places, [count = sides, diameter], texts) => {
      if (!Number.isInteger(count) || count < 3 || count > MOST_SIDES) {
        const mend = `Type a whole number from 3 to ${MOST_SIDES}.`
        return problem('polygon.sides', 'A polygon has three sides or more.', mend)
      }
      const bad = positive(diameter, 'diameter')
      if (bad) return bad
      const [centre, corner] = [nth(places, 0), nth(places, 1)]
      const spoke = subtract(corner.at, centre.at)
      const way = Math.hypot(spoke.x, spoke.y) > 0 ? unit(spoke) : { x: 0, y: 1 }
      const reach = diameter === undefined ? distance(corner.at, centre.at) : diameter / 2
      const end = { at: { x: centre.at.x + way.x * reach, y: centre.at.y + way.y * reach } }
      const offer = { kind: 'curveDiameter', curve: '~round' } as const
      const sizes = sizeIf(diameter, { offer, formula: texts[1] ?? '' })
      return { ...polygon(centre, diameter === undefined ? corner : end, count), sizes }
    },
  },
})

const pointShape: Shape = {
  label: 'draw point',
  hints: ['Click where the point goes.'],
  draft: (places) => ({ points: { '~p': nth(places, 0) }, entities: [] }),
  pieces: () => [],
}

/** The shapes there are. */
export const SHAPES: Readonly<Record<ShapeId, Shape>> = {
  rectangle: cornerRectangle,
  circle: circleShape,
  arc: throughArc,
  slot: slotShape,
  polygon: polygonOf(DEFAULT_SIDES),
  point: pointShape,
}
