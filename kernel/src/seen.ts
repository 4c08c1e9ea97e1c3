import { arc, line, pointAt, vec, type Piece, type Vec } from '@lathica/core/geometry'
import type { Look, Seen, SeenFrom } from '@lathica/core/drawing'
import { boxOf } from './combine'
import {
  partsOf,
  scoped,
  type Edge,
  type OpenCascade,
  type Point,
  type Scope,
  type Shape,
} from './openCascade'

type Way = readonly [number, number, number]

const [THIRD, HALF] = [1 / Math.sqrt(3), 1 / Math.sqrt(2)]

/**
 * Which way a drawing looks: towards the viewer, and to the right of the paper, in the part’s own directions. The side
 * of the half-section, its x, is up in all of them.
 */
const LOOKS: Readonly<Record<SeenFrom, readonly [Way, Way]>> = {
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
  // The side of the half-section stays upright, the axis rises to the right.
  askew: [
    [THIRD, THIRD, -THIRD],
    [0, HALF, HALF],
  ],
}

/** Up of the paper, of a way that is looked at. */
const upOf = ([a, b, c]: Way, [p, q, r]: Way): Way => [b * r - c * q, c * p - a * r, a * q - b * p]

/** How far a chord may lie from a curve that is no circle, in mm, and how many are tried at most. */
const CHORD = 0.005
const MOST_CHORDS = 256
/** What is shorter on the picture is no line, in mm. */
const SHORTEST = 1e-6

/**
 * Edges and silhouettes of solids that nothing hides, seen from far away: lines and arcs as such, other curves in
 * chords. In mm, x to the right and y upwards from the part’s axis.
 */
export function seenLines(oc: OpenCascade, shapes: readonly Shape[], look: Look): Seen {
  return scoped((scope) => {
    const { cut } = look
    if (!cut) return { lines: hiddenRemoved(oc, shapes, look.from), cuts: shapes.map(() => []) }
    const rest = shapes.map((shape, i) =>
      look.whole?.[i] === true ? shape : scope.own(cutAway(oc, shape, look.from, cut.at)),
    )
    return {
      lines: hiddenRemoved(oc, rest, look.from),
      cuts: rest.map((shape, i) =>
        look.whole?.[i] === true ? [] : cutOutlines(oc, shape, look.from, cut.at),
      ),
    }
  })
}

/** Larger than any part, in mm. */
const FAR = 1e5

/** A shape without what lies before a plane square to the way it is looked at. */
function cutAway(oc: OpenCascade, shape: Shape, from: SeenFrom, at: number): Shape {
  return scoped((scope) => {
    const box = boxOf(oc, [shape], scope)
    const far = box.IsVoid()
      ? FAR
      : Math.max(
          ...[box.GetXMin(), box.GetYMin(), box.GetZMin()].map(Math.abs),
          ...[box.GetXMax(), box.GetYMax(), box.GetZMax()].map(Math.abs),
          Math.abs(at),
        ) * 2
    const [towards] = LOOKS[from]
    // From the plane on to beyond all of it, and as wide.
    const corner = (side: 1 | -1): Point => {
      // Askew the quarter between the half-section and the reader.
      if (from === 'askew') {
        const near = side < 0 ? 0 : far
        return scope.own(new oc.gp_Pnt(near, near, side * far))
      }
      const [x, y, z] = towards.map((t) => (t === 0 ? side * far : side < 0 ? at : t * far))
      return scope.own(new oc.gp_Pnt(x ?? 0, y ?? 0, z ?? 0))
    }
    const [low, high] = [corner(-1), corner(1)]
    const before = scope.own(new oc.BRepPrimAPI_MakeBox(low, high))
    const cutting = scope.own(new oc.BRepAlgoAPI_Cut())
    const list = (one: Shape) => {
      const made = scope.own(new oc.NCollection_List_TopoDS_Shape())
      made.Append(one)
      return made
    }
    cutting.SetArguments(list(shape))
    cutting.SetTools(list(scope.own(before.Shape())))
    cutting.Build(scope.own(new oc.Message_ProgressRange()))
    return cutting.Shape()
  })
}

/** The edges of faces that lie in the plane of a cut. */
function cutOutlines(oc: OpenCascade, shape: Shape, from: SeenFrom, at: number): Piece[] {
  return scoped((scope) => {
    const [towards, right] = LOOKS[from]
    const up = upOf(towards, right)
    const along = (way: Way, p: Point): number => way[0] * p.X() + way[1] * p.Y() + way[2] * p.Z()
    const sign = towards[0] + towards[1] + towards[2]
    const isNear = (off: number): boolean => Math.abs(off) < IN_PLANE
    // Askew there are two planes, each on one side of the axis only.
    const planes: readonly ((p: Point) => boolean)[] =
      from === 'askew'
        ? [(p) => isNear(p.X()) && p.Y() > -IN_PLANE, (p) => isNear(p.Y()) && p.X() > -IN_PLANE]
        : [(p) => isNear(sign * along(towards, p) - at)]
    const edges = [...partsOf(oc, shape, 'FACE', scope)].flatMap((face) => {
      const own = [...partsOf(oc, face, 'EDGE', scope)].map((e) => scope.own(oc.TopoDS.Edge(e)))
      const liesIn = (isInPlane: (p: Point) => boolean): boolean =>
        own.every((edge) => {
          const curve = scope.own(new oc.BRepAdaptor_Curve(edge))
          const [a, b] = [curve.FirstParameter(), curve.LastParameter()]
          return [0, 0.3, 0.5, 1].every((t) => isInPlane(scope.own(curve.EvalD0(a + (b - a) * t))))
        })
      return own.length > 0 && planes.some(liesIn) ? own : []
    })
    const put = (p: Point): Vec => vec(along(right, p), along(up, p))
    // Circles are none where they are looked at askew.
    return onceOnly(edges.flatMap((edge) => piecesOf(oc, edge, scope, put, from !== 'askew')))
  })
}

/** In mm. */
const IN_PLANE = 1e-6

/** Without those that come twice: they part faces of one plane. */
function onceOnly(pieces: readonly Piece[]): Piece[] {
  const key = (p: Piece): string => {
    const m = pointAt(p, 0.5)
    return [m.x, m.y].map((c) => (c + 0).toFixed(5)).join(' ')
  }
  const counts = new Map<string, number>()
  for (const p of pieces) counts.set(key(p), (counts.get(key(p)) ?? 0) + 1)
  return pieces.filter((p) => counts.get(key(p)) === 1)
}

function hiddenRemoved(oc: OpenCascade, shapes: readonly Shape[], from: SeenFrom): Piece[] {
  return scoped((scope) => {
    const [towards, right] = LOOKS[from]
    const origin = scope.own(new oc.gp_Pnt(0, 0, 0))
    const way = (xyz: Way) => scope.own(new oc.gp_Dir(...xyz))
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

function piecesOf(
  oc: OpenCascade,
  edge: Edge,
  scope: Scope,
  put: (point: Point) => Vec = (p) => vec(p.X(), p.Y()),
  isSquare = true,
): Piece[] {
  const curve = scope.own(new oc.BRepAdaptor_Curve(edge))
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()]
  const at = (t: number): Vec => {
    const point = curve.EvalD0(first + (last - first) * t)
    const place = put(point)
    point.delete()
    return place
  }
  const { GeomAbs_CurveType: kinds } = oc
  const kind = curve.GetType()
  if (kind === kinds.GeomAbs_Line) return longEnough([line(at(0), at(1))])
  if (isSquare && kind === kinds.GeomAbs_Circle) {
    const circle = scope.own(curve.Circle())
    const place = scope.own(circle.Location())
    const centre = put(place)
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
