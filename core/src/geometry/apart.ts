import { VERTEX_TOLERANCE } from '../tolerances'
import { meetingsOf } from './meetings'
import { nearestOn, parameterOfDirection, pointAt, radiusOf, type Piece } from './piece'
import { add, norm, scale, subtract, type Vec } from './vector'

/** How far apart two things are in mm, and the places nearest to one another. */
export interface Apart {
  readonly distance: number
  readonly from: Vec
  readonly to: Vec
}

/**
 * The least distance of two pieces: nought where they meet, else between an end and the other
 * piece, or where both have the same normal.
 */
export function apart(a: Piece, b: Piece): Apart {
  const [meeting] = meetingsOf(a, b, VERTEX_TOLERANCE)
  if (meeting) return { distance: 0, from: meeting.at, to: meeting.at }
  let best: Apart = fromPoint(a.from, b)
  const offer = (next: Apart): void => {
    if (next.distance < best.distance) best = next
  }
  offer(fromPoint(a.to, b))
  offer(turned(fromPoint(b.from, a)))
  offer(turned(fromPoint(b.to, a)))
  // Where both have one normal, it goes through an arc's centre: from there to the other piece.
  for (const normal of sharedNormals(a, b)) {
    for (const place of placesFacing(a, normal)) offer(fromPoint(place, b))
    for (const place of placesFacing(b, normal)) offer(turned(fromPoint(place, a)))
  }
  return best
}

/** From a point to the nearest place of a piece. */
export function fromPoint(p: Vec, piece: Piece): Apart {
  const found = nearestOn(piece, p)
  return { distance: found.distance, from: p, to: pointAt(piece, found.t) }
}

const turned = ({ distance: d, from, to }: Apart): Apart => ({ distance: d, from: to, to: from })

/** Directions in which both pieces may have their normal, where neither is at an end. */
function sharedNormals(a: Piece, b: Piece): Vec[] {
  if (a.kind === 'line' && b.kind === 'line') return []
  if (a.kind === 'arc' && b.kind === 'arc') {
    const between = subtract(b.centre, a.centre)
    return norm(between) > 0 ? [between] : []
  }
  const straight = a.kind === 'line' ? a : b
  const along = subtract(straight.to, straight.from)
  return [{ x: -along.y, y: along.x }]
}

/** The places of an arc whose normal lies along a direction. */
function placesFacing(piece: Piece, normal: Vec): Vec[] {
  if (piece.kind === 'line') return []
  return [1, -1].flatMap((sign) => {
    const direction = scale(normal, sign)
    if (parameterOfDirection(piece, direction) === undefined) return []
    return [add(piece.centre, scale(direction, radiusOf(piece) / norm(direction)))]
  })
}
