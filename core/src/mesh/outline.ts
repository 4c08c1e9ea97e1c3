import type { Place } from '../geometry'
import type { SolidMesh } from './solid'
import type { Eye } from './silhouette'

/** Where the triangles of a mesh meet, to find its outline from any side. */
export interface MeshRims {
  /** Two places per rim, x, y, z each. */
  readonly places: Float32Array
  /** The normals of its two triangles, x, y, z each. */
  readonly normals: Float32Array
}

/** Rims between triangles of one face: those between faces are drawn as edges already. */
export function meshRims({ positions, indices, faces }: SolidMesh): MeshRims {
  const places: number[] = []
  const normals: number[] = []
  for (const { start, count } of faces) {
    const open = new Map<number, readonly number[]>()
    for (let i = start; i < start + count; i += 3) {
      const corners = [indices[i] ?? 0, indices[i + 1] ?? 0, indices[i + 2] ?? 0]
      const normal = normalOf(positions, corners)
      corners.forEach((a, k) => {
        const b = corners[(k + 1) % 3] ?? 0
        const key = Math.min(a, b) * 0x4000000 + Math.max(a, b)
        const other = open.get(key)
        if (!other) {
          open.set(key, normal)
          return
        }
        open.delete(key)
        // Flat faces have no outline inside.
        if (normal.every((x, n) => Math.abs(x - (other[n] ?? 0)) < 1e-4)) return
        places.push(
          ...positions.subarray(3 * a, 3 * a + 3),
          ...positions.subarray(3 * b, 3 * b + 3),
        )
        normals.push(...other, ...normal)
      })
    }
  }
  return { places: new Float32Array(places), normals: new Float32Array(normals) }
}

function normalOf(positions: Float32Array, [a = 0, b = 0, c = 0]: readonly number[]): number[] {
  const at = (v: number, k: number): number => positions[3 * v + k] ?? 0
  const [ux, uy, uz] = [at(b, 0) - at(a, 0), at(b, 1) - at(a, 1), at(b, 2) - at(a, 2)]
  const [vx, vy, vz] = [at(c, 0) - at(a, 0), at(c, 1) - at(a, 1), at(c, 2) - at(a, 2)]
  const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
  const length = Math.hypot(...n) || 1
  return n.map((x) => x / length)
}

/** The outline of a mesh as it is seen: pairs of places where it turns away from the eye. */
export function meshOutline({ places, normals }: MeshRims, eye: Eye): Float32Array {
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
