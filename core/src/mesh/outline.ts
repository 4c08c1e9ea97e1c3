import type { Place } from '../geometry'
import type { MeshBends, SolidMesh } from './solid'
import { triangleNormals } from './normals'
import type { Eye } from './silhouette'

/** Bends between triangles of one face: those between faces are drawn as edges already. */
export function meshBends({ positions, indices, faces }: SolidMesh): MeshBends {
  const places: number[] = []
  const normals: number[] = []
  const flat = triangleNormals(positions, indices)
  for (const { start, count } of faces) {
    /** The triangle at the other side of an edge, by its first index, until the edge is met again. */
    const open = new Map<number, number>()
    for (let i = start; i < start + count; i++) {
      const first = i - (i % 3)
      const a = indices[i] ?? 0
      const b = indices[i % 3 === 2 ? first : i + 1] ?? 0
      const key = Math.min(a, b) * 0x4000000 + Math.max(a, b)
      const other = open.get(key)
      if (other === undefined) {
        open.set(key, first)
        continue
      }
      open.delete(key)
      // Flat faces have no outline inside.
      if (areLevel(flat, first, other)) continue
      for (const v of [a, b]) {
        for (let n = 0; n < 3; n++) places.push(positions[3 * v + n] ?? 0)
      }
      for (const t of [other, first]) {
        for (let n = 0; n < 3; n++) normals.push(flat[t + n] ?? 0)
      }
    }
  }
  return { places: new Float32Array(places), normals: new Float32Array(normals) }
}

const areLevel = (flat: Float32Array, s: number, t: number): boolean =>
  Math.abs((flat[s] ?? 0) - (flat[t] ?? 0)) < 1e-4 &&
  Math.abs((flat[s + 1] ?? 0) - (flat[t + 1] ?? 0)) < 1e-4 &&
  Math.abs((flat[s + 2] ?? 0) - (flat[t + 2] ?? 0)) < 1e-4

/** The outline of a mesh as it is seen: pairs of places where it turns away from the eye. */
export function meshOutline({ places, normals }: MeshBends, eye: Eye): Float32Array {
  const found: number[] = []
  for (let i = 0; i < places.length; i += 6) {
    const way = wayTo(eye, places, i)
    const facing = (k: number): number =>
      (normals[k] ?? 0) * way.x + (normals[k + 1] ?? 0) * way.y + (normals[k + 2] ?? 0) * way.z
    if (facing(i) > 0 !== facing(i + 3) > 0) {
      for (let k = i; k < i + 6; k++) found.push(places[k] ?? 0)
    }
  }
  return new Float32Array(found)
}

/** Towards the eye from a place. */
function wayTo(eye: Eye, places: Float32Array, i: number): Place {
  if ('along' in eye) return { x: -eye.along.x, y: -eye.along.y, z: -eye.along.z }
  const { x, y, z } = eye.at
  return { x: x - (places[i] ?? 0), y: y - (places[i + 1] ?? 0), z: z - (places[i + 2] ?? 0) }
}
