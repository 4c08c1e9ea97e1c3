import {
  add,
  cross,
  dot,
  pointAt,
  radiusOf,
  scale,
  subtract,
  unit,
  vec,
  type Piece,
  type Vec,
} from '../../geometry'
import type { DrawnSize, EdgePlace, SheetSetup } from '../../part'
import type { PartState } from '../../route'
import { cornersOf, edgeKey, edgesOf, liesOnAxis } from '../../section'
import { DIRECTION_TOLERANCE, VERTEX_TOLERANCE } from '../../tolerances'
import { formatAngle, formatLength } from '../../units'
import type { Asked, Shape } from './asked'
import { drawnOnEnd } from './drawnEnds'
import type { Drawn, DrawnPlace } from './drawnPlace'

/** Where the corners of a body are, and the middles of its faces. */
export function drawnPlaces(state: PartState, body: string): DrawnPlace[] {
  const section = state.bodies.find((b) => b.bodyId === body)?.section
  if (!section) return []
  const faces = edgesOf(section).flatMap((edge): DrawnPlace[] => {
    const { kind } = edge.piece
    if (kind === 'cubic' || liesOnAxis(edge)) return []
    const key = edgeKey(edge.name)
    return [{ end: '', body, key, what: kind, at: pointAt(edge.piece, 0.5) }]
  })
  const corners = cornersOf(section).map(({ key, at }) => ({
    ...{ end: '' as const, body, key, at },
    what: 'corner' as const,
  }))
  return [...corners, ...faces]
}

/** Where an edge that was chosen by hand is; undefined where it is gone. */
export const edgePlaceAt = (state: PartState, { body, corner }: EdgePlace): Vec | undefined =>
  drawnPlaces(state, body).find((p) => p.what === 'corner' && p.key === corner)?.at

/** The sizes that were drawn on a sheet, in parentheses as they drive nothing (ISO 129-1:2018, 9.4). */
export function drawnSizes(state: PartState, { drawn }: SheetSetup): Asked[] {
  const { units } = state.part
  return drawn.flatMap((size): Asked[] => {
    const { id, body } = size
    const found = shapeOf(state, size)
    if (!found) return []
    const { shape, value, sign } = found
    const figure = size.kind === 'angle' ? formatAngle(value, units) : formatLength(value, units)
    return [{ id, shows: [], shape, lines: [{ text: `(${sign}${figure})` }], value, body }]
  })
}

function shapeOf(state: PartState, size: DrawnSize): Drawn | undefined {
  if (size.end !== '') return drawnOnEnd(state, size, size.end)
  if (size.kind === 'radius' || size.kind === 'angle') return ofFaces(state, size)
  return between(state, size)
}

/** Between two edges, or across one. */
function between(state: PartState, size: DrawnSize): Drawn | undefined {
  const { kind, body, from, to, other = body } = size
  const a = edgePlaceAt(state, { body, corner: from })
  const b = edgePlaceAt(state, { body: other, corner: to })
  if (!a || !b) return undefined
  if (kind === 'across') return { shape: { kind, at: a, inside: false }, value: 2 * a.y, sign: '⌀' }
  if (kind === 'radial') {
    return { shape: { kind, from: a, to: b }, value: Math.abs(a.y - b.y), sign: '' }
  }
  const shape: Shape = { kind: 'along', from: a, to: b, inside: false }
  return { shape, value: Math.abs(a.x - b.x), sign: '' }
}

/** Of a rounded face its radius, of two plain ones the angle between them, not more than a right one. */
function ofFaces(state: PartState, size: DrawnSize): Drawn | undefined {
  const { kind, body, from, to } = size
  const find = (id: string, key: string): Piece | undefined => {
    const section = state.bodies.find((b) => b.bodyId === id)?.section
    return section && edgesOf(section).find((e) => edgeKey(e.name) === key)?.piece
  }
  const [one, other] = [find(body, from), find(size.other ?? body, to)]
  if (kind === 'radius') {
    if (one?.kind !== 'arc') return undefined
    const isBall = Math.abs(one.centre.y) < VERTEX_TOLERANCE
    return { shape: { kind: 'radius', arc: one }, value: radiusOf(one), sign: isBall ? 'SR' : 'R' }
  }
  if (one?.kind !== 'line' || other?.kind !== 'line') return undefined
  const u = unit(subtract(one.to, one.from))
  const straight = unit(subtract(other.to, other.from))
  const turn = cross(u, straight)
  if (Math.abs(turn) < DIRECTION_TOLERANCE) return undefined
  const v = dot(u, straight) < 0 ? vec(-straight.x, -straight.y) : straight
  const at = add(one.from, scale(u, cross(subtract(other.from, one.from), straight) / turn))
  const value = Math.atan2(Math.abs(cross(u, v)), dot(u, v))
  return { shape: { kind: 'angle', at, one: u, other: v }, value, sign: '' }
}
