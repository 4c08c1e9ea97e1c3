import { place, subtractPlaces, unitPlace, type Place } from '@lathica/core/geometry'
import { edgeCalled, withoutCopy } from '@lathica/core/names'
import type { ShapeKind, SolidPlan, SolidShape, SolidSpot, SolidWay } from '@lathica/core/solid'
import { rimsOf } from './edges'
import { KernelFault } from './fault'
import { areaOfFaces } from './figures'
import type { NamedSolid } from './named'
import {
  compoundOf,
  scoped,
  type Edge,
  type Face,
  type OpenCascade,
  type Scope,
  type Shape,
} from './openCascade'
import { lineOf, placeOf } from './surfaces'

/** The axis is taken this far to both sides, in mm. */
const FAR = 1e5

/** The faces or edges of a solid that a name means. */
type Called =
  | { readonly kind: 'faces'; readonly faces: readonly Face[] }
  | { readonly kind: 'edges'; readonly edges: readonly Edge[] }

function calledOn(oc: OpenCascade, solid: NamedSolid, name: string, scope: Scope): Called {
  const edge = edgeCalled(name)
  if (edge) {
    const rims = rimsOf(oc, solid, { kind: 'faces', edges: [edge] }, scope)
    if (rims.length > 0) return { kind: 'edges', edges: rims.map((r) => r.edge) }
  }
  const own = solid.faces.filter((f) => f.name === name)
  // Sides of what is angular are copies of the one edge that they are in the half-section.
  const faces = own.length > 0 ? own : solid.faces.filter((f) => withoutCopy(f.name) === name)
  if (faces.length === 0) {
    throw new KernelFault(
      'kernel.gone',
      'What was picked is not on the solid any more.',
      'Measure again, or bring back the step that made it.',
    )
  }
  return { kind: 'faces', faces: faces.map((f) => scope.own(oc.TopoDS.Face(f.face))) }
}

/**
 * What a face or an edge is. Of several pieces of one name the first tells where it lies, all tell how large it is;
 * pieces that are not of one kind and size are a surface or a curve.
 */
export function shapeOf(oc: OpenCascade, solid: NamedSolid, name: string): SolidShape {
  return scoped((scope) => {
    const called = calledOn(oc, solid, name, scope)
    const pieces =
      called.kind === 'faces'
        ? called.faces.map((f) => faceShape(oc, f, scope))
        : called.edges.map((e) => edgeShape(oc, e, scope))
    const [first, ...more] = pieces
    if (!first) throw new KernelFault('kernel.gone', 'There is nothing there.', 'Pick it again.')
    const size =
      called.kind === 'faces'
        ? areaOfFaces(oc, called.faces, scope)
        : called.edges.reduce((sum, e) => sum + lengthOf(oc, e, scope), 0)
    const isOne = more.every(
      (p) => p.kind === first.kind && Math.abs(p.radius - first.radius) < 1e-7,
    )
    const plain: ShapeKind = called.kind === 'faces' ? 'surface' : 'curve'
    return isOne ? { ...first, size } : { ...first, kind: plain, radius: 0, size }
  })
}

type Bare = Omit<SolidShape, 'size'>

function faceShape(oc: OpenCascade, face: Face, scope: Scope): Bare {
  const surface = scope.own(new oc.BRepAdaptor_Surface(face, true))
  const types = oc.GeomAbs_SurfaceType
  const line = lineOf(oc, surface, scope)
  const on = { at: line?.at ?? place(0, 0, 0), way: line?.along ?? place(0, 0, 0) }
  switch (surface.GetType()) {
    case types.GeomAbs_Plane:
      return { kind: 'plane', ...on, radius: 0 }
    case types.GeomAbs_Cylinder:
      return { kind: 'cylinder', ...on, radius: scope.own(surface.Cylinder()).Radius() }
    case types.GeomAbs_Cone:
      return { kind: 'cone', ...on, radius: 0 }
    case types.GeomAbs_Torus:
      return { kind: 'torus', ...on, radius: 0 }
    case types.GeomAbs_Sphere: {
      const sphere = scope.own(surface.Sphere())
      const at = scope.own(sphere.Location())
      return { kind: 'sphere', at: placeOf(at), way: place(0, 0, 0), radius: sphere.Radius() }
    }
    default:
      return { kind: 'surface', ...on, radius: 0 }
  }
}

function edgeShape(oc: OpenCascade, edge: Edge, scope: Scope): Bare {
  const curve = scope.own(new oc.BRepAdaptor_Curve(edge))
  const types = oc.GeomAbs_CurveType
  const at = (t: number): Place => placeOf(scope.own(curve.Value(t)))
  const [from, to] = [at(curve.FirstParameter()), at(curve.LastParameter())]
  if (curve.GetType() === types.GeomAbs_Circle) {
    const circle = scope.own(curve.Circle())
    const axis = scope.own(circle.Axis())
    const [centre, way] = [scope.own(axis.Location()), scope.own(axis.Direction())]
    return { kind: 'circle', at: placeOf(centre), way: placeOf(way), radius: circle.Radius() }
  }
  const way = unitPlace(subtractPlaces(to, from))
  const isLine = curve.GetType() === types.GeomAbs_Line
  return { kind: isLine ? 'line' : 'curve', at: from, way, radius: 0 }
}

function lengthOf(oc: OpenCascade, edge: Edge, scope: Scope): number {
  const sums = scope.own(new oc.GProp_GProps())
  oc.BRepGProp.LinearProperties(edge, sums, false, false)
  return sums.Mass()
}

/** The shape that a spot is. @param build the solid of a plan */
function spotShape(
  oc: OpenCascade,
  spot: SolidSpot,
  build: (plan: SolidPlan) => NamedSolid,
  scope: Scope,
): Shape {
  const pointAt = (p: Place): InstanceType<OpenCascade['gp_Pnt']> =>
    scope.own(new oc.gp_Pnt(p.x, p.y, p.z))
  switch (spot.kind) {
    case 'on': {
      const solid = build(spot.plan)
      if (spot.name === '') return solid.shape
      const called = calledOn(oc, solid, spot.name, scope)
      const all: readonly Shape[] = called.kind === 'faces' ? called.faces : called.edges
      return compoundOf(oc, all, scope)
    }
    case 'at':
      return vertexAt(oc, spot.at, scope)
    case 'axis': {
      const ends = [place(0, 0, -FAR), place(0, 0, FAR)].map(pointAt)
      const [a, b] = ends
      if (!a || !b) throw noAnswer
      return scope.own(scope.own(new oc.BRepBuilderAPI_MakeEdge(a, b)).Edge())
    }
  }
}

/** The least distance between two spots, exact but for rounding. */
export const wayBetween = (
  oc: OpenCascade,
  from: SolidSpot,
  to: SolidSpot,
  build: (plan: SolidPlan) => NamedSolid,
): SolidWay =>
  scoped((scope) => {
    const [a, b] = [spotShape(oc, from, build, scope), spotShape(oc, to, build, scope)]
    return wayBetweenShapes(oc, a, b)
  })

/** The least distance between two shapes, exact but for rounding. */
export function wayBetweenShapes(oc: OpenCascade, a: Shape, b: Shape): SolidWay {
  return scoped((scope) => {
    const finder = scope.own(new oc.BRepExtrema_DistShapeShape())
    finder.LoadS1(a)
    finder.LoadS2(b)
    if (!finder.Perform() || !finder.IsDone() || finder.NbSolution() === 0) throw noAnswer
    const [p, q] = [scope.own(finder.PointOnShape1(1)), scope.own(finder.PointOnShape2(1))]
    return { distance: finder.Value(), from: placeOf(p), to: placeOf(q), within: 0 }
  })
}

/** The least distance from a place to a shape. */
export const wayFromPlace = (oc: OpenCascade, from: Place, to: Shape): SolidWay =>
  scoped((scope) => wayBetweenShapes(oc, vertexAt(oc, from, scope), to))

function vertexAt(oc: OpenCascade, { x, y, z }: Place, scope: Scope): Shape {
  const made = new oc.BRepBuilderAPI_MakeVertex(scope.own(new oc.gp_Pnt(x, y, z)))
  return scope.own(scope.own(made).Vertex())
}

const noAnswer = new KernelFault(
  'kernel.distance',
  'The kernel finds no least distance here.',
  'Measure between other faces or edges.',
)
