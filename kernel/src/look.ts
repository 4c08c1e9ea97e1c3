import {
  addPlaces,
  crossPlaces,
  dotPlaces,
  lengthOfPlace,
  place,
  scalePlace,
  subtractPlaces,
  unitPlace,
  type Place,
} from '@lathica/core/geometry'
import type { SolidMesh } from '@lathica/core/mesh'
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three'
import { MeshBVH } from 'three-mesh-bvh'

/** The cosine of 60°: a way that leaves a face less steeply than this measures no wall. */
export const STEEP = 0.5

/** There are no more rays than this. */
const MOST_RAYS = 40_000

/** A ray that went through the material from one face to another. */
export interface Crossing {
  readonly from: number
  readonly to: number
  readonly length: number
  readonly start: Place
  readonly end: Place
}

/** What two faces are known by together, whichever is told first. */
export const pairKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`)

/** Where a way is looked at to tell whether it runs through material. */
const QUARTERS = [0.25, 0.5, 0.75]

/** A mesh that rays are sent through. */
export class Look {
  private readonly tree: MeshBVH
  /** The number of the face of each triangle. */
  private readonly faceOf: Uint32Array

  constructor(private readonly mesh: SolidMesh) {
    const geometry = new BufferGeometry()
    geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3))
    geometry.setIndex(new BufferAttribute(mesh.indices, 1))
    this.tree = new MeshBVH(geometry, { indirect: true })
    this.faceOf = new Uint32Array(mesh.indices.length / 3)
    mesh.faces.forEach(({ start, count }, face) => {
      this.faceOf.fill(face, start / 3, (start + count) / 3)
    })
  }

  /**
   * The shortest ray between each two faces that do not meet, the shortest pair first.
   * @param spacing about how far apart rays begin, in mm
   */
  shortest(spacing: number, meet: (a: number, b: number) => boolean): Crossing[] {
    const { indices } = this.mesh
    const best = new Map<string, Crossing>()
    const counts = Float64Array.from({ length: indices.length / 3 }, (_, t) => this.areaOf(t))
    const wished = counts.reduce((sum, area) => sum + 1 + area / spacing ** 2, 0)
    const each = spacing ** 2 * Math.max(1, wished / MOST_RAYS)
    for (let t = 0; t < counts.length; t++) {
      const count = 4 + Math.floor((counts[t] ?? 0) / each)
      for (let i = 0; i < count; i++) this.send(t, i, meet, best)
    }
    return [...best.values()].sort((a, b) => a.length - b.length)
  }

  private send(
    t: number,
    i: number,
    meet: (a: number, b: number) => boolean,
    best: Map<string, Crossing>,
  ): void {
    const weights = weightsOf(i)
    const at = this.mixed(this.mesh.positions, t, weights)
    const out = unitPlace(this.mixed(this.mesh.normals, t, weights))
    const into = scalePlace(out, -1)
    const start = addPlaces(at, scalePlace(into, 1e-4))
    const hit = this.tree.raycastFirst(rayOf(start, into), DoubleSide)
    if (!hit) return
    const other = hit.faceIndex ?? 0
    const [from, to] = [this.faceOf[t] ?? 0, this.faceOf[other] ?? 0]
    if (from !== to && meet(from, to)) return
    const end = place(hit.point.x, hit.point.y, hit.point.z)
    // What lies beside where it began is the same bend of one face.
    if (dotPlaces(this.flatNormal(other), into) < STEEP) return
    const key = pairKey(from, to)
    const known = best.get(key)
    const length = hit.distance + 1e-4
    if (!known || length < known.length) best.set(key, { from, to, length, start: at, end })
  }

  /** The normal of a face near a place on it, out of the material. */
  normalAt(face: number, at: Place): Place {
    const { start = 0, count = 0 } = this.mesh.faces[face] ?? {}
    let [nearest, least] = [0, Infinity]
    for (let i = start; i < start + count; i++) {
      const v = this.mesh.indices[i] ?? 0
      const way = subtractPlaces(this.vertex(this.mesh.positions, v), at)
      const far = dotPlaces(way, way)
      if (far < least) [nearest, least] = [v, far]
    }
    return this.vertex(this.mesh.normals, nearest)
  }

  /** Whether a way between two places of the surface runs through material. */
  isInside(from: Place, to: Place): boolean {
    return QUARTERS.every((t) => this.holds(addPlaces(scalePlace(from, 1 - t), scalePlace(to, t))))
  }

  /** Whether a place lies in material: a ray from it meets the surface an odd number of times. */
  private holds(at: Place): boolean {
    const votes = ASKEW.filter((way) => {
      const hits = this.tree.raycast(rayOf(at, way), DoubleSide)
      const places = hits.map((h) => h.distance).sort((a, b) => a - b)
      // Where it goes through the side of two triangles it meets the surface once.
      const apart = places.filter((d, i) => i === 0 || d - (places[i - 1] ?? 0) > 1e-9)
      return apart.length % 2 === 1
    })
    return votes.length * 2 > ASKEW.length
  }

  /** Whether the surface comes this near to a place. */
  isNear(at: Place, reach: number): boolean {
    const found = this.tree.closestPointToPoint(new Vector3(at.x, at.y, at.z), undefined, 0, reach)
    return found !== null && found.distance <= reach
  }

  private areaOf(t: number): number {
    const [a, b, c] = this.cornersOf(t)
    const [u, v] = [subtractPlaces(b, a), subtractPlaces(c, a)]
    return lengthOfPlace(crossPlaces(u, v)) / 2
  }

  private flatNormal(t: number): Place {
    const [a, b, c] = this.cornersOf(t)
    const [u, v] = [subtractPlaces(b, a), subtractPlaces(c, a)]
    return unitPlace(crossPlaces(u, v))
  }

  private cornersOf(t: number): readonly [Place, Place, Place] {
    const at = (k: number): Place =>
      this.vertex(this.mesh.positions, this.mesh.indices[3 * t + k] ?? 0)
    return [at(0), at(1), at(2)]
  }

  private vertex(of: Float32Array, v: number): Place {
    return place(of[3 * v] ?? 0, of[3 * v + 1] ?? 0, of[3 * v + 2] ?? 0)
  }

  private mixed(of: Float32Array, t: number, weights: readonly number[]): Place {
    return weights.reduce(
      (sum, w, k) =>
        addPlaces(sum, scalePlace(this.vertex(of, this.mesh.indices[3 * t + k] ?? 0), w)),
      place(0, 0, 0),
    )
  }
}

/** Directions that run along nothing that is likely to be there. */
const ASKEW = [
  place(0.36, 0.48, 0.8),
  place(-0.7312, 0.2317, 0.6417),
  place(0.1873, -0.8901, 0.4156),
]

/** Near the corners of a triangle, then spread evenly over it. */
function weightsOf(i: number): readonly number[] {
  const near = 0.996
  const rest = (1 - near) / 2
  if (i < 3) return [0, 1, 2].map((k) => (k === i ? near : rest))
  // The fractional parts of multiples of two irrational numbers are spread evenly over a square.
  let [u, v] = [(0.5 + i * 0.7548776662466927) % 1, (0.5 + i * 0.5698402909980532) % 1]
  if (u + v > 1) [u, v] = [1 - u, 1 - v]
  return [1 - u - v, u, v]
}

const rayOf = (at: Place, way: Place): Ray =>
  new Ray(new Vector3(at.x, at.y, at.z), new Vector3(way.x, way.y, way.z).normalize())
