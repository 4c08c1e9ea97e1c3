import { vec, type Vec } from '../../geometry'
import { saidText, type Asked, type SizeText } from '../asked'
import {
  ABOVE,
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

/** A size square to the axis whose dimension line runs across the view and on to its label, in mm of paper. */
export interface ThroughAsk {
  readonly asked: Asked
  /** Its ends, from the axis: of diameters the lower one is below it. */
  readonly low: number
  readonly high: number
  /** The stretch of the axis where its face is. */
  readonly from: number
  readonly to: number
  /** Only the upper half of the face is seen: the line ends beyond the axis, with one arrow. */
  readonly half: boolean
  readonly moved?: Vec | undefined
}

/** Places along the face that are tried, from its middle. */
const SHARES = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.12, 0.88]
/** How far beyond the outline labels are tried, in mm. */
const STEPS = Array.from({ length: 40 }, (_, i) => 2 + 2 * i)
/** How far a line goes beyond the axis where it has one arrow, in mm. */
const TAIL = 4

/**
 * Places diameters across a view, their labels outside it.
 * @param outside how far the outline reaches from the axis over a place, in mm of paper
 */
export function layThrough(
  ask: ThroughAsk,
  outside: (x: number) => number,
  space: Space,
  style: Style,
): Placed | undefined {
  if (ask.moved) {
    const x = (ask.from + ask.to) / 2 + ask.moved.x
    return drawn(ask, x, 1, Math.max(outside(x), ask.high) + 2 + ask.moved.y, outside, style)
  }
  for (const step of STEPS) {
    for (const share of SHARES) {
      const x = ask.from + (ask.to - ask.from) * share
      for (const side of ask.low < 0 && !ask.half ? ([1, -1] as const) : ([1] as const)) {
        // Clear of the outline over all that the label is wide.
        const near = [x - style.letter - ABOVE, x - style.letter / 2, x, x + 1]
        const top = Math.max(ask.high, ...near.map(outside))
        const made = drawn(ask, x, side, top + step, outside, style)
        if (
          made.labels.every((l) => space.hasRoom(l)) &&
          made.lines.every((l) => space.isClear(l))
        ) {
          return made
        }
      }
    }
  }
  return undefined
}

function drawn(
  ask: ThroughAsk,
  x: number,
  side: 1 | -1,
  top: number,
  outside: (x: number) => number,
  style: Style,
): Placed {
  const text: SizeText = ask.asked.lines[0] ?? { text: '' }
  const width = textWidth(text, style.letter)
  const far = top + width + 0.5
  const isTight = ask.high - ask.low < 2 * style.arrow + 1.5
  const tail = isTight ? style.arrow + 2.5 : 0
  const low = ask.half ? -TAIL : side > 0 ? ask.low - tail : -far
  const high = side > 0 ? far : ask.high + tail
  const lines: Seg[] = [{ a: vec(x, low), b: vec(x, high) }]
  const at = vec(x - ABOVE, side > 0 ? top : -top - width)
  const turn = isTight ? -1 : 1
  return {
    ...{ id: ask.asked.id, said: saidText(text), lines, at },
    moves: straight(vec(x - (ask.from + ask.to) / 2, top - Math.max(outside(x), ask.high) - 2)),
    labels: [textPlot(text, at, true, style.letter)],
    items: [
      narrow(lines),
      head(vec(x, ask.high), vec(0, turn), style.arrow),
      ...(ask.half ? [] : [head(vec(x, ask.low), vec(0, -turn), style.arrow)]),
      ...written(text, at, true, style.letter),
    ],
  }
}
