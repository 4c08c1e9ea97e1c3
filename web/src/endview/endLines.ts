import type { SolidMesh } from '@lathica/core/mesh'
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three'
import { MeshBVH } from 'three-mesh-bvh'

/** Edges as they are seen along the axis: runs of x, y pairs in the part's own x and y, in mm. */
export interface EndLines {
  readonly seen: readonly number[]
  readonly hidden: readonly number[]
  /** How far out they go. */
  readonly reach: number
}

type Edged = Pick<SolidMesh, 'positions' | 'normals' | 'indices' | 'edges'>

/** Long edges are looked at in pieces of this share of the part's size. */
const PIECE = 1 / 40

/** An edge is looked past on both sides, this share of the part's size beside it. */
const ASIDE = 2e-4

/**
 * The edges of bodies seen from one end, those that something stands before apart.
 * @param from the end one looks from: the greatest axial position or the least
 */
export function endLines(bodies: readonly Edged[], from: 'right' | 'left'): EndLines {
  const way = new Vector3(0, 0, from === 'right' ? 1 : -1)
  const trees = bodies.map(treeOf)
  let reach = 0
  for (const { positions } of bodies) {
    for (let i = 0; i < positions.length; i += 3) {
      reach = Math.max(reach, Math.hypot(positions[i] ?? 0, positions[i + 1] ?? 0))
    }
  }
  const [aside, longest] = [ASIDE * reach, PIECE * reach]
  const [seen, hidden]: [number[], number[]] = [[], []]
  const isFree = (at: Vector3): boolean => {
    const ray = new Ray(at, way)
    return trees.every((tree) => !tree.raycastFirst(ray, DoubleSide))
  }
  for (const body of bodies) {
    const edges = [...body.edges, ...silhouette(body, way.z)]
    for (let i = 0; i < edges.length; i += 6) {
      const a = new Vector3(edges[i], edges[i + 1], edges[i + 2])
      const b = new Vector3(edges[i + 3], edges[i + 4], edges[i + 5])
      const across = new Vector3(b.x - a.x, b.y - a.y, 0)
      const length = across.length()
      // What runs along the axis is a point from here.
      if (length < aside) continue
      const side = new Vector3(-across.y, across.x, 0).setLength(aside)
      const pieces = Math.ceil(length / longest)
      for (let k = 0; k < pieces; k++) {
        const [p, q] = [k, k + 1].map((n) => a.clone().lerp(b, n / pieces))
        if (!p || !q) continue
        const middle = p.clone().lerp(q, 0.5).addScaledVector(way, aside)
        const free = isFree(middle.clone().add(side)) || isFree(middle.clone().sub(side))
        ;(free ? seen : hidden).push(p.x, p.y, q.x, q.y)
      }
    }
  }
  return { seen, hidden, reach }
}

/** A surface along the axis does not turn away yet: normals nearer to square than this count as facing the eye. */
const ALONG = 1e-4

/**
 * Where a surface turns away from the eye within its faces: segments through the triangles whose normals look to both
 * sides, x, y, z by pairs.
 */
function silhouette({ positions, normals, indices }: Edged, way: number): number[] {
  const out: number[] = []
  const facing = (vertex: number): number => way * (normals[3 * vertex + 2] ?? 0)
  for (let i = 0; i < indices.length; i += 3) {
    const corners = [0, 1, 2].map((k) => indices[i + k] ?? 0)
    const away = corners.filter((v) => facing(v) < -ALONG).length
    if (away === 0 || away === 3) continue
    const ends: number[] = []
    corners.forEach((a, k) => {
      const b = corners[(k + 1) % 3] ?? a
      const [p, q] = [facing(a), facing(b)]
      if (p < -ALONG === q < -ALONG) return
      const share = Math.min(1, Math.max(0, p / (p - q)))
      for (let axis = 0; axis < 3; axis++) {
        const [from, to] = [positions[3 * a + axis] ?? 0, positions[3 * b + axis] ?? 0]
        ends.push(from + share * (to - from))
      }
    })
    if (ends.length === 6) out.push(...ends)
  }
  return out
}

const known = new WeakMap<Edged['positions'], MeshBVH>()

function treeOf({ positions, indices }: Edged): MeshBVH {
  const found = known.get(positions)
  if (found) return found
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(positions, 3))
  geometry.setIndex(new BufferAttribute(indices, 1))
  const tree = new MeshBVH(geometry, { indirect: true })
  known.set(positions, tree)
  return tree
}
