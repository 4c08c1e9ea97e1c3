import { crossPlaces, dotPlaces, place, scalePlace, subtractPlaces } from '../geometry'
import { nodeAt } from './nodes'
import type { ForeignFace, ForeignSolid, Line } from './types'

/**
 * The plane faces of a solid: the number of each from 1, x, y and z of a place on it in mm, and those
 * of its normal into the material.
 */
export function planesOf({ faces }: ForeignSolid): readonly (readonly number[])[] {
  return faces.flatMap((face, i) => {
    const plane = face.kind === 'plane' ? planeOf(face) : undefined
    if (!plane) return []
    const { at, along } = plane
    return [[i + 1, at.x, at.y, at.z, along.x, along.y, along.z].map((v) => v + 0)]
  })
}

/** A place on a plane face, and its normal into the material; undefined where it has no extent. */
export function planeOf({ axis, nodes, triangles }: ForeignFace): Line | undefined {
  let out = place(0, 0, 0)
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => nodeAt(nodes, triangles[i + k] ?? 0))
    if (!a || !b || !c) continue
    const area = crossPlaces(subtractPlaces(b, a), subtractPlaces(c, a))
    out = place(out.x + area.x, out.y + area.y, out.z + area.z)
  }
  const size = Math.hypot(out.x, out.y, out.z)
  if (size === 0) return undefined
  // The normal as the file tells it has all its digits; triangles tell which way material lies.
  const told = axis?.along ?? scalePlace(out, 1 / size)
  const along = dotPlaces(told, out) > 0 ? scalePlace(told, -1) : told
  return { at: axis?.at ?? nodeAt(nodes, 0), along }
}
