import { add, leftNormal, pointAt, scale, stretch, type Piece, type Vec } from '../../geometry'
import type { Section } from '../../section'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { partsOf } from './places'
import { facesOf, wallsOf, wayTo } from './ray'

/** What can be said of a face that is to be drawn out of a mould along the axis. */
export type DrawVerdict = 'fine' | 'steep' | 'undercut'

/** A stretch of a body's outline with its draw angle. */
export interface Drawn {
  readonly piece: Piece
  /** The angle between the face and the way it is drawn, in radians; negative where it is held back. */
  readonly angle: number
  /** 1 where it is drawn towards greater places along the axis, else −1. */
  readonly way: 1 | -1
  readonly verdict: DrawVerdict
}

/** So many stretches one edge is parted into, at least and at most. */
const PARTS = [8, 40] as const

/**
 * The draw angles of a section's faces when it is made in a mould that opens along the axis. What is seen from outside
 * is drawn away from the parting; hollows to the side on which they are open.
 * @param parting where the halves of the mould meet, in mm along the axis
 * @param least the least draw angle that is enough, in radians
 */
export function drawAngles(section: Section, parting: number, least: number): readonly Drawn[] {
  const faces = facesOf(section)
  const walls = wallsOf(faces)
  const ends = faces.flatMap((p) => [p.from, p.to])
  const size = Math.max(1, ...ends.map((p) => Math.abs(p.x) + Math.abs(p.y)))
  const far = 4 * size
  const isFree = (from: Vec, way: Vec): boolean => wayTo(walls, from, way, far) === far
  return faces
    .flatMap((whole) => stretchesOf(whole, parting))
    .map((piece): Drawn => {
      const at = pointAt(piece, 0.5)
      const outward = scale(leftNormal(piece, 0.5), -1)
      const start = add(at, scale(outward, LIFT))
      const own = at.x >= parting ? 1 : -1
      // What lies in the parting itself is drawn either way.
      const isParting = Math.abs(at.x - parting) <= VERTEX_TOLERANCE
      const isOutside = !isParting && isFree(start, { x: 0, y: 1 })
      const ways = isOutside ? [own] : [own, -own]
      const open = ways.filter((way) => isFree(start, { x: way, y: 0 }))
      const angles = open.map((way) => ({ way, angle: Math.asin(clamped(outward.x * way)) }))
      const [best] = angles.sort((a, b) => b.angle - a.angle)
      const angle = best?.angle ?? -Math.abs(Math.asin(clamped(outward.x)))
      const isHeld = !best || angle < -ROUNDING
      return {
        piece,
        angle,
        way: (best?.way ?? own) === 1 ? 1 : -1,
        verdict: isHeld ? 'undercut' : angle < least - ROUNDING ? 'steep' : 'fine',
      }
    })
}

/** How far off a face it is looked whether the way is free, in mm. */
const LIFT = 100 * VERTEX_TOLERANCE
/** Angles are told to this, in radians. */
const ROUNDING = 1e-9

const clamped = (v: number): number => Math.min(1, Math.max(-1, v))

/** A face in stretches along which its angle hardly changes, none of them on both sides of the parting. */
function stretchesOf(piece: Piece, parting: number): readonly Piece[] {
  const [a, b] = [piece.from, piece.to]
  // Of a straight face a part may stand in another's way, of a curved one the angle changes.
  const count = partsOf(piece, 1, PARTS)
  const shares = Array.from({ length: count + 1 }, (_, i) => i / count)
  if (piece.kind === 'line' && (a.x - parting) * (b.x - parting) < 0) {
    shares.push((parting - a.x) / (b.x - a.x))
  }
  const places = [...new Set(shares)]
    .sort((s, t) => s - t)
    .map((t) => (t === 0 ? a : t === 1 ? b : pointAt(piece, t)))
  return places.slice(1).map((to, i) => stretch(piece, places[i] ?? a, to))
}
