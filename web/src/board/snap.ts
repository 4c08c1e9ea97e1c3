import {
  AXIS_ID,
  ORIGIN_ID,
  entityName,
  isGiven,
  locator,
  type End,
  type Sketch,
  type Vec,
} from '@lathica/core'
import { POINT_REACH, nearestLine, nearestPoint } from './pick'
import { toPlane, toScreen, type Px, type View } from './view'

/** Where a new point would go, and what it would be tied to. */
export interface Snap {
  readonly end: End
  readonly directions: readonly ('axial' | 'radial')[]
  /** What would be taken, in words; empty when nothing is suggested. */
  readonly words: readonly string[]
}

/** A line this near to axial or radial is offered as such, in radians. */
const NEAR_DIRECTION = (5 * Math.PI) / 180
const LINE_SNAP = 7

/**
 * Proposes where a line's end goes: onto a point, a line or the axis, or level with its start.
 * @param from where the line starts, if it has begun
 * @param refuse true while suggestions are refused: the place is then taken as it is
 */
export function snapTo(
  sketch: Sketch,
  view: View,
  at: Px,
  from: End | undefined,
  refuse: boolean,
): Snap {
  const free = toPlane(view, at)
  if (refuse) return { end: { at: free }, directions: [], words: [] }
  const point = nearestPoint(sketch, view, at, POINT_REACH)
  if (point !== undefined && point !== from?.point) {
    const place = locator(sketch)(point)
    return {
      end: { at: place, point },
      directions: directionsBetween(from?.at, place, NEAR_DIRECTION / 2),
      words: [point === ORIGIN_ID ? 'on the datum point' : `meets ${entityName(sketch, point)}`],
    }
  }
  const directions = from ? directionsBetween(from.at, free, NEAR_DIRECTION) : []
  const level = from ? levelled(from.at, free, directions) : free
  return withLine(sketch, view, from, level, directions)
}

function withLine(
  sketch: Sketch,
  view: View,
  from: End | undefined,
  level: Vec,
  directions: readonly ('axial' | 'radial')[],
): Snap {
  const words: string[] = [...directions]
  const axisIsNear = Math.abs(level.y) * view.scale <= LINE_SNAP
  if (axisIsNear && !(directions[0] === 'axial' && isOnAxis(sketch, from))) {
    const end = { at: { x: level.x, y: 0 }, line: AXIS_ID }
    return { end, directions, words: [...words, 'on the axis'] }
  }
  const place = toScreen(view, level)
  const line = nearestLine(sketch, view, place, LINE_SNAP)
  if (line === undefined || directions.length === 0) {
    // A free end is put onto a line only where it stays in reach of it.
    if (line === undefined) return { end: { at: level }, directions, words }
    const onto = footOn(sketch, line, level)
    return { end: { at: onto, line }, directions: [], words: [`on ${entityName(sketch, line)}`] }
  }
  const crossing = from ? crossingOf(sketch, line, from.at, directions) : undefined
  if (!crossing) return { end: { at: level }, directions, words }
  const onLine = `on ${entityName(sketch, line)}`
  return { end: { at: crossing, line }, directions, words: [...words, onLine] }
}

function isOnAxis(sketch: Sketch, from: End | undefined): boolean {
  if (!from) return false
  if (from.line === AXIS_ID || (from.point !== undefined && isGiven(from.point))) return true
  return sketch.constraints.some(
    (c) =>
      (c.kind === 'pointOnLine' && c.point === from.point && c.line === AXIS_ID) ||
      (c.kind === 'coincident' && (c.a === from.point || c.b === from.point) && c.b === ORIGIN_ID),
  )
}

/** Whether a way is axial or radial, to within an angle in radians. */
export function directionsBetween(
  from: Vec | undefined,
  to: Vec,
  within: number,
): ('axial' | 'radial')[] {
  if (!from) return []
  const [dx, dy] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  if (dx === 0 && dy === 0) return []
  if (Math.atan2(dy, dx) <= within) return ['axial']
  if (Math.atan2(dx, dy) <= within) return ['radial']
  return []
}

function levelled(from: Vec, to: Vec, directions: readonly ('axial' | 'radial')[]): Vec {
  if (directions[0] === 'axial') return { x: to.x, y: from.y }
  if (directions[0] === 'radial') return { x: from.x, y: to.y }
  return to
}

function footOn(sketch: Sketch, id: string, p: Vec): Vec {
  const ends = endsOf(sketch, id)
  if (!ends) return p
  const [a, b] = ends
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const t = ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)
  return { x: a.x + t * dx, y: a.y + t * dy }
}

/** Where a line is crossed by the axial or radial line through a point. */
function crossingOf(
  sketch: Sketch,
  id: string,
  from: Vec,
  directions: readonly ('axial' | 'radial')[],
): Vec | undefined {
  const ends = endsOf(sketch, id)
  if (!ends) return undefined
  const [a, b] = ends
  if (directions[0] === 'axial') {
    if (Math.abs(b.y - a.y) < 1e-9) return undefined
    const t = (from.y - a.y) / (b.y - a.y)
    return { x: a.x + t * (b.x - a.x), y: from.y }
  }
  if (Math.abs(b.x - a.x) < 1e-9) return undefined
  const t = (from.x - a.x) / (b.x - a.x)
  return { x: from.x, y: a.y + t * (b.y - a.y) }
}

function endsOf(sketch: Sketch, id: string): readonly [Vec, Vec] | undefined {
  const locate = locator(sketch)
  const entity = sketch.entities.find((e) => e.id === id)
  return entity && [locate(entity.from), locate(entity.to)]
}
