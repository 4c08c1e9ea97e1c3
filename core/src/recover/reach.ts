import {
  crossPlaces,
  dotPlaces,
  place,
  scalePlace,
  subtractPlaces,
  vec,
  type Place,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import { nodeAt } from './nodes'
import type { ForeignSolid, Line } from './types'

/** The normal of a plane along an axis goes along that by less than this. */
const PARALLEL = 1e-9

/** From where to where a solid goes along an axis, in mm. */
export function reachAlong(
  { faces }: ForeignSolid,
  { at, along }: Line,
): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity]
  for (const { nodes } of faces) {
    for (let i = 0; i < nodes.length / 3; i++) {
      const p = nodeAt(nodes, i)
      const x = (p.x - at.x) * along.x + (p.y - at.y) * along.y + (p.z - at.z) * along.z
      low = Math.min(low, x)
      high = Math.max(high, x)
    }
  }
  return [low, high]
}

/** How far a solid goes out from an axis, in mm. */
export function reachOut({ faces }: ForeignSolid, { at, along }: Line): number {
  let most = 0
  for (const { nodes } of faces) {
    for (let i = 0; i < nodes.length / 3; i++) {
      const p = nodeAt(nodes, i)
      const off = crossPlaces(place(p.x - at.x, p.y - at.y, p.z - at.z), along)
      most = Math.max(most, Math.hypot(off.x, off.y, off.z))
    }
  }
  return most
}

/** How near a solid comes to an axis, in mm; nought where the axis goes through it. */
export function leastRadius({ faces }: ForeignSolid, axis: Line): number {
  const seen = seenAlong(axis)
  let least = Infinity
  for (const { kind, axis: normal, nodes, triangles } of faces) {
    // Chords of what is round would come too near: there its points tell, which lie on it.
    const isStraight =
      kind === 'plane' && normal && Math.abs(dotPlaces(normal.along, axis.along)) < PARALLEL
    const places = Array.from({ length: nodes.length / 3 }, (_, i) => seen(nodeAt(nodes, i)))
    for (let i = 0; i < triangles.length; i += 3) {
      const corners = [0, 1, 2].map((k) => places[triangles[i + k] ?? 0] ?? vec(0, 0))
      least = Math.min(least, fromOrigin(corners, isStraight === true))
    }
  }
  return Number.isFinite(least) && least > VERTEX_TOLERANCE ? least : 0
}

/** Places as they are seen along an axis, which stands at nought. */
function seenAlong({ at, along }: Line): (p: Place) => Vec {
  const side = Math.abs(along.x) < 0.9 ? place(1, 0, 0) : place(0, 1, 0)
  const raw = crossPlaces(along, side)
  const across = scalePlace(raw, 1 / Math.hypot(raw.x, raw.y, raw.z))
  const up = crossPlaces(along, across)
  return (p) => {
    const off = subtractPlaces(p, at)
    return vec(dotPlaces(off, across), dotPlaces(off, up))
  }
}

/**
 * How far a triangle lies from the origin; nought where it covers it.
 * @param sides whether its sides count, or its corners alone
 */
function fromOrigin(corners: readonly Vec[], sides: boolean): number {
  let least = Infinity
  const turns = new Set<boolean>()
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length] ?? a
    const [dx, dy] = [b.x - a.x, b.y - a.y]
    const length = dx * dx + dy * dy
    const t = length === 0 || !sides ? 0 : Math.min(1, Math.max(0, -(a.x * dx + a.y * dy) / length))
    least = Math.min(least, Math.hypot(a.x + t * dx, a.y + t * dy))
    turns.add(a.x * b.y - a.y * b.x > 0)
  })
  return turns.size === 1 ? 0 : least
}
