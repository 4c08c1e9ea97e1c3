import {
  boundsOf,
  distance,
  lengthOf,
  line,
  meetingsOf,
  type Vec,
  type Piece,
} from '@lathica/core/geometry'
import {
  AXIS_ID,
  ORIGIN_ID,
  locator,
  piecesOf,
  pointsOf,
  type Sketch,
  nearestOf,
} from '@lathica/core/sketch'
import { toPlane, toScreen, type Px, type View } from './view'

/** How near the pointer must be to a point or a curve, in pixels. */
export const POINT_REACH = 9
const CURVE_REACH = 6
/** This share of a curve at either end belongs to its end points. */
const NEAR_AN_END = 0.3

/** What lies under the pointer: points before curves, the axis last. */
export function pickAt(sketch: Sketch, view: View, at: Px): string | undefined {
  return allAt(sketch, view, at)[0]
}

/**
 * Everything in reach of the pointer, the nearest of each kind first: points, curves, the axis. On
 * the middle of a curve that is short on the screen the curve comes before its ends.
 */
export function allAt(sketch: Sketch, view: View, at: Px): string[] {
  const near = (found: readonly Near[]): string[] =>
    [...found].sort((a, b) => a.distance - b.distance).map((n) => n.id)
  const points = pointsNear(sketch, view, at).filter((n) => n.distance < POINT_REACH)
  const curves = curvesNear(sketch, view, at).filter((n) => n.distance <= CURVE_REACH)
  const ends = new Map<string, number>()
  for (const { id } of curves) {
    const entity = sketch.entities.find((e) => e.id === id)
    if (!entity) continue
    const pieces = piecesOf(entity, locator(sketch))
    const length = pieces.reduce((sum, p) => sum + lengthOf(p), 0) * view.scale
    for (const p of pointsOf(entity)) ends.set(p, Math.min(ends.get(p) ?? length, length))
  }
  const isMiddle = (n: Near): boolean => n.distance > NEAR_AN_END * (ends.get(n.id) ?? Infinity)
  const axis = toScreen(view, { x: 0, y: 0 })
  const off = view.lie === 'lying' ? Math.abs(at.y - axis.y) : Math.abs(at.x - axis.x)
  const [first, last] = [points.filter((n) => !isMiddle(n)), points.filter(isMiddle)]
  return [...near(first), ...near(curves), ...near(last), ...(off <= CURVE_REACH ? [AXIS_ID] : [])]
}

interface Near {
  readonly id: string
  /** in pixels */
  readonly distance: number
}

function pointsNear(sketch: Sketch, view: View, at: Px): Near[] {
  // A drawn point that lies on the datum point comes first.
  const candidates = [...sketch.points, { id: ORIGIN_ID, x: 0, y: 0 }]
  return candidates.map((p) => ({ id: p.id, distance: distance(toScreen(view, p), at) }))
}

function curvesNear(sketch: Sketch, view: View, at: Px): Near[] {
  const locate = locator(sketch)
  const place = toPlane(view, at)
  return sketch.entities.map((e) => ({
    id: e.id,
    distance: (nearestOf(e, locate, place)?.distance ?? Infinity) * view.scale,
  }))
}

/** The point nearest to a place, the datum point included. */
export function nearestPoint(
  sketch: Sketch,
  view: View,
  at: Px,
  reach: number,
): string | undefined {
  const found = pointsNear(sketch, view, at).filter((n) => n.distance < reach)
  return closest(found)
}

export function nearestCurve(
  sketch: Sketch,
  view: View,
  at: Px,
  reach: number,
): string | undefined {
  const found = curvesNear(sketch, view, at).filter((n) => n.distance <= reach)
  return closest(found)
}

function closest(found: readonly Near[]): string | undefined {
  return found.reduce<Near | undefined>(
    (best, n) => (best && best.distance <= n.distance ? best : n),
    undefined,
  )?.id
}

/**
 * Ids of the curves in a box given by two corners in the section plane, and of the points in it that
 * no curve ends at.
 * @param touching true to take also what only reaches into the box
 */
export function inBox(sketch: Sketch, a: Vec, b: Vec, touching: boolean): string[] {
  const locate = locator(sketch)
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)]
  const [low, high] = [Math.min(a.y, b.y), Math.max(a.y, b.y)]
  const within = (p: Vec): boolean => p.x >= left && p.x <= right && p.y >= low && p.y <= high
  const corners = [
    { x: left, y: low },
    { x: right, y: low },
    { x: right, y: high },
    { x: left, y: high },
  ]
  const sides = corners.map((p, i) => line(p, corners[(i + 1) % 4] ?? p))
  const curves = sketch.entities.filter((e) => {
    const pieces = piecesOf(e, locate)
    const isIn = (piece: Piece): boolean => {
      const { min, max } = boundsOf(piece)
      return within(min) && within(max)
    }
    if (pieces.every(isIn)) return pieces.length > 0
    return (
      touching &&
      pieces.some(
        (piece) =>
          within(piece.from) || sides.some((side) => meetingsOf(side, piece, 1e-9).length > 0),
      )
    )
  })
  const held = new Set(sketch.entities.flatMap(pointsOf))
  const loose = sketch.points.filter((p) => !held.has(p.id) && within(p))
  return [...curves, ...loose].map((item) => item.id)
}

/** Every curve that hangs together with one by shared ends, that one included. */
export function wholeChain(sketch: Sketch, id: string): string[] {
  const chain = new Set([id])
  const ends = new Set<string>()
  for (let before = -1; before !== chain.size;) {
    before = chain.size
    for (const e of sketch.entities) {
      if (e.kind === 'circle') continue
      if (chain.has(e.id)) ends.add(e.from).add(e.to)
    }
    for (const e of sketch.entities) {
      if (e.kind !== 'circle' && (ends.has(e.from) || ends.has(e.to))) chain.add(e.id)
    }
  }
  return [...chain]
}
