import { place, type Place } from '@lathica/core/geometry'
import type { LiftedProperties } from '@lathica/core/solid'
import type { SolidMesh } from '@lathica/core/mesh'
import {
  compoundOf,
  partsOf,
  scoped,
  type OpenCascade,
  type Scope,
  type Shape,
} from './openCascade'

/**
 * Integrals are refined until they err by less than this share: faces that end where two cylinders
 * meet would be off by some 1e-6.
 */
const ERROR = 1e-9
/** The same where curves of several cubics are turned, which would be off by some 1e-7 with that. */
const ERROR_OF_SEVERAL = 1e-12

/** How integrals over what is bent are taken: as they are, refined, or refined for curves of several cubics. */
export type Refining = 'plain' | 'refined' | 'ofSeveral'

/**
 * Volume, area, centre and moments of a solid for a density of 1, in mm and its powers.
 * @param isTurned whether all of it is a full turn
 * @param mesh of the solid, which helps to tell how far out it goes
 * @returns undefined when nothing is left of it
 */
export function figuresOf(
  oc: OpenCascade,
  shape: Shape,
  isTurned: boolean,
  mesh?: SolidMesh,
): LiftedProperties | undefined {
  return scoped((scope) => {
    const pieces = [...partsOf(oc, shape, 'SOLID', scope)].length
    if (pieces === 0) return undefined
    const origin = scope.own(new oc.gp_Pnt(0, 0, 0))
    const inside = scope.own(new oc.GProp_GProps(origin))
    const bent = isTurned ? undefined : bentFaces(oc, shape, scope)
    // Integrals over the volume are taken from a place of the whole: they are not parted.
    if (bent) oc.BRepGProp.VolumeProperties(shape, inside, ERROR, false, false)
    else oc.BRepGProp.VolumeProperties(shape, inside, false, false, false)
    const volume = inside.Mass()
    const middle = scope.own(inside.CentreOfMass())
    const centre = place(middle.X(), middle.Y(), middle.Z())
    const about = (at: typeof middle, x: number, y: number, z: number): number => {
      const way = scope.own(new oc.gp_Dir(x, y, z))
      return inside.MomentOfInertia(scope.own(new oc.gp_Ax1(at, way)))
    }
    // The greatest moment across the axis is where the product of inertia vanishes.
    const [xx, yy] = [about(middle, 1, 0, 0), about(middle, 0, 1, 0)]
    const diagonal = about(middle, Math.SQRT1_2, Math.SQRT1_2, 0)
    const mean = (xx + yy) / 2
    const across = mean + Math.hypot((xx - yy) / 2, mean - diagonal)
    return {
      volume,
      area: areaFrom(oc, shape, bent, scope),
      centre,
      pieces,
      centreX: centre.z,
      inertiaAxis: about(origin, 0, 0, 1),
      inertiaAcross: across,
      ...boundsOf(oc, shape, mesh, scope),
    }
  })
}

/**
 * The volume of a shape in mm³, its surface in mm², and the middle of its volume.
 */
export function bulkOf(
  oc: OpenCascade,
  shape: Shape,
  refining: Refining,
): { readonly volume: number; readonly area: number; readonly centre: Place } {
  return scoped((scope) => {
    const bent = bentFaces(oc, shape, scope)
    const inside = scope.own(new oc.GProp_GProps())
    const error = refining === 'ofSeveral' ? ERROR_OF_SEVERAL : ERROR
    if (bent && refining !== 'plain') {
      oc.BRepGProp.VolumeProperties(shape, inside, error, false, false)
    } else oc.BRepGProp.VolumeProperties(shape, inside, false, false, false)
    const middle = scope.own(inside.CentreOfMass())
    return {
      volume: inside.Mass(),
      area: areaFrom(oc, shape, bent, scope),
      centre: place(middle.X(), middle.Y(), middle.Z()),
    }
  })
}

/** The area of some faces together in mm². */
export function areaOfFaces(oc: OpenCascade, faces: readonly Shape[], scope: Scope): number {
  const all = compoundOf(oc, faces, scope)
  return areaFrom(oc, all, bentFaces(oc, all, scope), scope)
}

function areaFrom(
  oc: OpenCascade,
  shape: Shape,
  bent: ReturnType<typeof bentFaces>,
  scope: Scope,
): number {
  const surface = scope.own(new oc.GProp_GProps())
  oc.BRepGProp.SurfaceProperties(bent?.plain ?? shape, surface, false, false)
  if (!bent) return surface.Mass()
  const more = scope.own(new oc.GProp_GProps())
  oc.BRepGProp.SurfaceProperties(bent.faces, more, ERROR, false)
  return surface.Mass() + more.Mass()
}

/**
 * The faces of a shape of which the plain integrals are not exact, and the others apart; undefined
 * where all are: planes, cylinders and cones whose edges are straight or circles.
 */
function bentFaces(
  oc: OpenCascade,
  shape: Shape,
  scope: Scope,
): { readonly plain: Shape; readonly faces: Shape } | undefined {
  const builder = scope.own(new oc.TopoDS_Builder())
  const plain = scope.own(new oc.TopoDS_Compound())
  const faces = scope.own(new oc.TopoDS_Compound())
  builder.MakeCompound(plain)
  builder.MakeCompound(faces)
  let found = false
  for (const face of partsOf(oc, shape, 'FACE', scope)) {
    const isBent = !isPlain(oc, face, scope)
    builder.Add(isBent ? faces : plain, face)
    found ||= isBent
  }
  return found ? { plain, faces } : undefined
}

function isPlain(oc: OpenCascade, face: Shape, scope: Scope): boolean {
  const { GeomAbs_SurfaceType: surfaces, GeomAbs_CurveType: curves } = oc
  const surface = scope.own(new oc.BRepAdaptor_Surface(scope.own(oc.TopoDS.Face(face)), true))
  const kind = surface.GetType()
  const isSimple =
    kind === surfaces.GeomAbs_Plane ||
    kind === surfaces.GeomAbs_Cylinder ||
    kind === surfaces.GeomAbs_Cone
  if (!isSimple) return false
  for (const edge of partsOf(oc, face, 'EDGE', scope)) {
    const own = scope.own(oc.TopoDS.Edge(edge))
    if (oc.BRep_Tool.Degenerated(own)) continue
    const curve = scope.own(new oc.BRepAdaptor_Curve(own)).GetType()
    if (curve !== curves.GeomAbs_Line && curve !== curves.GeomAbs_Circle) return false
  }
  return true
}

/** How far a solid goes along the axis, and out from it. */
function boundsOf(
  oc: OpenCascade,
  solid: Shape,
  mesh: SolidMesh | undefined,
  scope: Scope,
): { readonly from: number; readonly to: number; readonly radius: number } {
  const box = scope.own(new oc.Bnd_Box())
  oc.BRepBndLib.AddOptimal(solid, box, false, false)
  const [low, high] = [scope.own(box.CornerMin()), scope.own(box.CornerMax())]
  let reach = 0
  // Round edges begin and end at a place on them, and the mesh's vertices lie on the surface.
  for (const shape of partsOf(oc, solid, 'VERTEX', scope)) {
    const at = scope.own(oc.BRep_Tool.Pnt(scope.own(oc.TopoDS.Vertex(shape))))
    reach = Math.max(reach, Math.hypot(at.X(), at.Y()))
  }
  const positions = mesh?.positions ?? []
  for (let i = 0; i < positions.length; i += 3) {
    reach = Math.max(reach, Math.hypot(positions[i] ?? 0, positions[i + 1] ?? 0))
  }
  return { from: low.Z(), to: high.Z(), radius: reach }
}
