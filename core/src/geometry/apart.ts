import { VERTEX_TOLERANCE } from '../tolerances'
import { meetingsOf } from './meetings'
import {
  nearestOn,
  parameterOfDirection,
  pointAt,
  radiusOf,
  type ArcPiece,
  type LinePiece,
  type Piece,
} from './piece'
import { derivativeOf, zerosOf } from './bernstein'
import { cubicAt, cubicFeet, type CubicPiece } from './cubic'
import { straightAcross } from './cubicMeetings'
import { add, dot, norm, scale, subtract, type Vec } from './vector'

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
  for (const place of placesSquareTo(a, b)) offer(fromPoint(place, b))
  for (const place of placesSquareTo(b, a)) offer(turned(fromPoint(place, a)))
  return best
}

/** From a point to the nearest place of a piece. */
export function fromPoint(p: Vec, piece: Piece): Apart {
  const found = nearestOn(piece, p)
  return { distance: found.distance, from: p, to: pointAt(piece, found.t) }
}

const turned = ({ distance: d, from, to }: Apart): Apart => ({ distance: d, from: to, to: from })

/** Places of a curve whose normal may be one of another piece too, where neither is at an end. */
function placesSquareTo(a: Piece, b: Piece): Vec[] {
  switch (a.kind) {
    case 'line':
      return []
    case 'arc': {
      // The shared normal goes through an arc's centre.
      if (b.kind === 'line') return facing(a, normalOf(b))
      if (b.kind === 'arc') return facing(a, subtract(b.centre, a.centre))
      return cubicFeet(b.on, a.centre).flatMap((s) =>
        facing(a, subtract(cubicAt(b.on, s), a.centre)),
      )
    }
    case 'cubic': {
      if (b.kind === 'line') return cubicPlacesFacing(a, normalOf(b))
      if (b.kind === 'arc') return cubicFeet(a.on, b.centre).flatMap((s) => within(a, s))
      return placesAcross(a, b)
    }
  }
}

/** Looks along a cubic for where it is near another, and how many of them are followed up. */
const LOOKS = 32
const FOLLOWED = 4

/** Places of a cubic next to the nearest ones to another: looked for along it, then by Newton's steps. */
function placesAcross(a: CubicPiece, b: CubicPiece): Vec[] {
  const looks = Array.from({ length: LOOKS + 1 }, (_, i) => {
    const t = i / LOOKS
    const near = nearestOn(b, pointAt(a, t))
    return { t, u: near.t, distance: near.distance }
  })
  const nearest = [...looks].sort((p, q) => p.distance - q.distance).slice(0, FOLLOWED)
  return nearest.flatMap((start) => {
    // To the other and back again draws nearer with every step.
    let { t, u } = start
    for (let i = 0; i < 8; i++) {
      t = nearestOn(a, pointAt(b, u)).t
      u = nearestOn(b, pointAt(a, t)).t
    }
    const found = straightAcross(a, b, { t, u })
    return [pointAt(a, start.t), pointAt(a, t), ...(found ? [pointAt(a, found.t)] : [])]
  })
}

function normalOf({ from, to }: LinePiece): Vec {
  const along = subtract(to, from)
  return { x: -along.y, y: along.x }
}

/** The places of an arc whose normal lies along a direction. */
function facing(piece: ArcPiece, normal: Vec): Vec[] {
  if (norm(normal) === 0) return []
  return [1, -1].flatMap((sign) => {
    const direction = scale(normal, sign)
    if (parameterOfDirection(piece, direction) === undefined) return []
    return [add(piece.centre, scale(direction, radiusOf(piece) / norm(direction)))]
  })
}

function cubicPlacesFacing(piece: CubicPiece, normal: Vec): Vec[] {
  const along = piece.on.map((p) => dot(p, normal))
  return zerosOf(derivativeOf(along)).flatMap((s) => within(piece, s))
}

function within(piece: CubicPiece, s: number): Vec[] {
  const t = (s - piece.start) / (piece.end - piece.start)
  return t > 0 && t < 1 ? [cubicAt(piece.on, s)] : []
}
