import {
  addPlaces,
  dotPlaces,
  place,
  scalePlace,
  subtractPlaces,
  type Place,
} from '@lathica/core/geometry'
import { Places, type SolidMesh } from '@lathica/core/mesh'
import type { SolidWay } from '@lathica/core/solid'
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three'
import { MeshBVH } from 'three-mesh-bvh'
import { KernelFault } from './fault'
import { wayBetweenShapes, wayFromPlace } from './measure'
import { meshOf } from './mesh'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade, type Shape } from './openCascade'

/** The cosine of 60°: a way that leaves a face less steeply than this measures no wall. */
const STEEP = 0.5

/** Triangles lie this share of the solid's extent from its faces, within the bounds in mm. */
const CHORD = 1 / 4000
const CHORDS = [0.002, 0.05] as const

/** Rays begin about this share of the extent apart, and there are no more of them than this. */
const SPACING = 1 / 120
const MOST_RAYS = 40_000

/** So many pairs of faces, those with the shortest rays, are looked at exactly. */
const MOST_PAIRS = 30
/** Rays that are longer than the shortest by this factor are not followed up. */
const WORTH = 1.5

/** Ways shorter than this, in mm, are none. */
const LEAST = 1e-6

/** A ray that went through the material from one face to another. */
interface Crossing {
  readonly from: number
  readonly to: number
  readonly length: number
  readonly start: Place
  readonly end: Place
}

/**
 * The least wall of a solid: the shortest way through the material between faces that do not meet. Rays go into the
 * material square to the triangles of a fine mesh; where they are shortest, the least distance of the two
 * faces is asked of the kernel, and taken where that way goes through material and leaves both faces steeply. Else the
 * ray itself counts, which is longer than the wall by no more than is told.
 * @param turned the least wall of the full turn, as two places of the half-section: it is exact where it is still there
 */
export function leastWallOf(
  oc: OpenCascade,
  solid: NamedSolid,
  turned: readonly [Turned, Turned] | undefined,
): SolidWay {
  const extent = extentOf(meshOf(oc, solid, 1e3))
  const chord = Math.min(CHORDS[1], Math.max(CHORDS[0], extent * CHORD))
  const fine = meshOf(oc, solid, chord)
  const look = new Look(fine)
  const meeting = meetingFaces(fine)
  const pairs = look.shortest(extent * SPACING, (a, b) => meeting.has(pairKey(a, b)))
  let best = turned && stillThere(look, turned, chord)
  const [first] = pairs
  const most = Math.min(first ? first.length * WORTH : Infinity, best?.distance ?? Infinity)
  for (const pair of pairs.slice(0, MOST_PAIRS)) {
    if (pair.length > most + 2 * chord) break
    const way = exactWay(oc, solid, look, pair) ?? {
      ...{ distance: pair.length, from: pair.start, to: pair.end, within: 2 * chord },
    }
    // What the full turn tells exactly is not told less exactly by a ray.
    const gains = best ? best.distance - way.distance : Infinity
    if (gains > (way.within === 0 ? LEAST : way.within)) best = way
  }
  if (best) return best
  throw new KernelFault(
    'kernel.noWall',
    'There is no wall to measure.',
    'Two faces that do not meet must face one another.',
  )
}

/** A place of the half-section. */
interface Turned {
  readonly x: number
  readonly y: number
}

/** The faces that meet in an edge, by their numbers: they have a side of triangles in common. */
function meetingFaces({ positions, indices, faces }: SolidMesh): Set<string> {
  const places = new Places()
  const numberOf = (v: number): number =>
    places.numberOf(positions[3 * v] ?? 0, positions[3 * v + 1] ?? 0, positions[3 * v + 2] ?? 0)
  const numbers = Array.from({ length: positions.length / 3 }, (_, v) => numberOf(v))
  const met = new Set<string>()
  const sides = new Map<string, number>()
  faces.forEach(({ start, count }, face) => {
    for (let i = start; i < start + count; i += 3) {
      for (let k = 0; k < 3; k++) {
        const [a = 0, b = 0] = [indices[i + k], indices[i + ((k + 1) % 3)]]
        const side = pairKey(numbers[a] ?? 0, numbers[b] ?? 0)
        const other = sides.get(side)
        if (other === undefined) sides.set(side, face)
        else if (other !== face) met.add(pairKey(other, face))
      }
    }
  })
  return met
}

const pairKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`)

/** The exact least distance of two faces, where it is a wall: through material, and steep to both. */
function exactWay(
  oc: OpenCascade,
  solid: NamedSolid,
  look: Look,
  pair: Crossing,
): SolidWay | undefined {
  const [a, b] = [solid.faces[pair.from], solid.faces[pair.to]]
  if (!a || !b) return undefined
  if (pair.from === pair.to) return acrossItself(oc, a.face, pair)
  const isWall = ({ distance, from, to }: SolidWay): boolean => {
    const through = scalePlace(subtractPlaces(to, from), 1 / distance)
    const leaves = -dotPlaces(look.normalAt(pair.from, from), through)
    const enters = dotPlaces(look.normalAt(pair.to, to), through)
    return leaves >= STEEP && enters >= STEEP && look.isInside(from, to)
  }
  const way = wayBetweenShapes(oc, a.face, b.face)
  if (way.distance < LEAST) return undefined
  if (isWall(way)) return way
  // Of faces that are as near all along, the kernel names one place, which may be at an edge or across a hole.
  if (pair.length > way.distance * ALIKE) return undefined
  for (const share of TOWARDS) {
    const near = addPlaces(scalePlace(way.from, 1 - share), scalePlace(pair.start, share))
    const beside = nearestFrom(oc, near, a.face, b.face, way.distance + LEAST)
    if (beside && isWall(beside)) return { ...beside, distance: way.distance }
  }
  return undefined
}

/** So often one goes to and fro between two faces. */
const ROUNDS = 40

/** A way between two faces that is no longer than so much, found from a place by going to and fro. */
function nearestFrom(
  oc: OpenCascade,
  start: Place,
  a: Shape,
  b: Shape,
  most: number,
): SolidWay | undefined {
  let at = start
  for (let i = 0; i < ROUNDS; i++) {
    const from = wayFromPlace(oc, at, a).to
    const way = wayFromPlace(oc, from, b)
    if (way.distance <= most) return way
    at = way.to
  }
  return undefined
}

/** A ray is no longer than this factor of the least distance where faces are as near all along. */
const ALIKE = 1.02
/** Shares of the way from the place that the kernel names to where the ray began. */
const TOWARDS = [0.1, 1, 0.5]

/** The way through a cylinder or a sphere across itself: its diameter. */
function acrossItself(
  oc: OpenCascade,
  face: NamedSolid['faces'][number]['face'],
  { start, end, length }: Crossing,
): SolidWay | undefined {
  return scoped((scope) => {
    const surface = scope.own(new oc.BRepAdaptor_Surface(scope.own(oc.TopoDS.Face(face)), true))
    const types = oc.GeomAbs_SurfaceType
    const kind = surface.GetType()
    const radius =
      kind === types.GeomAbs_Cylinder
        ? scope.own(surface.Cylinder()).Radius()
        : kind === types.GeomAbs_Sphere
          ? scope.own(surface.Sphere()).Radius()
          : undefined
    // A ray that was square to it went through its middle.
    if (radius === undefined || Math.abs(length - 2 * radius) > 0.02 * radius) return undefined
    return { distance: 2 * radius, from: start, to: end, within: 0 }
  })
}

/** So many angles about the axis are tried. */
const ANGLES = 48

/** The least wall of the full turn, at an angle where the solid still has it. */
function stillThere(
  look: Look,
  [p, q]: readonly [Turned, Turned],
  chord: number,
): SolidWay | undefined {
  for (let i = 0; i < ANGLES; i++) {
    // Odd angles, since what is milled tends to lie at even ones.
    const angle = (2 * Math.PI * (i + 0.37)) / ANGLES
    const [from, to] = [p, q].map(({ x, y }) => place(y * Math.cos(angle), y * Math.sin(angle), x))
    if (!from || !to) return undefined
    const way = subtractPlaces(to, from)
    const distance = Math.hypot(way.x, way.y, way.z)
    if (look.isInside(from, to) && look.isNear(from, 2 * chord) && look.isNear(to, 2 * chord)) {
      return { distance, from, to, within: 0 }
    }
  }
  return undefined
}

/** Where a way is looked at to tell whether it runs through material. */
const QUARTERS = [0.25, 0.5, 0.75]

/** A mesh that rays are sent through. */
class Look {
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
    const out = unit(this.mixed(this.mesh.normals, t, weights))
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
    return lengthOfCross(u, v) / 2
  }

  private flatNormal(t: number): Place {
    const [a, b, c] = this.cornersOf(t)
    const [u, v] = [subtractPlaces(b, a), subtractPlaces(c, a)]
    return unit(place(u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x))
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

function unit(way: Place): Place {
  const length = Math.hypot(way.x, way.y, way.z)
  return length > 0 ? scalePlace(way, 1 / length) : way
}

const lengthOfCross = (u: Place, v: Place): number =>
  Math.hypot(u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x)

/** How far a mesh goes from corner to corner of the box around it. */
function extentOf({ positions }: SolidMesh): number {
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  positions.forEach((v, i) => {
    low[i % 3] = Math.min(low[i % 3] ?? v, v)
    high[i % 3] = Math.max(high[i % 3] ?? v, v)
  })
  return Math.hypot(...high.map((v, k) => v - (low[k] ?? v)))
}
