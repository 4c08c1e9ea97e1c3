import {
  edgeKey,
  inFrame,
  liesOnAxis,
  pointAt,
  type Frame,
  type Loop,
  type Region,
  type Vec,
} from '@lathica/core'
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

/** A face with its edges and their names; edges along the axis have none. */
export interface DrawnFace {
  readonly face: Shape
  readonly edges: readonly { readonly edge: Edge; readonly name: string | undefined }[]
}

/** A region as a plane face, its lines and arcs exact. */
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
  return { face: scope.own(maker.Face()), edges: drawn.flatMap((d) => d.edges) }
}

interface DrawnWire {
  readonly wire: InstanceType<OpenCascade['TopoDS_Wire']>
  readonly edges: DrawnFace['edges']
}

function drawnWire(oc: OpenCascade, loop: Loop, placing: Placing, scope: Scope): DrawnWire {
  const point = (at: Vec): Point => {
    const { x, y, z } = placing(at)
    return scope.own(new oc.gp_Pnt(x, y, z))
  }
  // Corners are shared, so that neighbours are joined without a search.
  const corners = loop.map(({ piece }) => {
    const at = point(piece.from)
    const maker = scope.own(new oc.BRepBuilderAPI_MakeVertex(at))
    return { at, vertex: scope.own(maker.Vertex()) }
  })
  const wire = scope.own(new oc.BRepBuilderAPI_MakeWire())
  const edges = loop.map((item, i) => {
    const [from, to] = [corners[i], corners[(i + 1) % corners.length]]
    if (!from || !to) throw new Error('a loop has no corners')
    const { piece } = item
    let maker: InstanceType<OpenCascade['BRepBuilderAPI_MakeEdge']>
    if (piece.kind === 'line') {
      maker = scope.own(new oc.BRepBuilderAPI_MakeEdge(from.vertex, to.vertex))
    } else {
      const middle = point(pointAt(piece, 0.5))
      const arc = scope.own(new oc.GC_MakeArcOfCircle(from.at, middle, to.at))
      const curve = scope.own(arc.Value())
      maker = scope.own(
        new oc.BRepBuilderAPI_MakeEdge(
          curve,
          from.vertex,
          to.vertex,
          curve.FirstParameter(),
          curve.LastParameter(),
        ),
      )
    }
    const edge = scope.own(maker.Edge())
    wire.Add(edge)
    return { edge, name: liesOnAxis(item) ? undefined : edgeKey(item.name) }
  })
  return { wire: scope.own(wire.Wire()), edges }
}
