import type { Vec } from '../geometry'
import type { Sketch } from '../sketch'

/** The sketch with its points moved; points without a new position stay the same objects. */
export function withPositions(sketch: Sketch, positions: ReadonlyMap<string, Vec>): Sketch {
  let changed = false
  const points = sketch.points.map((p) => {
    const to = positions.get(p.id)
    if (!to || (to.x === p.x && to.y === p.y)) return p
    changed = true
    return { ...p, x: to.x, y: to.y }
  })
  return changed ? { ...sketch, points } : sketch
}
