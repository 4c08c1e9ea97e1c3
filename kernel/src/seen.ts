import { arc, line, vec, type Piece, type Vec } from '@lathica/core/geometry'
import type { SeenFrom } from '@lathica/core/drawing'
import { partsOf, scoped, type Edge, type OpenCascade, type Scope, type Shape } from './openCascade'

/**
 * Which way a drawing looks: towards the viewer, and to the right of the paper, in the part’s own directions. The side
 * of the half-section, its x, is up in all of them.
 */
const LOOKS: Readonly<
  Record<SeenFrom, readonly [readonly [number, number, number], readonly [number, number, number]]>
> = {
  along: [
    [0, 1, 0],
    [0, 0, 1],
  ],
  right: [
    [0, 0, 1],
    [0, -1, 0],
  ],
  left: [
    [0, 0, -1],
    [0, 1, 0],
  ],
}

/** How far a chord may lie from a curve that is no circle, in mm, and how many are tried at most. */
const CHORD = 0.005
const MOST_CHORDS = 256
/** What is shorter on the picture is no line, in mm. */
const SHORTEST = 1e-6

/**
 * Edges and silhouettes of solids that nothing hides, seen from far away: lines and arcs as such, other curves in
 * chords. In mm, x to the right and y upwards from the part’s axis.
 */
export function seenLines(oc: OpenCascade, shapes: readonly Shape[], from: SeenFrom): Piece[] {
  return scoped((scope) => {
    const [towards, right] = LOOKS[from]
    const origin = scope.own(new oc.gp_Pnt(0, 0, 0))
    const way = (xyz: readonly [number, number, number]) => scope.own(new oc.gp_Dir(...xyz))
    const looking = scope.own(new oc.gp_Ax2(origin, way(towards), way(right)))
    const algorithm = scope.own(new oc.HLRBRep_Algo())
    for (const shape of shapes) algorithm.Add(shape, 0)
    algorithm.Projector(scope.own(new oc.HLRAlgo_Projector(looking)))
    algorithm.Update()
    algorithm.Hide()
    const told = scope.own(new oc.HLRBRep_HLRToShape(algorithm))
    // Null where there are none of a kind, whatever the types say.
    const kinds = [told.VCompound(), told.OutLineVCompound()] as (Shape | null)[]
    return kinds.flatMap((compound) => {
      if (!compound || compound.IsNull()) return []
      const own = scope.own(compound)
      oc.BRepLib.BuildCurves3d(own)
      return [...partsOf(oc, own, 'EDGE', scope)].flatMap((edge) =>
        piecesOf(oc, scope.own(oc.TopoDS.Edge(edge)), scope),
      )
    })
  })
}

function piecesOf(oc: OpenCascade, edge: Edge, scope: Scope): Piece[] {
  const curve = scope.own(new oc.BRepAdaptor_Curve(edge))
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()]
  const at = (t: number): Vec => {
    const point = curve.EvalD0(first + (last - first) * t)
    const place = vec(point.X(), point.Y())
    point.delete()
    return place
  }
  const { GeomAbs_CurveType: kinds } = oc
  const kind = curve.GetType()
  if (kind === kinds.GeomAbs_Line) return longEnough([line(at(0), at(1))])
  if (kind === kinds.GeomAbs_Circle) {
    const circle = scope.own(curve.Circle())
    const place = scope.own(circle.Location())
    const centre = vec(place.X(), place.Y())
    const [a, m, b] = [at(0), at(0.5), at(1)]
    const turn = (m.x - a.x) * (b.y - m.y) - (m.y - a.y) * (b.x - m.x)
    // In two halves, so that a full circle has two ends.
    const counterClockwise = turn !== 0 ? turn > 0 : true
    return [arc(a, m, centre, counterClockwise), arc(m, b, centre, counterClockwise)]
  }
  return longEnough(chords(at))
}

const longEnough = (pieces: readonly Piece[]): Piece[] =>
  pieces.filter(({ from, to }) => Math.hypot(from.x - to.x, from.y - to.y) > SHORTEST)

/** Chords of a curve, twice as many until they lie close to it. */
function chords(at: (t: number) => Vec): Piece[] {
  for (let count = 8; ; count *= 2) {
    const points = Array.from({ length: count + 1 }, (_, i) => at(i / count))
    const off = points.slice(1).map((b, i) => {
      const a = points[i] ?? b
      const m = at((i + 0.5) / count)
      return Math.hypot(m.x - (a.x + b.x) / 2, m.y - (a.y + b.y) / 2)
    })
    if (Math.max(...off) <= CHORD || count >= MOST_CHORDS) {
      return points.slice(1).map((b, i) => line(points[i] ?? b, b))
    }
  }
}
