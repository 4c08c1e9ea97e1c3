import { vec, type Vec } from '../../geometry'
import { saidText } from '../asked'
import type { Item } from '../items'
import { ring } from '../views/turned'
import { badgeItems, badgePlot, badgesBehind, badgesWidth } from './badges'
import type { LaneAsk } from './lanes'
import {
  BEYOND,
  GAP,
  head,
  narrow,
  straight,
  textPlot,
  textWidth,
  written,
  type Placed,
  type Style,
} from './marks'
import type { Seg, Space } from './space'

/** Of what the running lengths are measured from: half the size of its circle, in mm (ISO 129-1:2018, 9.2.4). */
const ORIGIN = 1

/** Lengths that run from one place, over each other on one line, each told where it ends. */
export interface Running {
  /** Where they begin, in mm of paper. */
  readonly origin: number
  readonly asks: readonly LaneAsk[]
}

/** The lengths that one place is an end of: the one that most begin at, the left one of several, or the one that is wished. */
export function runningOf(asks: readonly LaneAsk[], wished: number | undefined): Running {
  const has = (at: number, a: LaneAsk): boolean =>
    Math.abs(a.from - at) < 0.001 || Math.abs(a.to - at) < 0.001
  const ends = asks.flatMap((a) => [a.from, a.to]).sort((a, b) => a - b)
  const count = (at: number): number => asks.filter((a) => has(at, a)).length
  const origin =
    wished ?? ends.reduce((best, at) => (count(at) > count(best) ? at : best), ends[0] ?? 0)
  return { origin, asks: asks.filter((a) => has(origin, a)) }
}

/**
 * Places running lengths below a view.
 * @param across where their line is
 * @returns what was placed; those that found no room beside others are left to lanes of their own
 */
export function layRunning(
  { origin, asks }: Running,
  across: number,
  space: Space,
  style: Style,
): { readonly placed: readonly Placed[]; readonly left: readonly LaneAsk[] } {
  const placed: Placed[] = []
  const left: LaneAsk[] = []
  const farFirst = [...asks].sort((a, b) => b.to - b.from - (a.to - a.from))
  for (const ask of farFirst) {
    const made = drawn(ask, origin, across, placed.length === 0, style)
    const isFree = ask.moved !== undefined || made.labels.every((l) => space.hasRoom(l))
    if (!isFree) {
      left.push(ask)
      continue
    }
    space.addLabels(made.labels)
    space.addLines(made.lines)
    placed.push(made)
  }
  return { placed, left }
}

function drawn(
  ask: LaneAsk,
  origin: number,
  across: number,
  isFirst: boolean,
  style: Style,
): Placed {
  const isRight = Math.abs(ask.from - origin) < 0.001
  const [end, start] = isRight ? [ask.to, ask.toStart] : [ask.from, ask.fromStart]
  const begin = isRight ? ask.fromStart : ask.toStart
  const text = ask.asked.lines[0] ?? { text: '' }
  const width = textWidth(text, style.letter)
  const kinds = ask.badges ?? []
  const off = ask.moved ?? vec(0, 0)
  // Upright below the line, in the middle under the end: read from the right.
  const whole = width + badgesWidth(kinds, style)
  const at = vec(end + style.letter / 2 + off.x, across - BEYOND - GAP - whole + off.y)
  const badges = badgesBehind(kinds, style).map(({ kind, along }) => ({
    ...{ kind, centre: vec(at.x - style.letter / 2, at.y + width + along) },
  }))
  const ray = (x: number, from: number): Seg[] =>
    Math.abs(across - from) < GAP ? [] : [{ a: vec(x, from - GAP), b: vec(x, across - BEYOND) }]
  const lines: Seg[] = [
    { a: vec(origin + (isRight ? ORIGIN : -ORIGIN), across), b: vec(end, across) },
    ...ray(end, start),
    ...(isFirst ? ray(origin, begin) : []),
  ]
  const way: Vec = vec(isRight ? 1 : -1, 0)
  const mark: Item[] = isFirst
    ? [{ kind: 'stroke', line: 'narrow', runs: [ring(vec(origin, across), ORIGIN)] }]
    : []
  return {
    ...{ id: ask.asked.id, said: saidText(text), lines, at },
    labels: [
      textPlot(text, at, true, style.letter),
      ...badges.map((b) => badgePlot(b.centre, style)),
    ],
    ...(badges.length > 0 ? { badges } : {}),
    moves: straight(off),
    items: [
      narrow(lines),
      head(vec(end, across), way, style.arrow),
      ...mark,
      ...written(text, at, true, style.letter),
      ...badges.flatMap((b) => badgeItems(b.kind, b.centre, style)),
    ],
  }
}
