import {
  AXIS_ID,
  ORIGIN_ID,
  distance,
  line,
  locator,
  nearestOn,
  type Sketch,
  type Vec,
} from '@lathica/core'
import { toScreen, type Px, type View } from './view'

/** How near the pointer must be to a point or a line, in pixels. */
export const POINT_REACH = 9
const LINE_REACH = 6

/** What lies under the pointer: points before lines, the axis last. */
export function pickAt(sketch: Sketch, view: View, at: Px): string | undefined {
  const point = nearestPoint(sketch, view, at, POINT_REACH)
  if (point !== undefined) return point
  const found = nearestLine(sketch, view, at, LINE_REACH)
  if (found !== undefined) return found
  const axis = toScreen(view, { x: 0, y: 0 })
  const off = view.lie === 'lying' ? Math.abs(at.y - axis.y) : Math.abs(at.x - axis.x)
  return off <= LINE_REACH ? AXIS_ID : undefined
}

/** The point nearest to a place, the datum point included. */
export function nearestPoint(
  sketch: Sketch,
  view: View,
  at: Px,
  reach: number,
): string | undefined {
  let best: string | undefined
  let nearest = reach
  const candidates = [...sketch.points, { id: ORIGIN_ID, x: 0, y: 0 }]
  for (const p of candidates) {
    const d = distance(toScreen(view, p), at)
    // A drawn point that lies on the datum point comes first.
    if (d < nearest || (d === nearest && best === undefined)) [best, nearest] = [p.id, d]
  }
  return best
}

export function nearestLine(sketch: Sketch, view: View, at: Px, reach: number): string | undefined {
  const locate = locator(sketch)
  let best: string | undefined
  let nearest = reach
  for (const e of sketch.entities) {
    const piece = line(toScreen(view, locate(e.from)), toScreen(view, locate(e.to)))
    const d = nearestOn(piece, at).distance
    if (d <= nearest) [best, nearest] = [e.id, d]
  }
  return best
}

/** Ids of what lies wholly inside a box given by two corners in the section plane. */
export function inBox(sketch: Sketch, a: Vec, b: Vec): string[] {
  const locate = locator(sketch)
  const within = (p: Vec): boolean =>
    p.x >= Math.min(a.x, b.x) &&
    p.x <= Math.max(a.x, b.x) &&
    p.y >= Math.min(a.y, b.y) &&
    p.y <= Math.max(a.y, b.y)
  return sketch.entities
    .filter((e) => within(locate(e.from)) && within(locate(e.to)))
    .map((e) => e.id)
}
