import { boundsOf, gauss, radiusOf, type ArcPiece, type LinePiece, type Vec } from '../../geometry'
import { lastFor } from '../../once'
import type { Section } from '../../section'
import type { PrismTool } from '../plan'
import { outsideOver, type Land, type Profile } from './lands'
import { millingOf, type Milling, type ToolMilling } from './milling'
import { segment, type Segment } from './segment'
import { APART, NOTHING, SAME, type Reach, type Sums, type Taken } from './taken'

/** Parts of what is milled: what it takes, and surfaces that go and come. */
export interface Milled {
  readonly sums: Sums
  /** Of what is turned, in mm². */
  readonly surface: number
  readonly floor: number
  readonly walls: number
}

/** What a prism takes of the outside: keyways, flats, and slots into the side from an end. */
export const milledBy = lastFor((tool: PrismTool, base: Section): readonly Taken[] | undefined => {
  const milling = millingOf(tool)
  return milling && takenFrom(milling, base)
})

function takenFrom(milling: ToolMilling, base: Section): readonly Taken[] | undefined {
  const { outline, floor, out, top } = milling
  if (floor < APART) return undefined
  const boxes = outline.map(boundsOf)
  const [from, to] = [
    Math.min(...boxes.map((b) => b.min.x)),
    Math.max(...boxes.map((b) => b.max.x)),
  ]
  const wide = Math.max(...boxes.map((b) => Math.max(Math.abs(b.min.y), Math.abs(b.max.y))))
  const profile = outsideOver(base, floor, from, to)
  if (!profile) return undefined
  const met = profile.lands.filter((l) => l.from < to - SAME && l.to > from + SAME)
  const radius = Math.max(0, ...met.map((l) => l.most))
  if (top < radius + APART) return undefined
  const milled = mill(milling, profile)
  if (!milled) return undefined
  const half = Math.min(Math.atan2(wide, floor), Math.acos(Math.min(1, floor / radius)))
  const reach: Reach = {
    ...{ from, to, low: floor, high: radius },
    ...{ angle: Math.atan2(out.y, out.x), half },
  }
  return [{ sums: milled.sums, area: milled.floor + milled.walls - milled.surface, reach }]
}

/** A side of the outline over a stretch along the axis, along which it does not turn back. */
export interface Side {
  readonly from: number
  readonly to: number
  readonly at: (u: number) => number
  /** Its length for 1 mm along the axis. */
  readonly slant: (u: number) => number
  /** Undefined where it runs along the axis: then it may leave the material. */
  readonly level: number | undefined
  readonly far: number
}

/** Integrates what is milled; undefined where something of it would not be smooth, or lies in a face. */
export function mill(milling: Milling, { lands, steps }: Profile): Milled | undefined {
  const { outline, floor } = milling
  const sides = outline.flatMap(sidesOf)
  const ends = outline.filter(isUpright)
  const isBare = sides.some(
    (s) =>
      s.level === undefined &&
      lands.some(
        (l) => l.to > s.from && l.from < s.to && l.least < Math.hypot(floor, s.far) + APART,
      ),
  )
  if (isBare || steps.some((step) => isHalfMet(step.at, ends, sides))) return undefined
  const levels = sides.flatMap((s) => (s.level === undefined ? [] : [Math.hypot(floor, s.level)]))
  const places = [
    ...sides.flatMap((s) => [s.from, s.to]),
    ...lands.flatMap((l) => [
      ...[l.from, l.to],
      ...[floor, ...levels].flatMap(l.whereIs).filter((u) => u > l.from && u < l.to),
    ]),
  ].sort((a, b) => a - b)
  const made: Made = { sums: { ...NOTHING }, surface: 0, floor: 0, walls: 0 }
  places.slice(1).forEach((end, i) => {
    const start = places[i] ?? end
    const middle = (start + end) / 2
    const land = lands.find((l) => l.from < middle && middle < l.to)
    if (end - start < 1e-12 || !land || land.radiusAt(middle) <= floor) return
    addSlab(made, milling, land, sidesAt(sides, middle), start, end)
  })
  // Walls square to the axis: in a face of the body, what was there goes where nothing stands behind it.
  for (const { from, to } of ends) {
    const inside = isBefore(from.x, (from.y + to.y) / 2, sides) ? -1 : 1
    const area = (side: number): number =>
      segment(radiusBeside(lands, from.x, side), floor, from.y, to.y).area
    const both = Math.min(area(inside), area(-inside))
    made.walls += both
    made.surface += area(inside) - both
  }
  // What of faces square to the axis lies between its sides is taken away.
  for (const { at, low, high } of steps) {
    const met = ends.some((e) => Math.abs(e.from.x - at) < SAME) ? [] : sidesAt(sides, at)
    for (const [one, other] of pairs(met)) {
      const area = (radius: number): number => segment(radius, floor, one.at(at), other.at(at)).area
      made.surface += area(high) - area(low)
    }
  }
  return made
}

/** Whether a face square to the axis is nearly met by a wall, or met by one beside which the outline goes on. */
function isHalfMet(
  at: number,
  ends: readonly (LinePiece | ArcPiece)[],
  sides: readonly Side[],
): boolean {
  const off = ends.map((e) => Math.abs(e.from.x - at))
  if (off.some((d) => d >= SAME && d < APART)) return true
  const goesOn = sides.some((s) => s.from < at - APART && s.to > at + APART)
  return goesOn && off.some((d) => d < SAME)
}

/** Whether the outline lies before a wall at a place along the axis. */
const isBefore = (u: number, v: number, sides: readonly Side[]): boolean =>
  pairs(sidesAt(sides, u - APART)).some(
    ([one, other]) => one.at(u - APART) < v && v < other.at(u - APART),
  )

/** How far out material reaches just beside a place along the axis; 0 where there is none. */
function radiusBeside(lands: readonly Land[], u: number, side: number): number {
  const land = lands.find((l) =>
    side < 0 ? l.from < u - SAME && l.to > u - SAME : l.from < u + SAME && l.to > u + SAME,
  )
  return land?.radiusAt(u) ?? 0
}

interface Made {
  sums: { -readonly [K in keyof Sums]: number }
  surface: number
  floor: number
  walls: number
}

export const isUpright = (p: LinePiece | ArcPiece): boolean =>
  p.kind === 'line' && Math.abs(p.from.x - p.to.x) < SAME

export function sidesOf(piece: LinePiece | ArcPiece): Side[] {
  if (isUpright(piece)) return []
  const { min, max } = boundsOf(piece)
  const far = Math.max(Math.abs(min.y), Math.abs(max.y))
  if (piece.kind === 'line') {
    const { from, to } = piece
    const slope = (to.y - from.y) / (to.x - from.x)
    return [
      {
        ...{ from: min.x, to: max.x, far, level: slope === 0 ? from.y : undefined },
        at: (u) => from.y + slope * (u - from.x),
        slant: () => Math.hypot(1, slope),
      },
    ]
  }
  const { centre } = piece
  const radius = radiusOf(piece)
  const rise = (u: number): number => Math.sqrt(Math.max(0, radius ** 2 - (u - centre.x) ** 2))
  // Over and under its centre, each as far as it goes there.
  return ([1, -1] as const).flatMap((side): Side[] => {
    const span = spanOn(piece, side)
    if (!span) return []
    return [
      {
        ...{ ...span, far, level: undefined },
        at: (u) => centre.y + side * rise(u),
        slant: (u) => radius / rise(u),
      },
    ]
  })
}

/** Between which places along the axis an arc runs on one side of its centre; undefined where it does not. */
function spanOn(
  piece: ArcPiece,
  side: 1 | -1,
): { readonly from: number; readonly to: number } | undefined {
  const { from, to, centre, counterClockwise } = piece
  const radius = radiusOf(piece)
  const angleOf = (p: Vec): number => Math.atan2(p.y - centre.y, p.x - centre.x)
  const [first, last] = counterClockwise ? [from, to] : [to, from]
  const start = angleOf(first)
  let sweep = angleOf(last) - start
  while (sweep <= 1e-12) sweep += 2 * Math.PI
  const edges = side === 1 ? [0, Math.PI] : [Math.PI, 2 * Math.PI]
  for (const turn of [-1, 0, 1]) {
    const low = Math.max(start, (edges[0] ?? 0) + turn * 2 * Math.PI)
    const high = Math.min(start + sweep, (edges[1] ?? 0) + turn * 2 * Math.PI)
    if (high - low < 1e-9) continue
    const xs = [low, high].map((a) => centre.x + radius * Math.cos(a))
    return { from: Math.min(...xs), to: Math.max(...xs) }
  }
  return undefined
}

const sidesAt = (sides: readonly Side[], u: number): Side[] =>
  sides.filter((s) => s.from < u && u < s.to).sort((a, b) => a.at(u) - b.at(u))

const pairs = (sides: readonly Side[]): (readonly [Side, Side])[] =>
  sides.flatMap((s, i) => {
    const next = sides[i + 1]
    return i % 2 === 0 && next ? [[s, next] as const] : []
  })

/** So many parts the rule is used on of each stretch. */
const PARTS = 3

function addSlab(
  made: Made,
  { floor, out, across }: Milling,
  land: Land,
  sides: readonly Side[],
  from: number,
  to: number,
): void {
  const [middle, half] = [(from + to) / 2, (to - from) / 2]
  const both = pairs(sides)
  const visit = (turn: number, weight: number): void => {
    // What begins like a square root at either end is smooth in this.
    const u = middle - half * Math.cos(turn)
    const by = weight * half * Math.sin(turn)
    const radius = land.radiusAt(u)
    if (radius <= floor) return
    const chord = Math.sqrt(radius * radius - floor * floor)
    for (const [one, other] of both) {
      const [v0, v1] = [Math.max(-chord, one.at(u)), Math.min(chord, other.at(u))]
      if (v1 <= v0) continue
      const cut = segment(radius, floor, v0, v1)
      const { sums } = made
      sums.volume += by * cut.area
      sums.z += by * u * cut.area
      sums.zz += by * u * u * cut.area
      sums.x += by * (cut.w * out.x + cut.v * across.x)
      sums.y += by * (cut.w * out.y + cut.v * across.y)
      sums.xx += by * turnedTo(cut, out.x, across.x, out.x, across.x)
      sums.yy += by * turnedTo(cut, out.y, across.y, out.y, across.y)
      sums.xy += by * turnedTo(cut, out.x, across.x, out.y, across.y)
      made.surface +=
        by * radius * land.slantAt(u) * (Math.asin(v1 / radius) - Math.asin(v0 / radius))
      made.floor += by * (v1 - v0)
      for (const side of [one, other]) {
        const v = side.at(u)
        if (Math.abs(v) < chord)
          made.walls += by * side.slant(u) * (Math.sqrt(radius * radius - v * v) - floor)
      }
    }
  }
  for (let i = 0; i < PARTS; i++) gauss((Math.PI * i) / PARTS, (Math.PI * (i + 1)) / PARTS, visit)
}

const turnedTo = (
  { ww, vv, wv }: Segment,
  outA: number,
  acrossA: number,
  outB: number,
  acrossB: number,
): number => ww * outA * outB + vv * acrossA * acrossB + wv * (outA * acrossB + acrossA * outB)
