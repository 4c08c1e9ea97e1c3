import {
  add,
  addPlaces,
  controlOf,
  crossPlaces,
  inFrame,
  pointAt,
  radiusOf,
  scalePlace,
  subtract,
  type CubicPiece,
  type Frame,
  type Piece,
  type Place,
  type Vec,
} from '@lathica/core/geometry'
import { edgeKey, liesOnAxis, type Loop, type Region } from '@lathica/core/section'
import { KernelFault } from './fault'
import type { Edge, OpenCascade, Point, Scope, Shape } from './openCascade'

/** How the two coordinates of an outline lie in space. */
export type Placing = (at: Vec) => { readonly x: number; readonly y: number; readonly z: number }

/** Half-section: x along the frame's third direction, y out along its first. */
export const asSection =
  (frame: Frame): Placing =>
  ({ x, y }) =>
    inFrame(frame, { x: y, y: 0, z: x })

/** Outline across the frame: x and y along its first two directions, at a height along the third. */
export const asOutline =
  (frame: Frame, height: number): Placing =>
  ({ x, y }) =>
    inFrame(frame, { x, y, z: height })

/** A face with its edges and their names. */
export interface DrawnFace {
  readonly face: Shape
  /** The outline without its hollows. */
  readonly wire: InstanceType<OpenCascade['TopoDS_Wire']>
  readonly edges: readonly {
    readonly edge: Edge
    readonly name: string
    /** Of a half-section: an edge along the axis makes no face. */
    readonly onAxis: boolean
  }[]
}

/** A region as a plane face, its lines, arcs and cubics exact. */
export function drawnFace(
  oc: OpenCascade,
  { outer, holes }: Region,
  placing: Placing,
  scope: Scope,
): DrawnFace {
  const drawn = [outer, ...holes].map((loop) => drawnWire(oc, loop, placing, scope))
  const [first, ...more] = drawn
  if (!first) throw new KernelFault('kernel.outline', 'An outline has no edges.', 'Draw it again.')
  const maker = scope.own(new oc.BRepBuilderAPI_MakeFace(first.wire, true))
  for (const { wire } of more) maker.Add(wire)
  if (!maker.IsDone()) {
    throw new KernelFault(
      'kernel.face',
      'The outline does not close to a face.',
      'See whether it crosses itself.',
    )
  }
  return {
    ...{ face: scope.own(maker.Face()), wire: first.wire },
    edges: drawn.flatMap((d) => d.edges),
  }
}

interface DrawnWire {
  readonly wire: InstanceType<OpenCascade['TopoDS_Wire']>
  readonly edges: DrawnFace['edges']
}

function drawnWire(oc: OpenCascade, loop: Loop, placing: Placing, scope: Scope): DrawnWire {
  // Corners are shared, so that neighbours are joined without a search.
  const corners = loop.map(({ piece }) => cornerAt(oc, piece.from, placing, scope))
  const wire = scope.own(new oc.BRepBuilderAPI_MakeWire())
  const edges = loop.map((item, i) => {
    const [from, to] = [corners[i], corners[(i + 1) % corners.length]]
    if (!from || !to) throw new Error('a loop has no corners')
    const { piece } = item
    const edge =
      piece.kind === 'arc' && loop.length === 1
        ? drawnCircle(oc, piece, placing, scope)
        : drawnEdge(oc, piece, from, to, placing, scope)
    wire.Add(edge)
    return { edge, name: edgeKey(item.name), onAxis: liesOnAxis(item) }
  })
  return { wire: scope.own(wire.Wire()), edges }
}

/** An open run of pieces as a wire. */
export function drawnPath(
  oc: OpenCascade,
  path: readonly Piece[],
  placing: Placing,
  scope: Scope,
): InstanceType<OpenCascade['TopoDS_Wire']> {
  const ends = path.flatMap((p, i) => (i === 0 ? [p.from, p.to] : [p.to]))
  const corners = ends.map((at) => cornerAt(oc, at, placing, scope))
  const wire = scope.own(new oc.BRepBuilderAPI_MakeWire())
  path.forEach((piece, i) => {
    const [from, to] = [corners[i], corners[i + 1]]
    if (from && to) wire.Add(drawnEdge(oc, piece, from, to, placing, scope))
  })
  return scope.own(wire.Wire())
}

interface Corner {
  readonly at: Point
  readonly vertex: InstanceType<OpenCascade['TopoDS_Vertex']>
}

function pointAtPlace(oc: OpenCascade, at: Vec, placing: Placing, scope: Scope): Point {
  const { x, y, z } = placing(at)
  return scope.own(new oc.gp_Pnt(x, y, z))
}

function cornerAt(oc: OpenCascade, at: Vec, placing: Placing, scope: Scope): Corner {
  const point = pointAtPlace(oc, at, placing, scope)
  const maker = scope.own(new oc.BRepBuilderAPI_MakeVertex(point))
  return { at: point, vertex: scope.own(maker.Vertex()) }
}

/** A whole circle as one edge that closes on itself, run through as its piece is. */
function drawnCircle(
  oc: OpenCascade,
  piece: Extract<Piece, { kind: 'arc' }>,
  placing: Placing,
  scope: Scope,
): Edge {
  const { centre } = piece
  const middle = placing(centre)
  // Its axis is told by how it goes on from two places a quarter apart.
  const spoke = (t: number): Place => addPlaces(placing(pointAt(piece, t)), scalePlace(middle, -1))
  const { x, y, z } = crossPlaces(spoke(0), spoke(0.25))
  const axis = scope.own(
    new oc.gp_Ax2(pointAtPlace(oc, centre, placing, scope), scope.own(new oc.gp_Dir(x, y, z))),
  )
  const circle = scope.own(new oc.gp_Circ(axis, radiusOf(piece)))
  return scope.own(scope.own(new oc.BRepBuilderAPI_MakeEdge(circle)).Edge())
}

/** A cubic by its control points, moved by a rounding so that it ends just where its piece does. */
function drawnCubic(
  oc: OpenCascade,
  piece: CubicPiece,
  placing: Placing,
  scope: Scope,
): InstanceType<OpenCascade['Geom_BezierCurve']> {
  const [a, b, c, d] = controlOf(piece)
  const poles = scope.own(new oc.NCollection_Array1_gp_Pnt(1, 4))
  const places = [
    piece.from,
    add(b, subtract(piece.from, a)),
    add(c, subtract(piece.to, d)),
    piece.to,
  ]
  places.forEach((at, i) => {
    poles.SetValue(i + 1, pointAtPlace(oc, at, placing, scope))
  })
  return scope.own(new oc.Geom_BezierCurve(poles))
}

function drawnEdge(
  oc: OpenCascade,
  piece: Piece,
  from: Corner,
  to: Corner,
  placing: Placing,
  scope: Scope,
): Edge {
  if (piece.kind === 'line') {
    const maker = scope.own(new oc.BRepBuilderAPI_MakeEdge(from.vertex, to.vertex))
    return scope.own(maker.Edge())
  }
  if (piece.kind === 'cubic') {
    const curve = drawnCubic(oc, piece, placing, scope)
    const maker = scope.own(new oc.BRepBuilderAPI_MakeEdge(curve, from.vertex, to.vertex, 0, 1))
    return scope.own(maker.Edge())
  }
  const middle = pointAtPlace(oc, pointAt(piece, 0.5), placing, scope)
  const arc = scope.own(new oc.GC_MakeArcOfCircle(from.at, middle, to.at))
  const curve = scope.own(arc.Value())
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()]
  const maker = scope.own(
    new oc.BRepBuilderAPI_MakeEdge(curve, from.vertex, to.vertex, first, last),
  )
  return scope.own(maker.Edge())
}
