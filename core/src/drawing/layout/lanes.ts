import { vec, type Vec } from '../../geometry'
import { saidText, type Asked, type SizeText } from '../asked'
import type { Item } from '../items'
import {
  ABOVE,
  BEYOND,
  GAP,
  head,
  narrow,
  textPlot,
  textWidth,
  written,
  type Placed,
  type Style,
} from './marks'
import { badgeItems, badgePlot, badgesBehind, badgesWidth } from './badges'
import type { BadgeKind } from './marks'
import type { Plot, Seg, Space } from './space'

/**
 * Dimension lines beside a view, in lanes one outside the other. Told in a frame of its own: u along the lanes, v
 * across them, both in mm of paper.
 */
export interface LaneAsk {
  readonly asked: Asked
  /** Its ends, the lesser first. */
  readonly from: number
  readonly to: number
  /** Where the extension lines of both begin, across; not a number for an end that has none, and no arrow. */
  readonly fromStart: number
  readonly toStart: number
  /** How far its label was dragged, along and across. */
  readonly moved?: Vec | undefined
  /** What stands behind its label. */
  readonly badges?: readonly BadgeKind[]
}

/** How a size is known, and what it says. */
export const saidOf = (ask: LaneAsk): { readonly id: string; readonly said: string } => ({
  ...{ id: ask.asked.id, said: saidText(first(ask)) },
})

/** A size between two places of the paper, along the lanes of a frame that is upright or level. */
export function laneBetween(
  asked: Asked,
  a: Vec,
  b: Vec,
  upright: boolean,
  moved: ReadonlyMap<string, Vec>,
): LaneAsk {
  const along = (p: Vec): number => (upright ? p.y : p.x)
  const across = (p: Vec): number => (upright ? -p.x : p.y)
  const [low, high] = along(a) <= along(b) ? [a, b] : [b, a]
  return {
    ...{ asked, from: along(low), to: along(high), moved: moved.get(asked.id) },
    ...{ fromStart: across(low), toStart: across(high) },
  }
}

/** Lanes below or above a view run level, those beside it upright and are read from the right. */
export interface LaneFrame {
  readonly upright: boolean
  /** The way outwards across the lanes. */
  readonly side: 1 | -1
  /** Where the first lane is, across. */
  readonly base: number
}

/** So many lanes are tried. */
const MOST_LANES = 60
/** Room between the ends of a dimension line and its label, in mm. */
const ROOM = 1

const place = (upright: boolean, u: number, v: number): Vec => (upright ? vec(-v, u) : vec(u, v))

/**
 * Places sizes in lanes, those that fit between their own ends and hold no others nearest, longer ones outside. No label
 * is put where a line of another runs or will run.
 * @returns what was placed, and what found no room
 */
export function layLanes(
  asks: readonly LaneAsk[],
  frame: LaneFrame,
  space: Space,
  style: Style,
): { readonly placed: readonly Placed[]; readonly left: readonly LaneAsk[] } {
  const inside = (ask: LaneAsk, at: number): boolean => at > ask.from + 0.01 && at < ask.to - 0.01
  const holds = (ask: LaneAsk): boolean =>
    asks.some((other) => other !== ask && (inside(ask, other.from) || inside(ask, other.to)))
  const rank = (ask: LaneAsk): number => {
    if (ask.moved) return 0
    if (holds(ask)) return 3
    return fits(ask, style) ? 1 : 2
  }
  const order = asks
    .map((ask) => ({ ask, rank: rank(ask) }))
    .sort((a, b) => a.rank - b.rank || a.ask.to - a.ask.from - (b.ask.to - b.ask.from))
  /** What of each lane is taken along it. */
  const taken = new Map<number, [number, number][]>()
  const placed: Placed[] = []
  const left: LaneAsk[] = []
  order.forEach(({ ask }, i) => {
    const later = order
      .slice(i + 1)
      .filter((o) => o.rank === 3)
      .flatMap(({ ask: { from, to } }) => [from, to])
      .filter((at) => Math.abs(at - ask.from) > 0.01 && Math.abs(at - ask.to) > 0.01)
    const found = placeOf(ask, frame, space, style, taken, later)
    if (!found) {
      left.push(ask)
      return
    }
    taken.set(found.lane, [...(taken.get(found.lane) ?? []), found.takes])
    space.addLabels(found.placed.labels)
    space.addLines(found.placed.lines)
    placed.push(found.placed)
  })
  return { placed, left }
}

const first = ({ asked }: LaneAsk): SizeText => asked.lines[0] ?? { text: '' }

/** How long its label is, with what stands behind it. */
const widthOfLabel = (ask: LaneAsk, style: Style): number =>
  textWidth(first(ask), style.letter) + badgesWidth(ask.badges ?? [], style)

/** Whether label and arrows stand between the ends. */
const fits = (ask: LaneAsk, style: Style): boolean =>
  widthOfLabel(ask, style) + 2 * ROOM <= ask.to - ask.from

interface Found {
  readonly lane: number
  readonly takes: [number, number]
  readonly placed: Placed
}

function placeOf(
  ask: LaneAsk,
  frame: LaneFrame,
  space: Space,
  style: Style,
  taken: ReadonlyMap<number, readonly (readonly [number, number])[]>,
  later: readonly number[],
): Found | undefined {
  if (ask.moved) {
    const across = frame.base + ask.moved.y
    const width = widthOfLabel(ask, style)
    const label = (ask.from + ask.to - width) / 2 + ask.moved.x
    return { lane: -1, takes: [0, 0], placed: drawn(ask, frame, style, across, label).placed }
  }
  for (let lane = 0; lane < MOST_LANES; lane++) {
    const across = frame.base + frame.side * lane * style.pitch
    // What its extension lines run into here they run into farther out too.
    const extensions = extensionsOf(ask, frame, across)
    if (!extensions.every((e) => space.isClear(e))) return undefined
    for (const label of labelsFor(ask, style)) {
      const made = drawn(ask, frame, style, across, label, extensions)
      const [a, b] = made.takes
      const isFree = !(taken.get(lane) ?? []).some(([c, d]) => a < d - 0.05 && c < b - 0.05)
      if (!isFree) continue
      const [low, high] = made.label
      if (later.some((at) => at > low - ROOM && at < high + ROOM)) continue
      if (made.placed.labels.every((l) => space.hasRoom(l)) && space.isClear(made.body)) {
        return { lane, takes: made.takes, placed: made.placed }
      }
    }
  }
  return undefined
}

/** From its ends to its lane, and a little beyond. */
function extensionsOf(ask: LaneAsk, { upright }: LaneFrame, across: number): Seg[] {
  return (
    [
      [ask.from, ask.fromStart],
      [ask.to, ask.toStart],
    ] as const
  ).flatMap(([u, v]) => {
    // None where the line would stand on the feature itself.
    if (!Number.isFinite(v) || Math.abs(across - v) < GAP) return []
    const way = Math.sign(across - v)
    return [{ a: place(upright, u, v + way * GAP), b: place(upright, u, across + way * BEYOND) }]
  })
}

/** Where the label may begin along its lane, the best first: in the middle, moved from it, then beyond either end. */
function labelsFor(ask: LaneAsk, style: Style): number[] {
  const width = widthOfLabel(ask, style)
  const middle = (ask.from + ask.to - width) / 2
  const room = (ask.to - ask.from - width) / 2 - ROOM
  const beyond = style.arrow + 2.5 + ROOM
  const moved =
    room > 0 ? [0.25, -0.25, 0.5, -0.5, 0.75, -0.75, 1, -1].map((s) => middle + s * room) : []
  const over = room > 0 ? [] : [middle]
  return [
    ...(room > 0 ? [middle] : []),
    ...moved,
    ...[ask.to + beyond, ask.from - beyond - width],
    // Overhanging its ends, where no neighbour stands in the lane.
    ...over,
  ]
}

function drawn(
  ask: LaneAsk,
  frame: LaneFrame,
  style: Style,
  across: number,
  label: number,
  extensions = extensionsOf(ask, frame, across),
): {
  readonly takes: [number, number]
  /** Its line without the extensions. */
  readonly body: Seg
  readonly label: readonly [number, number]
  readonly placed: Placed
} {
  const { asked, from, to } = ask
  const { upright, base } = frame
  const text = first(ask)
  const width = widthOfLabel(ask, style)
  const at = (u: number, v: number): Vec => place(upright, u, v)
  const [hasFrom, hasTo] = [Number.isFinite(ask.fromStart), Number.isFinite(ask.toStart)]
  const isTight = to - from < 2 * style.arrow + 1.5
  const reach = isTight ? style.arrow + 2.5 : 0
  const low = Math.min(from - (hasFrom ? reach : 0), label < from ? label - 0.3 : Infinity)
  const high = Math.max(
    to + (hasTo ? reach : 0),
    label + width > to ? label + width + 0.3 : -Infinity,
  )
  const body: Seg = { a: at(low, across), b: at(high, across) }
  const turn = isTight ? -1 : 1
  const heads: Item[] = [
    ...(hasFrom ? [head(at(from, across), unitOf(upright, -turn), style.arrow)] : []),
    ...(hasTo ? [head(at(to, across), unitOf(upright, turn), style.arrow)] : []),
  ]
  const start = at(label, across + ABOVE)
  const labelPlot: Plot = textPlot(text, start, upright, style.letter)
  const lines = [body, ...extensions]
  const textEnd = label + textWidth(text, style.letter)
  const badges = badgesBehind(ask.badges ?? [], style).map(({ kind, along, above }) => ({
    ...{ kind, centre: at(textEnd + along, across + above) },
  }))
  return {
    ...{ takes: [low, high], body },
    label: [label, label + width],
    placed: {
      ...{ id: asked.id, said: saidText(text), lines, at: start },
      labels: [labelPlot, ...badges.map((b) => badgePlot(b.centre, style))],
      ...(badges.length > 0 ? { badges } : {}),
      moves: {
        by: vec(label - (from + to - width) / 2, across - base),
        ...{ along: at(1, 0), across: at(0, 1) },
      },
      items: [
        narrow(lines),
        ...heads,
        ...written(text, start, upright, style.letter),
        ...badges.flatMap((b) => badgeItems(b.kind, b.centre, style)),
      ],
    },
  }
}

const unitOf = (upright: boolean, way: number): Vec => (upright ? vec(0, way) : vec(way, 0))
