import type { Vec } from '../../geometry'
import type { Asked } from '../asked'
import { laneBetween } from './lanes'
import type { Laying } from './laying'
import type { Style } from './marks'

/** A size between two places of a view square to the axis, level or upright, in mm of paper. */
export interface FlatAsk {
  readonly asked: Asked
  readonly way: 'level' | 'upright'
  readonly from: Vec
  readonly to: Vec
}

/** Sizes in lanes round a view, each on the side that it is nearer to. What finds no room is noted. */
export function layFlat(
  all: readonly FlatAsk[],
  radius: number,
  laying: Laying,
  style: Style,
  moved: ReadonlyMap<string, Vec>,
): void {
  for (const way of ['level', 'upright'] as const) {
    const upright = way === 'upright'
    for (const side of [1, -1] as const) {
      const asks = all
        .filter((a) => a.way === way && sideOf(a) === side)
        .map((a) => laneBetween(a.asked, a.from, a.to, upright, moved))
      const base = side * (radius + style.first)
      laying.left.push(...laying.lanes(asks, { upright, side, base }).map((l) => l.asked.id))
    }
  }
}

/** Across the lanes of an upright frame runs to the left: the right is told first. */
function sideOf({ way, from, to }: FlatAsk): 1 | -1 {
  if (way === 'level') return from.y + to.y < -1e-9 ? -1 : 1
  return from.x + to.x < -1e-9 ? 1 : -1
}
