import { meetingKey, stretchKey } from '@lathica/core/names'
import { hangingTogether, stretchesInOrder, type BareMesh } from '@lathica/core/solid'
import { Places, creased, type SolidMesh } from '@lathica/core/mesh'
import { KernelFault } from './fault'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade, type Shape } from './openCascade'

const FILE = '/out.stl'

/** Chords turn by at most this, in radians: round things read as round however small they are. */
const LARGEST_BEND = 0.35
/** So much of solids of many faces: a plane with hundreds of holes takes the square of their corners. */
const COARSE_BEND = 0.6
const MANY_FACES = 200

/** Faces that bend less than this, in radians, at an edge are smooth there, and it is not drawn. */
const SMOOTH = 0.02

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
    const piece = { name, ...creased(weldedPlaces(corners.subarray(at, end))) }
    at = end
    return piece
  })
  return { ...joined(pieces), ...edgeLines(pieces) }
}

const notTold = new KernelFault(
  'kernel.mesh',
  'The picture of the solid could not be made.',
  'Change a size of the last step by a little.',
)

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

type Piece = Pick<SolidMesh, 'positions' | 'normals' | 'indices' | 'edges'> & {
  readonly name: string
}

/** All faces as one mesh. */
function joined(pieces: readonly Piece[]): Omit<SolidMesh, 'edges' | 'rims'> {
  const vertices = pieces.reduce((sum, p) => sum + p.positions.length, 0)
  const corners = pieces.reduce((sum, p) => sum + p.indices.length, 0)
  const positions = new Float32Array(vertices)
  const normals = new Float32Array(vertices)
  const indices = new Uint32Array(corners)
  const faces: SolidMesh['faces'][number][] = []
  let [v, t] = [0, 0]
  for (const p of pieces) {
    positions.set(p.positions, v)
    normals.set(p.normals, v)
    for (let i = 0; i < p.indices.length; i++) indices[t + i] = (p.indices[i] ?? 0) + v / 3
    faces.push({ name: p.name, start: t, count: p.indices.length })
    v += p.positions.length
    t += p.indices.length
  }
  return { positions, normals, indices, faces }
}

/** A straight piece of an edge: both its ends by number, and of the faces beside it how they face at its first. */
interface EdgePiece {
  readonly ends: readonly [number, number]
  /** By number of the face, and where its normal stands among those of that face. */
  readonly beside: { readonly face: number; readonly normal: number }[]
}

/** The edges as pairs of places: each once, and not where its two faces run smoothly on. */
function edgeLines(pieces: readonly Piece[]): Required<Pick<SolidMesh, 'edges' | 'rims'>> {
  const places = new Places()
  const found = new Map<number, EdgePiece>()
  pieces.forEach(({ edges, positions }, face) => {
    const own = new Places()
    /** By number of a place of this face, its vertex that came last. */
    const vertexAt: number[] = []
    for (let i = 0; i < positions.length; i += 3) {
      vertexAt[own.numberOf(...tripleAt(positions, i))] = i
    }
    for (let i = 0; i < edges.length; i += 6) {
      const start = tripleAt(edges, i)
      const [a, b] = [places.numberOf(...start), places.numberOf(...tripleAt(edges, i + 3))]
      const key = Math.min(a, b) * 0x4000000 + Math.max(a, b)
      const piece = found.get(key) ?? { ends: [a, b], beside: [] }
      piece.beside.push({ face, normal: vertexAt[own.numberOf(...start)] ?? 0 })
      found.set(key, piece)
    }
  })
  const byFaces = new Map<string, EdgePiece[]>()
  for (const piece of found.values()) {
    const [a, b] = piece.beside
    // What has one side only is a sharp bend within a face.
    if (!a || !b) continue
    const key = meetingKey(pieces[a.face]?.name ?? '', pieces[b.face]?.name ?? '')
    const own = byFaces.get(key)
    if (own) own.push(piece)
    else byFaces.set(key, [piece])
  }
  const lines: number[] = []
  const rims: NonNullable<SolidMesh['rims']>[number][] = []
  const add = (key: string, own: readonly EdgePiece[]): void => {
    const start = lines.length
    for (const piece of own) {
      if (isSmoothAt(piece, pieces)) continue
      for (const end of piece.ends) lines.push(...tripleAt(places.positions, 3 * end))
    }
    if (lines.length > start) rims.push({ key, start, count: lines.length - start })
  }
  for (const [key, own] of byFaces) {
    const stretches = stretchesAmong(own, places.positions)
    if (stretches.length === 1) add(key, own)
    else stretches.forEach((stretch, i) => add(stretchKey(key, i + 1), stretch))
  }
  return { edges: Float32Array.from(lines), rims }
}

const tripleAt = (list: Float32Array, i: number): [number, number, number] => [
  list[i] ?? 0,
  list[i + 1] ?? 0,
  list[i + 2] ?? 0,
]

/** Whether the faces of a piece of an edge run smoothly on there. */
function isSmoothAt({ beside }: EdgePiece, pieces: readonly Piece[]): boolean {
  const [one, other] = beside.map(({ face, normal }) =>
    tripleAt(pieces[face]?.normals ?? new Float32Array(0), normal),
  )
  if (!one || !other) return false
  return one[0] * other[0] + one[1] * other[1] + one[2] * other[2] > Math.cos(SMOOTH)
}

/** The stretches that pieces of one edge make up by hanging together, in the order they are counted. */
function stretchesAmong(
  pieces: readonly EdgePiece[],
  positions: Float32Array,
): readonly (readonly EdgePiece[])[] {
  const stretches = hangingTogether(pieces, ({ ends }) => ends)
  if (stretches.length < 2) return stretches
  const order = stretchesInOrder(
    stretches.map((own) =>
      own.flatMap(({ ends }) => ends.flatMap((end) => tripleAt(positions, 3 * end))),
    ),
  )
  return order.map((i) => stretches[i] ?? [])
}
