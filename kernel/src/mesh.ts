import {
  creased,
  hangingTogether,
  meetingKey,
  stretchKey,
  stretchesInOrder,
  type BareMesh,
  type SolidMesh,
} from '@lathica/core'
import { KernelFault } from './fault'
import type { NamedSolid } from './named'
import { scoped, type OpenCascade, type Shape } from './openCascade'

const FILE = '/out.stl'

/** Chords turn by at most this, in radians: round things read as round however small they are. */
const LARGEST_BEND = 0.35

/** Faces that bend less than this, in radians, at an edge are smooth there, and it is not drawn. */
const SMOOTH = 0.02

/**
 * Triangles of a solid within a tolerance in mm or finer ones made before, face by face, and its edges
 * as lines. Vertices of neighbouring faces lie at equal places, so the mesh is watertight once equal
 * places are one. They come out as a file: asked for one by one, every place and triangle would leave
 * some memory behind.
 */
export function meshOf(oc: OpenCascade, solid: NamedSolid, tolerance: number): SolidMesh {
  scoped((scope) => {
    scope.own(new oc.BRepMesh_IncrementalMesh(solid.shape, tolerance, false, LARGEST_BEND, false))
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
  const known = new Map<string, number>()
  const places: number[] = []
  const number = (i: number): number => {
    const [x = 0, y = 0, z = 0] = corners.subarray(3 * i, 3 * i + 3)
    const key = placeKey(x, y, z)
    const found = known.get(key)
    if (found !== undefined) return found
    known.set(key, known.size)
    places.push(x, y, z)
    return known.size - 1
  }
  const indices: number[] = []
  for (let i = 0; i < corners.length / 3; i += 3) {
    const [a, b, c] = [number(i), number(i + 1), number(i + 2)]
    if (a !== b && b !== c && c !== a) indices.push(a, b, c)
  }
  return { positions: Float32Array.from(places), indices: Uint32Array.from(indices) }
}

/** Equal for equal places; nought has no sign. */
const placeKey = (x: number, y: number, z: number): string => `${x + 0} ${y + 0} ${z + 0}`

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

/** A piece of an edge, and of each face beside it the name and how it faces there. */
interface Bordering {
  readonly places: readonly number[]
  readonly beside: { readonly name: string; readonly normal: readonly number[] }[]
}

/** The edges as pairs of places: each once, and not where its two faces run smoothly on. */
function edgeLines(pieces: readonly Piece[]): Required<Pick<SolidMesh, 'edges' | 'rims'>> {
  const pairs = new Map<string, Bordering>()
  for (const piece of pieces) {
    const { name, edges } = piece
    const normalAt = normalsOf(piece)
    for (let i = 0; i < edges.length; i += 6) {
      const [ax = 0, ay = 0, az = 0, bx = 0, by = 0, bz = 0] = edges.subarray(i, i + 6)
      const ends = [placeKey(ax, ay, az), placeKey(bx, by, bz)] as const
      const key = [...ends].sort().join(' ')
      const found = pairs.get(key) ?? { places: [ax, ay, az, bx, by, bz], beside: [] }
      found.beside.push({ name, normal: normalAt(ends[0]) })
      pairs.set(key, found)
    }
  }
  const byFaces = new Map<string, EdgePiece[]>()
  for (const { places, beside } of pairs.values()) {
    const [a, b] = beside
    // What has one side only is a sharp bend within a face.
    if (!a || !b) continue
    const facing = a.normal.reduce((sum, x, k) => sum + x * (b.normal[k] ?? 0), 0)
    const key = meetingKey(a.name, b.name)
    const own = byFaces.get(key) ?? []
    own.push({ places, isSmooth: facing > Math.cos(SMOOTH) })
    byFaces.set(key, own)
  }
  const lines: number[] = []
  const rims: NonNullable<SolidMesh['rims']>[number][] = []
  const add = (key: string, pieces: readonly EdgePiece[]): void => {
    const start = lines.length
    for (const { places, isSmooth } of pieces) if (!isSmooth) lines.push(...places)
    if (lines.length > start) rims.push({ key, start, count: lines.length - start })
  }
  for (const [key, own] of byFaces) {
    const stretches = stretchesAmong(own)
    if (stretches.length === 1) add(key, own)
    else stretches.forEach((stretch, i) => add(stretchKey(key, i + 1), stretch))
  }
  return { edges: Float32Array.from(lines), rims }
}

/** A straight piece of an edge: both its ends, and whether its faces run smoothly on there. */
interface EdgePiece {
  readonly places: readonly number[]
  readonly isSmooth: boolean
}

/** The stretches that pieces of one edge make up by hanging together, in the order they are counted. */
function stretchesAmong(pieces: readonly EdgePiece[]): readonly (readonly EdgePiece[])[] {
  const stretches = hangingTogether(
    pieces,
    ({ places: [ax = 0, ay = 0, az = 0, bx = 0, by = 0, bz = 0] }) => [
      placeKey(ax, ay, az),
      placeKey(bx, by, bz),
    ],
  )
  if (stretches.length < 2) return stretches
  const order = stretchesInOrder(stretches.map((own) => own.flatMap((p) => p.places)))
  return order.map((i) => stretches[i] ?? [])
}

/** How a face looks at the places of its vertices. */
function normalsOf({ positions, normals }: Piece): (place: string) => readonly number[] {
  const known = new Map<string, number>()
  for (let i = 0; i < positions.length; i += 3) {
    known.set(placeKey(positions[i] ?? 0, positions[i + 1] ?? 0, positions[i + 2] ?? 0), i)
  }
  return (place) => {
    const i = known.get(place) ?? 0
    return [...normals.subarray(i, i + 3)]
  }
}
