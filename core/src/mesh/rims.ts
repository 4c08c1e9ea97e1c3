import type { Place } from '../geometry'
import { wholeKey } from '../names'
import type { SolidMesh } from './solid'

/** An edge of a solid or a stretch of it by the names of its two faces, and how far from a place it is, in mm. */
export interface RimNear {
  readonly key: string
  readonly far: number
}

/** The edge of a solid that is nearest to a place, within a reach in mm. */
export function rimNear({ edges, rims }: SolidMesh, at: Place, reach: number): RimNear | undefined {
  let best: RimNear | undefined
  for (const { key, start, count } of rims ?? []) {
    for (let i = start; i < start + count; i += 6) {
      const far = farFrom(edges, i, at)
      if (far <= reach && (!best || far < best.far)) best = { key, far }
    }
  }
  return best
}

/** The names of all stretches of an edge; none of one that is in one piece. */
export const stretchesOf = ({ rims }: SolidMesh, edge: string): string[] =>
  (rims ?? []).flatMap(({ key }) => (key !== edge && wholeKey(key) === edge ? [key] : []))

/** The lines of all edges and stretches of these names: x, y, z of both ends of every piece. */
export function rimLines({ edges, rims }: SolidMesh, keys: ReadonlySet<string>): Float32Array {
  const wanted = (rims ?? []).filter((r) => keys.has(r.key) || keys.has(wholeKey(r.key)))
  const out = new Float32Array(wanted.reduce((sum, r) => sum + r.count, 0))
  let at = 0
  for (const { start, count } of wanted) {
    out.set(edges.subarray(start, start + count), at)
    at += count
  }
  return out
}

/** How far a place is from the piece whose ends stand from a number on. */
function farFrom(edges: Float32Array, i: number, { x, y, z }: Place): number {
  const [ax = 0, ay = 0, az = 0, bx = 0, by = 0, bz = 0] = edges.subarray(i, i + 6)
  const [dx, dy, dz] = [bx - ax, by - ay, bz - az]
  const length = dx * dx + dy * dy + dz * dz || 1
  const share = ((x - ax) * dx + (y - ay) * dy + (z - az) * dz) / length
  const t = Math.min(1, Math.max(0, share))
  return Math.hypot(ax + t * dx - x, ay + t * dy - y, az + t * dz - z)
}
