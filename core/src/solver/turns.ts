import { cross, norm, subtract, type Vec } from '../geometry'
import { locator, type Sketch } from '../sketch'

/** Corners flatter than this, as a sine, have no side worth keeping. */
const FLAT = 0.05

/**
 * True when every corner between two outline lines turns the way it did before the points moved.
 */
export function keepsTurns(sketch: Sketch, positions: ReadonlyMap<string, Vec>): boolean {
  const before = locator(sketch)
  const after = (id: string): Vec => positions.get(id) ?? before(id)
  const starts = new Map(sketch.entities.map((e) => [e.from, e]))
  return sketch.entities.every((first) => {
    const second = starts.get(first.to)
    if (!second || second === first) return true
    const turn = (at: (id: string) => Vec): number => {
      const u = subtract(at(first.to), at(first.from))
      const v = subtract(at(second.to), at(second.from))
      const size = norm(u) * norm(v)
      return size > 0 ? cross(u, v) / size : 0
    }
    const was = turn(before)
    const is = turn(after)
    return Math.abs(was) < FLAT || Math.abs(is) < FLAT || was * is > 0
  })
}
