import { faceName } from '@lathica/core/names'
import { unpackText, type FileTool } from '@lathica/core/solid'
import type { ForeignFace, ForeignSolid } from '@lathica/core/recover'
import { readFileSaid, saidOf, type FileSaid, type KnownBy } from '@lathica/core/formats'
import { KernelFault } from './fault'
import { bulkOf } from './figures'
import { handleTo, named, type NamedSolid } from './named'
import { lineOf, linesOn, splineOf } from './surfaces'
import { partsOf, scoped, type Face, type OpenCascade, type Scope, type Shape } from './openCascade'

const FILE = '/in.step'

/** Longer texts are refused before they are read: a part of a thousand faces takes about 1 MB. */
const LONGEST = 20_000_000

/** Points on curved faces turn by at most this, in radians. */
const BEND = 0.35
/** A face with hundreds of holes takes a time that grows with the square of their corners: then they get fewer. */
const COARSE_BEND = 0.8
const MANY_FACES = 200

/**
 * The solids of an exchange file (ISO 10303-21), in mm, as points on their faces.
 * @param tell is told before each solid, by its number from 1, of how many
 * @param inFile what the file says in words, if it was read already
 */
export function readSolids(
  oc: OpenCascade,
  text: string,
  tell: (solid: number, of: number) => void = () => undefined,
  inFile: FileSaid = readFileSaid(text),
): ForeignSolid[] {
  const { uncertainty } = inFile
  return scoped((scope) => {
    const solids = solidsIn(oc, text, scope)
    // An only one is known without looking at it.
    const isOnly = inFile.solids.length === 1
    const said = saidOf(
      inFile,
      solids.map((s) => (isOnly ? { faces: 0, corners: [] } : knownBy(oc, s, scope))),
    )
    return solids.map((solid, i) => {
      tell(i + 1, solids.length)
      const { name = '', colour = '' } = said[i] ?? {}
      return {
        ...{ ...foreignSolid(oc, solid, scope), name, colour },
        ...(uncertainty === undefined ? {} : { uncertainty }),
      }
    })
  })
}

/** What a solid is known by again in the text it came from. */
function knownBy(oc: OpenCascade, solid: Shape, scope: Scope): KnownBy {
  const corners = new Map<string, readonly number[]>()
  for (const shape of partsOf(oc, solid, 'VERTEX', scope)) {
    const at = scope.own(oc.BRep_Tool.Pnt(scope.own(oc.TopoDS.Vertex(shape))))
    const corner = [at.X(), at.Y(), at.Z()]
    corners.set(corner.map((v) => v.toFixed(6)).join(), corner)
  }
  const faces = [...partsOf(oc, solid, 'FACE', scope)].length
  return { faces, corners: [...corners.values()] }
}

/** One of the solids of a packed file. */
export function fileSolid(oc: OpenCascade, tool: FileTool, step: string): NamedSolid {
  return scoped((scope) => {
    const solid = solidsIn(oc, unpackText(tool.file), scope)[tool.solid]
    if (!solid) {
      throw new KernelFault(
        'kernel.fileSolid',
        'The file has no such solid.',
        'Bring the file in again.',
      )
    }
    const faces = [...partsOf(oc, solid, 'FACE', scope)].map((face, i) => ({
      face,
      name: faceName(step, `f${i + 1}`),
    }))
    return named(oc, handleTo(solid), faces, step, scope)
  })
}

function solidsIn(oc: OpenCascade, text: string, scope: Scope): Shape[] {
  if (text.length > LONGEST) {
    throw new KernelFault(
      'kernel.fileLarge',
      `The file has ${Math.round(text.length / 1e6)} million characters, more than can be read here.`,
      'Write it with fewer bodies.',
    )
  }
  // What stands before the first word that counts: a mark of the byte order, remarks.
  const from = /^\uFEFF?\s*(?:\/\*[\s\S]*?\*\/\s*)*/.exec(text)?.[0].length ?? 0
  if (!/^ISO-10303-21\s*;/.test(text.slice(from, from + 200))) {
    throw new KernelFault(
      'kernel.fileKind',
      'This is no exchange file of solids.',
      'Choose a STEP file: one that begins with ISO-10303-21.',
    )
  }
  oc.FS.writeFile(FILE, text.slice(from))
  try {
    const reader = scope.own(new oc.STEPControl_Reader())
    const status = reader.ReadFile(FILE)
    if (status !== oc.IFSelect_ReturnStatus.IFSelect_RetDone) throw broken
    reader.TransferRoots(scope.own(new oc.Message_ProgressRange()))
    if (reader.NbShapes() === 0) throw empty
    const shape = scope.own(reader.OneShape())
    const solids = [...partsOf(oc, shape, 'SOLID', scope)]
    return solids.length > 0 ? solids : sewn(oc, shape, scope)
  } finally {
    oc.FS.unlink(FILE)
  }
}

/** Surfaces joined within this, in mm, are one skin. */
const SEAM = 1e-3

/**
 * The solids that surfaces enclose, where a file holds these alone.
 * @throws KernelFault when there are none, or they leave gaps
 */
function sewn(oc: OpenCascade, shape: Shape, scope: Scope): Shape[] {
  if (partsOf(oc, shape, 'FACE', scope).next().done === true) throw empty
  const sewing = scope.own(new oc.BRepBuilderAPI_Sewing(SEAM))
  sewing.Add(shape)
  sewing.Perform(scope.own(new oc.Message_ProgressRange()))
  if (sewing.NbFreeEdges() > 0) {
    throw new KernelFault(
      'kernel.fileOpen',
      `The file holds surfaces that do not close to a solid: they end at ${sewing.NbFreeEdges()} free edges.`,
      'Close them where they come from, or write them as a solid.',
    )
  }
  const skin = scope.own(sewing.SewedShape())
  return [...partsOf(oc, skin, 'SHELL', scope)].map((shell) => {
    const maker = scope.own(new oc.BRepBuilderAPI_MakeSolid(scope.own(oc.TopoDS.Shell(shell))))
    const solid = scope.own(oc.TopoDS.Solid(scope.own(maker.Shape())))
    oc.BRepLib.OrientClosedSolid(solid)
    return solid
  })
}

const broken = new KernelFault(
  'kernel.fileBroken',
  'The file is broken and cannot be read.',
  'Write it again from where it came.',
)
const empty = new KernelFault(
  'kernel.fileEmpty',
  'The file holds no solid.',
  'Write it with solids, not with surfaces or lines alone.',
)

function foreignSolid(oc: OpenCascade, solid: Shape, scope: Scope): ForeignSolid {
  const box = scope.own(new oc.Bnd_Box())
  oc.BRepBndLib.Add(solid, box, false)
  const size = Math.max(1e-3, Math.sqrt(box.SquareExtent()))
  const shapes = [...partsOf(oc, solid, 'FACE', scope)]
  const bend = shapes.length > MANY_FACES ? COARSE_BEND : BEND
  scope.own(new oc.BRepMesh_IncrementalMesh(solid, size / 500, false, bend, false))
  const faces = shapes.map((face) => foreignFace(oc, oc.TopoDS.Face(face)))
  // Refined integrals are off by some 1e-7 where a free curve is turned, plain ones are not as long as it is one
  // cubic. Those of curves of several cubics are off by some 1e-5 unless they are refined, and of surfaces of poles
  // with weights by as much as 1e-4.
  const refining = faces.some(isOfSeveral)
    ? 'ofSeveral'
    : faces.some((f) => f.along?.length === 1)
      ? 'plain'
      : 'refined'
  return { faces, ...bulkOf(oc, solid, refining) }
}

/** Whether a face is turned from a curve of several cubics. */
const isOfSeveral = ({ spline }: ForeignFace): boolean => new Set(spline?.knots).size > 2

function foreignFace(oc: OpenCascade, face: Face): ForeignFace {
  return scoped((scope) => {
    const surface = scope.own(new oc.BRepAdaptor_Surface(face, true))
    const type = surface.GetType()
    const { GeomAbs_Plane, GeomAbs_Cylinder } = oc.GeomAbs_SurfaceType
    const kind = type === GeomAbs_Plane ? 'plane' : type === GeomAbs_Cylinder ? 'cylinder' : 'other'
    scope.own(face)
    const along = linesOn(oc, surface)
    const spline = splineOf(oc, surface, scope)
    return {
      ...{ kind, axis: lineOf(oc, surface, scope), ...trianglesOf(oc, face, scope) },
      ...(along.length > 0 ? { along } : {}),
      ...(spline ? { spline } : {}),
    }
  })
}

/** The triangles of a face, their places as exact as the kernel has them. */
function trianglesOf(
  oc: OpenCascade,
  face: Face,
  scope: Scope,
): Pick<ForeignFace, 'nodes' | 'triangles'> {
  const location = scope.own(new oc.TopLoc_Location())
  // Null where the face could not be triangulated, whatever the types say.
  const found = oc.BRep_Tool.Triangulation(face, location, 0) as ReturnType<
    typeof oc.BRep_Tool.Triangulation
  > | null
  if (!found) return { nodes: new Float64Array(0), triangles: new Uint32Array(0) }
  const own = scope.own(found)
  const moved = scope.own(location.Transformation())
  const nodes = new Float64Array(3 * own.NbNodes())
  for (let i = 1; i <= own.NbNodes(); i++) {
    const node = own.Node(i)
    if (!location.IsIdentity()) node.Transform(moved)
    nodes.set([node.X(), node.Y(), node.Z()], 3 * (i - 1))
    node.delete()
  }
  const turned = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED
  const triangles = new Uint32Array(3 * own.NbTriangles())
  for (let i = 1; i <= own.NbTriangles(); i++) {
    const triangle = own.Triangle(i)
    const [a, b, c] = [triangle.Value(1), triangle.Value(2), triangle.Value(3)]
    triangle.delete()
    triangles.set(turned ? [a - 1, c - 1, b - 1] : [a - 1, b - 1, c - 1], 3 * (i - 1))
  }
  return { nodes, triangles }
}
