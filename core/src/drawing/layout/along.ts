import { pointAt, unit, subtract, vec, type Piece, type Vec } from '../../geometry'
import { edgesOf, materialAlong, type Section } from '../../section'
import type { Asked, Shape } from '../asked'
import type { View } from '../views/turned'
import type { BadgesFor } from './marks'
import type { LaneAsk } from './lanes'
import { callOf, Laying } from './laying'
import type { LeaderAsk } from './leaders'
import type { Placed, Style } from './marks'
import { layAngle, laySlant } from './slants'
import { runningOf } from './running'
import { layThrough, type ThroughAsk } from './through'

/** What a view along the axis is laid out with. */
export interface AlongSetting {
  readonly view: View
  readonly sections: readonly Section[]
  /** Paper for part. */
  readonly by: number
  readonly style: Style
  /** Whether bores are seen above the axis only. */
  readonly half: boolean
  /** Whether bores are seen at all. */
  readonly isCut: boolean
  readonly moved: ReadonlyMap<string, Vec>
  /** Drawn over the view, and to be kept clear too: circles round details. */
  readonly marks: readonly Piece[]
  /** Where lengths run from over each other, in mm of paper: `auto` for where most begin; undefined where they do not. */
  readonly running: number | 'auto' | undefined
  /** Placed before all others: the ends of cutting lines. */
  readonly first: readonly Placed[]
  /** Whether it is given up as soon as something finds no room. */
  readonly isStrict: boolean
  /** What stands beside labels. */
  readonly badgesFor: BadgesFor
  /** More than this is not to be taken up: then the rest is not tried. */
  readonly room: { readonly width: number; readonly height: number }
}

export interface LaidOut {
  readonly placed: readonly Placed[]
  /** What found no room. */
  readonly left: readonly string[]
  /** Whether there was no room for more. */
  readonly isStopped: boolean
}

/** Of a kind, as a shape. */
type Of<K extends Shape['kind']> = Asked & { readonly shape: Extract<Shape, { readonly kind: K }> }
const ofKind = <K extends Shape['kind']>(all: readonly Asked[], kind: K): Of<K>[] =>
  all.filter((a): a is Of<K> => a.shape.kind === kind)

/** In mm of the part. */
const BESIDE = 1e-4
const NEAR = 1e-3
/** At most so many diameters are told beside each end, and from so far away, in mm of paper. */
const MOST_BESIDE = 4
const FARTHEST = 60

/** Places all sizes and call-outs of the view along the axis. */
export function layAlong(
  asked: readonly Asked[],
  leaders: readonly LeaderAsk[],
  setting: AlongSetting,
): LaidOut {
  const { view, by, style, moved, isStrict } = setting
  const isInside = (p: Vec): boolean => Math.abs(p.y) < view.outside(p.x) - 0.01
  const laying = new Laying(
    [...view.outlines, ...setting.marks],
    isInside,
    style,
    setting.badgesFor,
  )
  const { space, placed, left } = laying
  for (const one of setting.first) laying.take(one, one.id)
  const isGivenUp = (): boolean => isStrict && left.length > 0

  const along = ofKind(asked, 'along').map((a) => ({
    ...a,
    isInner: isInnerLength(a.shape, setting),
  }))
  const ask = (a: Of<'along'>, isInner: boolean): LaneAsk => lengthAsk(a, isInner, setting)
  const outer = along.filter((a) => !a.isInner).map((a) => ask(a, false))
  const inner = along.filter((a) => a.isInner).map((a) => ask(a, true))
  const first = view.radius + style.first
  const below = layBelow(outer, -first, laying, setting)
  const above = [...inner, ...below.map((l) => ask(l.asked as Of<'along'>, true))]
  const highest = { upright: false, side: 1, base: first } as const
  left.push(...laying.lanes(above, highest).map((l) => l.asked.id))

  const across = ofKind(asked, 'across').map((a) => acrossAsk(a, setting))
  const beside = sidesOf(across, ofKind(asked, 'radial'), setting)
  // Across the lanes of an upright frame runs to the left.
  const unplaced = [
    ...laying.lanes(beside.left, { upright: true, side: 1, base: -view.left + style.first }),
    ...laying.lanes(beside.right, { upright: true, side: -1, base: -view.right - style.first }),
  ].map((l) => l.asked)
  if (isGivenUp() || isBeyond(placed, setting)) return { placed, left, isStopped: true }
  const rest = new Set(unplaced.map((a) => a.id))
  const through = [
    ...across
      .filter((a) => beside.through.has(a.asked.id) || rest.has(a.asked.id))
      .sort((a, b) => a.from - b.from),
    ...[...beside.radial, ...ofKind(unplaced, 'radial')].map((a) => radialAsk(a, setting)),
  ]
  for (const one of through) {
    if (isGivenUp()) break
    laying.take(layThrough(one, view.outside, space, style), one.asked.id)
  }
  const onPaper = (p: Vec): Vec => vec(p.x * by, p.y * by)
  for (const one of ofKind(asked, 'slant')) {
    const { from, to } = one.shape
    laying.take(
      laySlant(one, onPaper(from), onPaper(to), isInside, space, style, moved.get(one.id)),
      one.id,
    )
  }
  for (const one of ofKind(asked, 'angle')) {
    const { at, one: u, other } = one.shape
    laying.take(
      layAngle(one, { at: onPaper(at), one: u, other }, isInside, space, style, moved.get(one.id)),
      one.id,
    )
  }
  const calls = asked
    .filter((a) => a.shape.kind === 'radius' || a.shape.kind === 'place')
    .map((a) => callOf(a, style, moved, anchorsOf(a.shape, setting)))
  for (const one of [...calls, ...leaders]) {
    if (isGivenUp()) break
    laying.lead(one)
  }
  laying.finish()
  return { placed, left, isStopped: isGivenUp() }
}

/**
 * Lengths below the view: those that run from one face on a line of their own, the others in lanes.
 * @param first where the first line is
 * @returns what found no room
 */
function layBelow(
  outer: readonly LaneAsk[],
  first: number,
  laying: Laying,
  { running, style }: AlongSetting,
): readonly LaneAsk[] {
  const lanes = { upright: false, side: -1, base: first } as const
  if (running === undefined || outer.length === 0) return laying.lanes(outer, lanes)
  const run = runningOf(outer, running === 'auto' ? undefined : running)
  const rest = [...outer.filter((a) => !run.asks.includes(a)), ...laying.running(run, first)]
  const lowest = Math.min(first, ...laying.placed.flatMap((p) => p.labels.map((l) => l.y0)))
  return laying.lanes(rest, { ...lanes, base: lowest - style.pitch / 2 })
}

/** A size square to the axis, told across the view. */
function radialAsk(asked: Of<'radial'>, { by, moved }: AlongSetting): ThroughAsk {
  const { from, to } = asked.shape
  return {
    ...{ asked, low: Math.min(from.y, to.y) * by, high: Math.max(from.y, to.y) * by },
    ...{ from: from.x * by, to: to.x * by, half: false, moved: moved.get(asked.id) },
  }
}

/** Whether what is placed takes up more than there is. */
function isBeyond(placed: readonly Placed[], { view, room }: AlongSetting): boolean {
  const all = placed.flatMap((p) => p.labels)
  const width =
    Math.max(view.right, ...all.map((l) => l.x1)) - Math.min(view.left, ...all.map((l) => l.x0))
  const height =
    Math.max(view.radius, ...all.map((l) => l.y1)) - Math.min(-view.radius, ...all.map((l) => l.y0))
  return width > room.width || height > room.height
}

/** Whether a length is of something that the outside does not show: at one of its ends there is room below and material above. */
function isInnerLength(
  { from, to, inside }: Of<'along'>['shape'],
  { sections, isCut }: AlongSetting,
): boolean {
  if (inside || !isCut) return inside
  const stands = (x: number, y: number, reach: number): boolean =>
    sections.some((s) => materialAlong(s, vec(x, y), vec(0, 1), reach).length > 0)
  return [from, to].some(
    ({ x, y }) =>
      y > 1e-6 &&
      [x - NEAR, x + NEAR].some(
        (at) => !stands(at, y - 2 * NEAR, NEAR) && stands(at, y + NEAR, 1e6),
      ),
  )
}

function lengthAsk(
  asked: Of<'along'>,
  isInner: boolean,
  { view, by, moved }: AlongSetting,
): LaneAsk {
  const ends = [asked.shape.from, asked.shape.to].sort((a, b) => a.x - b.x)
  const [from, to] = ends.map((p) => ({
    at: p.x * by,
    start: isInner ? p.y * by : -Math.max(view.outside(p.x * by), 0),
  }))
  return {
    ...{ asked, from: from?.at ?? 0, to: to?.at ?? 0 },
    ...{ fromStart: from?.start ?? 0, toStart: to?.start ?? 0, moved: moved.get(asked.id) },
  }
}

/** A diameter: its face, if it has one, and whether it is of a bore. */
function acrossAsk(
  asked: Of<'across'>,
  setting: AlongSetting,
): ThroughAsk & { readonly isInner: boolean } {
  const { sections, by, half, moved } = setting
  const { at } = asked.shape
  const [from, to] = faceAt(sections, at)
  const isInner = asked.shape.inside || !isOnOutline(vec((from + to) / 2, at.y), setting)
  return {
    ...{ asked, low: -at.y * by, high: at.y * by, from: from * by, to: to * by, isInner },
    ...{ half: isInner && half, moved: moved.get(asked.id) },
  }
}

/** Whether the outline, seen from outside, has a place; at a step it has those of both sides. */
function isOnOutline({ x, y }: Vec, { view, by }: Pick<AlongSetting, 'view' | 'by'>): boolean {
  return [x - BESIDE, x, x + BESIDE].some((at) => Math.abs(view.outside(at * by) / by - y) < NEAR)
}

/** From where to where the cylinder of a diameter goes: the nearest of its radius, as corners may be rounded. */
function faceAt(sections: readonly Section[], at: Vec): readonly [number, number] {
  let best: { readonly reach: readonly [number, number]; readonly off: number } | undefined
  for (const { piece } of sections.flatMap(edgesOf)) {
    const { from, to } = piece
    const isLevel = Math.abs(from.y - at.y) < 1e-6 && Math.abs(to.y - at.y) < 1e-6
    if (piece.kind !== 'line' || !isLevel) continue
    const reach = [Math.min(from.x, to.x), Math.max(from.x, to.x)] as const
    const off = Math.max(reach[0] - at.x, at.x - reach[1], 0)
    if (off < (best?.off ?? reach[1] - reach[0])) best = { reach, off }
  }
  return best?.reach ?? [at.x, at.x]
}

/** Which diameters are told beside the ends, and which across the view. */
function sidesOf(
  across: readonly ReturnType<typeof acrossAsk>[],
  radial: readonly Of<'radial'>[],
  { view, sections, by, moved }: AlongSetting,
): {
  readonly left: LaneAsk[]
  readonly right: LaneAsk[]
  readonly through: ReadonlySet<string>
  readonly radial: readonly Of<'radial'>[]
} {
  const found = { left: [] as LaneAsk[], right: [] as LaneAsk[] }
  const through = new Set<string>()
  const isFree = (x: number, way: 1 | -1, y: number): boolean =>
    sections.every(
      (s) => materialAlong(s, vec(x / by + way * BESIDE, y), vec(way, 0), 1e6).length === 0,
    )
  const sides = (from: number, to: number, heights: readonly number[]) =>
    [
      ...(heights.every((y) => isFree(to, 1, y))
        ? [{ side: 'right' as const, far: view.right - to }]
        : []),
      ...(heights.every((y) => isFree(from, -1, y))
        ? [{ side: 'left' as const, far: from - view.left }]
        : []),
    ].sort((p, q) => p.far - q.far)
  const options = across.map((a) =>
    sides(a.from, a.to, [a.high / by + (a.isInner ? -BESIDE : BESIDE)]),
  )
  const within = radial.filter((a) => {
    const [low, high] = [a.shape.from, a.shape.to].sort((p, q) => p.y - q.y)
    if (!low || !high) return true
    const xs = [low.x * by, high.x * by]
    const [best] = sides(Math.min(...xs), Math.max(...xs), [low.y + BESIDE, high.y - BESIDE])
    if (!best || best.far > FARTHEST / 3) return true
    const start = (x: number): number => -x * by
    found[best.side].push({
      ...{ asked: a, from: low.y * by, to: high.y * by, moved: moved.get(a.id) },
      ...{ fromStart: start(low.x), toStart: start(high.x) },
    })
    return false
  })
  across
    .map((a, i) => ({ a, best: options[i]?.[0] }))
    .sort((p, q) => p.a.high - q.a.high)
    .forEach(({ a, best }) => {
      const side = best && found[best.side]
      if (!best || !side || best.far > FARTHEST || side.length >= MOST_BESIDE) {
        through.add(a.asked.id)
        return
      }
      // Across the lanes of an upright frame runs to the left.
      const start = best.side === 'right' ? -a.to : -a.from
      side.push({
        ...{ asked: a.asked, from: a.half ? -4 : a.low, to: a.high, moved: moved.get(a.asked.id) },
        ...{ fromStart: a.half ? NaN : start, toStart: start },
      })
    })
  return { ...found, through, radial: within }
}

/** Where a leader may point: on either side of the axis, from either side of an arc. */
export function anchorsOf(
  shape: Shape,
  setting: Pick<AlongSetting, 'by' | 'half' | 'view'>,
): LeaderAsk['anchors'] {
  const { by, half } = setting
  const isSeen = (at: Vec): boolean => isOnOutline(at, setting)
  const both = (at: Vec, out: Vec): LeaderAsk['anchors'] => [
    { at: vec(at.x * by, at.y * by), out },
    // Below the axis of a half section only the outside is seen.
    ...(half && !isSeen(at) ? [] : [{ at: vec(at.x * by, -at.y * by), out: vec(out.x, -out.y) }]),
  ]
  if (shape.kind === 'place') return both(shape.at, shape.out)
  if (shape.kind !== 'radius') return []
  const { arc } = shape
  return [0.5, 0.3, 0.7].flatMap((t) => {
    const at = pointAt(arc, t)
    const out = unit(subtract(at, arc.centre))
    return [...both(at, out), ...both(at, vec(-out.x, -out.y))]
  })
}
