import {
  add,
  distance,
  line,
  meetingsOf,
  nearestOn,
  pointAt,
  scale,
  type Vec,
} from '@lathica/core/geometry'
import {
  AXIS_ID,
  ORIGIN_ID,
  entityName,
  isGiven,
  linesOf,
  locator,
  planeWords,
  pieceOf,
  type Entity,
  type Sketch,
  piecesOf,
  isFree,
  directionAt,
  nearestOf,
} from '@lathica/core/sketch'
import type { NewConstraint } from '@lathica/core/constraints'
import type { End } from '@lathica/core/edit'
import { POINT_REACH, nearestCurve, nearestPoint } from './pick'
import { onSectionCorner, onSectionEdge } from './snapSection'
import {
  CURVE_SNAP,
  IN_LINE_SNAP,
  NEAR_DIRECTION,
  directionsBetween,
  free,
  ontoPiece,
  type Snap,
  type SnapQuery,
} from './snapping'
import { toPlane, toScreen } from './view'

/** Proposes where an end goes: onto a point, a middle, a crossing, a curve, or level with its start. */
export function snapTo(query: SnapQuery): Snap {
  const place = toPlane(query.view, query.at)
  if (query.refuse) return free(place)
  return (
    onPoint(query) ??
    onCorner(query) ??
    onMiddle(query) ??
    onCrossing(query) ??
    alongDirection(query, onGrid(query))
  )
}

/** A corner of an earlier profile, which the point will follow. */
function onCorner(query: SnapQuery): Snap | undefined {
  const { view, at, from, suggesting, straight, earlier } = query
  if (!suggesting.kinds.has('section')) return undefined
  for (const sketch of [...(earlier ?? [])].reverse()) {
    const point = nearestPoint(sketch, view, at, POINT_REACH)
    if (point === undefined || isGiven(point)) continue
    const place = locator(sketch)(point)
    const level = straight !== false && suggesting.kinds.has('directions')
    return {
      ...free(place),
      end: { at: place, link: { profile: sketch.id, item: point } },
      directions: level ? directionsBetween(from?.at, place, NEAR_DIRECTION / 2) : [],
      words: [`corner of profile ${sketch.name}`],
    }
  }
  return onSectionCorner(query)
}

/** An edge of an earlier profile, which the point will lie on. */
function onEdge(query: SnapQuery, snap: Snap): Snap | undefined {
  const { view, suggesting, earlier, from } = query
  if (!suggesting.kinds.has('section')) return undefined
  for (const sketch of [...(earlier ?? [])].reverse()) {
    const met = nearestCurve(sketch, view, toScreen(view, snap.end.at), CURVE_SNAP)
    const edge = sketch.entities.find((e) => e.id === met)
    if (!edge || edge.kind === 'circle' || edge.role !== 'outline') continue
    const onto = ontoCurve(sketch, edge, snap, from)
    if (!onto) continue
    const end: End = { at: onto, link: { profile: sketch.id, item: edge.id } }
    return { ...snap, end, words: [...snap.words, `on an edge of profile ${sketch.name}`] }
  }
  return onSectionEdge(query, snap)
}

function onPoint({ sketch, view, at, from, suggesting, straight }: SnapQuery): Snap | undefined {
  if (!suggesting.kinds.has('points')) return undefined
  const point = nearestPoint(sketch, view, at, POINT_REACH)
  if (point === undefined || point === from?.point) return undefined
  const place = locator(sketch)(point)
  const level = straight !== false && suggesting.kinds.has('directions')
  return {
    ...free(place),
    end: { at: place, point },
    directions: level ? directionsBetween(from?.at, place, NEAR_DIRECTION / 2) : [],
    words: [
      point === ORIGIN_ID
        ? `on ${entityName(sketch, point)}`
        : `meets ${entityName(sketch, point)}`,
    ],
  }
}

function onMiddle({ sketch, view, at, from, suggesting }: SnapQuery): Snap | undefined {
  if (!suggesting.kinds.has('middles')) return undefined
  const locate = locator(sketch)
  for (const e of linesOf(sketch)) {
    if (from?.point !== undefined && [e.from, e.to].includes(from.point)) continue
    const middle = pointAt(pieceOf(e, locate), 0.5)
    if (distance(toScreen(view, middle), at) >= POINT_REACH) continue
    const words = [`middle of ${entityName(sketch, e.id)}`]
    return { ...free(middle), end: { at: middle, middle: e.id }, words }
  }
  return undefined
}

/** Where two curves cross, or a curve the axis. */
function onCrossing({ sketch, view, at, from, suggesting }: SnapQuery): Snap | undefined {
  if (!suggesting.kinds.has('crossings')) return undefined
  const locate = locator(sketch)
  const place = toPlane(view, at)
  const reach = POINT_REACH / view.scale
  const near = sketch.entities
    .filter((e) => from?.point === undefined || !hasEnd(e, from.point))
    .flatMap((e) => piecesOf(e, locate).map((piece) => ({ id: e.id, piece })))
    .filter(({ piece }) => nearestOn(piece, place).distance <= reach)
  if (Math.abs(place.y) <= reach) {
    const far = 4 * reach
    const piece = line({ x: place.x - far, y: 0 }, { x: place.x + far, y: 0 })
    near.push({ id: AXIS_ID, piece })
  }
  for (const [i, a] of near.entries()) {
    for (const b of near.slice(i + 1)) {
      if (a.id === b.id) continue
      const meeting = meetingsOf(a.piece, b.piece, 1e-9).find((m) => distance(m.at, place) <= reach)
      if (!meeting || [0, 1].includes(meeting.t) || [0, 1].includes(meeting.u)) continue
      const words = [`crossing of ${entityName(sketch, a.id)} and ${entityName(sketch, b.id)}`]
      return { ...free(meeting.at), end: { at: meeting.at, on: [a.id, b.id] }, words }
    }
  }
  return undefined
}

function hasEnd(e: Entity, point: string): boolean {
  return e.kind !== 'circle' && (e.from === point || e.to === point)
}

function onGrid({ view, at, suggesting }: SnapQuery): Vec {
  const place = toPlane(view, at)
  if (!suggesting.kinds.has('grid')) return place
  const { minor } = suggesting.grid
  return { x: Math.round(place.x / minor) * minor, y: Math.round(place.y / minor) * minor }
}

/** A direction from the start, if one is near, and a curve or point met on the way. */
function alongDirection(query: SnapQuery, place: Vec): Snap {
  const { sketch, from, suggesting, straight } = query
  const level = from && straight !== false
  const directions =
    level && suggesting.kinds.has('directions')
      ? directionsBetween(from.at, place, NEAR_DIRECTION)
      : []
  if (directions.length > 0 && from) {
    const to =
      directions[0] === 'axial' ? { x: place.x, y: from.at.y } : { x: from.at.x, y: place.y }
    return withCurve(query, {
      ...free(to),
      directions,
      words: directions.map((d) => planeWords(sketch.plane)[d]),
    })
  }
  const smooth =
    level && suggesting.kinds.has('tangents') ? smoothFrom(sketch, from, place) : undefined
  if (smooth) {
    const tie: NewConstraint = { kind: 'tangent', curve: '~piece', to: smooth.curve }
    const words = [`smooth from ${entityName(sketch, smooth.curve)}`]
    return withCurve(query, { ...free(smooth.at), ties: [tie], words })
  }
  return withCurve(query, free(place))
}

/** The end of a line that goes on smoothly from an arc or a free curve, where it is near to doing so. */
function smoothFrom(
  sketch: Sketch,
  from: End,
  place: Vec,
): { readonly curve: string; readonly at: Vec } | undefined {
  const before = sketch.entities.find(
    (e) => (e.kind === 'arc' || isFree(e)) && hasEnd(e, from.point ?? ''),
  )
  if (!before || before.kind === 'circle') return undefined
  const end = before.from === from.point ? 'start' : 'end'
  const along = directionAt(before, locator(sketch), end)
  if (!along) return undefined
  const way = { x: place.x - from.at.x, y: place.y - from.at.y }
  const length = along.x ** 2 + along.y ** 2
  const share = (way.x * along.x + way.y * along.y) / (length || 1)
  const at = add(from.at, scale(along, share))
  const off = distance(at, place)
  return off <= Math.tan(NEAR_DIRECTION) * distance(at, from.at)
    ? { curve: before.id, at }
    : undefined
}

/** Puts a proposed place onto the axis or a curve that lies near, or in line with a point. */
function withCurve(query: SnapQuery, snap: Snap): Snap {
  const { sketch, view, from, suggesting } = query
  const { at } = snap.end
  if (suggesting.kinds.has('curves')) {
    const axisIsNear = Math.abs(at.y) * view.scale <= CURVE_SNAP
    const levelOnAxis = snap.directions[0] === 'axial' && isOnAxis(sketch, from)
    if (axisIsNear && !levelOnAxis && snap.ties.length === 0) {
      const end = { at: { x: at.x, y: 0 }, on: [AXIS_ID] }
      return { ...snap, end, words: [...snap.words, `on ${entityName(sketch, AXIS_ID)}`] }
    }
    const met = nearestCurve(sketch, view, toScreen(view, at), CURVE_SNAP)
    const curve = sketch.entities.find((e) => e.id === met)
    if (curve && !(from?.point !== undefined && hasEnd(curve, from.point))) {
      const onto = ontoCurve(sketch, curve, snap, from)
      if (onto) {
        const word = `on ${entityName(sketch, curve.id)}`
        return { ...snap, end: { at: onto, on: [curve.id] }, words: [...snap.words, word] }
      }
    }
  }
  const edge = onEdge(query, snap)
  if (edge) return edge
  return suggesting.kinds.has('inLine') ? inLineWithPoint(query, snap) : snap
}

/** The place on a curve: where the direction from the start meets it, or the nearest place. */
function ontoCurve(
  sketch: Sketch,
  curve: Entity,
  snap: Snap,
  from: End | undefined,
): Vec | undefined {
  const piece = nearestOf(curve, locator(sketch), snap.end.at)?.piece
  return piece && ontoPiece(piece, snap, from)
}

/** Level with another point of the sketch, in a direction that is still open. */
function inLineWithPoint({ sketch, view, from }: SnapQuery, snap: Snap): Snap {
  const { at } = snap.end
  const open = (['radial', 'axial'] as const).filter((along) =>
    snap.directions.length === 0 ? snap.ties.length === 0 : along !== snap.directions[0],
  )
  for (const along of open) {
    const off = (p: Vec): number => Math.abs(along === 'radial' ? p.x - at.x : p.y - at.y)
    const near = sketch.points
      .filter((p) => p.id !== from?.point && off(p) * view.scale <= IN_LINE_SNAP)
      .sort((p, q) => distance(p, at) - distance(q, at))[0]
    if (!near) continue
    const to = along === 'radial' ? { x: near.x, y: at.y } : { x: at.x, y: near.y }
    const tie: NewConstraint = { kind: 'inLine', a: '~to', b: near.id, along }
    return {
      ...snap,
      end: { at: to },
      ties: [...snap.ties, tie],
      words: [...snap.words, `in line with ${entityName(sketch, near.id)}`],
      guides: [[near, to]],
    }
  }
  return snap
}

function isOnAxis(sketch: Sketch, from: End | undefined): boolean {
  if (!from) return false
  if (from.on?.includes(AXIS_ID) === true) return true
  if (from.point !== undefined && isGiven(from.point)) return true
  return sketch.constraints.some(
    (c) =>
      (c.kind === 'pointOn' && c.point === from.point && c.curve === AXIS_ID) ||
      (c.kind === 'coincident' && (c.a === from.point || c.b === from.point) && c.b === ORIGIN_ID),
  )
}
