import {
  addPlaces,
  dotPlaces,
  lengthOfPlace,
  place,
  scalePlace,
  subtractPlaces,
  type Place,
} from '@lathica/core/geometry'
import { Places, type SolidMesh } from '@lathica/core/mesh'
import type { SolidWay } from '@lathica/core/solid'
import { KernelFault } from './fault'
import { Look, STEEP, pairKey, type Crossing } from './look'
import { wayBetweenShapes, wayFromPlace } from './measure'
import { meshOf } from './mesh'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade, type Shape } from './openCascade'

/** Triangles lie this share of the solid's extent from its faces, within the bounds in mm. */
const CHORD = 1 / 4000
const CHORDS = [0.002, 0.05] as const

/** Rays begin about this share of the extent apart. */
const SPACING = 1 / 120

/** So many pairs of faces, those with the shortest rays, are looked at exactly. */
const MOST_PAIRS = 30
/** Rays that are longer than the shortest by this factor are not followed up. */
const WORTH = 1.5

/** Ways shorter than this, in mm, are none. */
const LEAST = 1e-6

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
    const distance = lengthOfPlace(way)
    if (look.isInside(from, to) && look.isNear(from, 2 * chord) && look.isNear(to, 2 * chord)) {
      return { distance, from, to, within: 0 }
    }
  }
  return undefined
}

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
