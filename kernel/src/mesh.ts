import type { BareMesh } from '@lathica/core/solid'
import { Places, creased, joinedPieces, type SolidMesh } from '@lathica/core/mesh'
import { KernelFault } from './fault'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade, type Shape } from './openCascade'

const FILE = '/out.stl'

/** Chords turn by at most this, in radians: round things read as round however small they are. */
const LARGEST_BEND = 0.35
/** So much of solids of many faces: a plane with hundreds of holes takes the square of their corners. */
const COARSE_BEND = 0.6
const MANY_FACES = 200

/**
 * Triangles of a solid within a tolerance in mm or finer ones made before, face by face, and its edges
 * as lines. Vertices of neighbouring faces lie at equal places, so the mesh is watertight once equal
 * places are one. They come out as a file: asked for one by one, every place and triangle would leave
 * some memory behind.
 */
export function meshOf(oc: OpenCascade, solid: NamedSolid, tolerance: number): SolidMesh {
  const bend = solid.faces.length > MANY_FACES ? COARSE_BEND : LARGEST_BEND
  scoped((scope) => {
    scope.own(new oc.BRepMesh_IncrementalMesh(solid.shape, tolerance, false, bend, false))
  })
  const counts = solid.faces.map(({ face }) => trianglesOn(oc, face))
  const corners = cornersOf(oc, solid.shape)
  if (corners.length !== 9 * counts.reduce((sum, n) => sum + n, 0)) throw notTold
  let at = 0
  const pieces = solid.faces.map(({ name }, i) => {
    const end = at + 9 * (counts[i] ?? 0)
    const face = creased(weldedPlaces(corners.subarray(at, end)))
    at = end
    return { name, ...face, lines: linesOf(face) }
  })
  return joinedPieces(pieces)
}

const notTold = new KernelFault(
  'kernel.mesh',
  'The picture of the solid could not be made.',
  'Change a size of the last step by a little.',
)

/** The lines round a face by the vertices at their ends: of several at one place the last. */
function linesOf({ positions, edges }: SolidMesh): Uint32Array {
  const places = new Places()
  const numberAt = (list: Float32Array, i: number): number =>
    places.numberOf(list[i] ?? 0, list[i + 1] ?? 0, list[i + 2] ?? 0)
  const vertexAt: number[] = []
  for (let i = 0; i < positions.length; i += 3) vertexAt[numberAt(positions, i)] = i / 3
  return Uint32Array.from(
    { length: edges.length / 3 },
    (_, end) => vertexAt[numberAt(edges, 3 * end)] ?? 0,
  )
}

/** How many triangles lie on a face. */
function trianglesOn(oc: OpenCascade, face: Shape): number {
  return scoped((scope) => {
    const location = scope.own(new oc.TopLoc_Location())
    const own = scope.own(oc.TopoDS.Face(face))
    // Null where the face could not be triangulated, whatever the types say.
    const found = oc.BRep_Tool.Triangulation(own, location, 0) as ReturnType<
      typeof oc.BRep_Tool.Triangulation
    > | null
    return found ? scope.own(found).NbTriangles() : 0
  })
}

/** The corners of all triangles of a shape, face after face: nine numbers to each. */
function cornersOf(oc: OpenCascade, shape: Shape): Float32Array {
  // A shape without triangles is not written.
  if (!oc.StlAPI.Write(shape, FILE, false)) return new Float32Array(0)
  const bytes = oc.FS.readFile(FILE) as Uint8Array
  oc.FS.unlink(FILE)
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const count = view.getUint32(80, true)
  const corners = new Float32Array(9 * count)
  for (let i = 0; i < count; i++) {
    // Before the corners of each stands its normal.
    const from = 84 + 50 * i + 12
    for (let k = 0; k < 9; k++) corners[9 * i + k] = view.getFloat32(from + 4 * k, true)
  }
  return corners
}

/** The triangles of one face with equal places as one; those that shrink to less are left out. */
function weldedPlaces(corners: Float32Array): BareMesh {
  const places = new Places()
  const indices: number[] = []
  const number = (i: number): number =>
    places.numberOf(corners[i] ?? 0, corners[i + 1] ?? 0, corners[i + 2] ?? 0)
  for (let i = 0; i < corners.length; i += 9) {
    const [a, b, c] = [number(i), number(i + 3), number(i + 6)]
    if (a !== b && b !== c && c !== a) indices.push(a, b, c)
  }
  return { positions: places.positions, indices: Uint32Array.from(indices) }
}
