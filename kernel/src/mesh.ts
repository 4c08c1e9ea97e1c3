import { meetingKey, type SolidMesh } from '@lathica/core'
import type { NamedSolid } from './named'
import { partsOf, scoped, type Face, type OpenCascade, type Scope } from './openCascade'

/** Chords turn by at most this, in radians: round things read as round however small they are. */
const LARGEST_BEND = 0.35

/** Faces that bend less than this, in radians, at an edge are smooth there, and it is not drawn. */
const SMOOTH = 0.02

/**
 * Triangles of a solid within a tolerance in mm or finer ones made before, face by face, and its edges as lines. Vertices of
 * neighbouring faces lie at equal places, so the mesh is watertight once equal places are one.
 */
export function meshOf(oc: OpenCascade, solid: NamedSolid, tolerance: number): SolidMesh {
  return scoped((scope) => {
    scope.own(new oc.BRepMesh_IncrementalMesh(solid.shape, tolerance, false, LARGEST_BEND, false))
    const pieces = solid.faces.map(({ face, name }) => faceMesh(oc, oc.TopoDS.Face(face), name))
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
    return { positions, normals, indices, faces, ...edgeLines(pieces) }
  })
}

interface FaceMesh {
  readonly name: string
  readonly positions: Float64Array
  readonly normals: Float32Array
  readonly indices: Uint32Array
  /** Runs of vertices along the edges of the face; a seam is none. */
  readonly rims: readonly (readonly number[])[]
}

/** The triangles of one face; the face is given back. */
export function faceMesh(oc: OpenCascade, face: Face, name: string): FaceMesh {
  return scoped((scope) => {
    scope.own(face)
    const location = scope.own(new oc.TopLoc_Location())
    // Null where the face could not be triangulated, whatever the types say.
    const found = oc.BRep_Tool.Triangulation(face, location, 0) as ReturnType<
      typeof oc.BRep_Tool.Triangulation
    > | null
    if (!found) return { name, ...EMPTY }
    const triangles = scope.own(found)
    const moved = scope.own(location.Transformation())
    const count = triangles.NbNodes()
    const positions = new Float64Array(3 * count)
    for (let i = 1; i <= count; i++) {
      const node = triangles.Node(i)
      if (!location.IsIdentity()) node.Transform(moved)
      positions.set([node.X(), node.Y(), node.Z()], 3 * (i - 1))
      node.delete()
    }
    const turned = face.Orientation() === oc.TopAbs_Orientation.TopAbs_REVERSED
    const indices = new Uint32Array(3 * triangles.NbTriangles())
    for (let i = 1; i <= triangles.NbTriangles(); i++) {
      const triangle = triangles.Triangle(i)
      const [a, b, c] = [triangle.Value(1), triangle.Value(2), triangle.Value(3)]
      triangle.delete()
      indices.set(turned ? [a - 1, c - 1, b - 1] : [a - 1, b - 1, c - 1], 3 * (i - 1))
    }
    const rims = [...rimsOf(oc, face, triangles, location, scope)]
    return { name, positions, indices, normals: normalsOf(positions, indices), rims }
  })
}

const EMPTY = {
  positions: new Float64Array(0),
  normals: new Float32Array(0),
  indices: new Uint32Array(0),
  rims: [],
}

type Polygon = InstanceType<OpenCascade['Poly_PolygonOnTriangulation']>

function* rimsOf(
  oc: OpenCascade,
  face: Face,
  triangles: ReturnType<OpenCascade['BRep_Tool']['Triangulation']>,
  location: InstanceType<OpenCascade['TopLoc_Location']>,
  scope: Scope,
): Generator<readonly number[]> {
  for (const shape of partsOf(oc, face, 'EDGE', scope)) {
    const edge = scope.own(oc.TopoDS.Edge(shape))
    if (oc.BRep_Tool.Degenerated(edge) || oc.BRep_Tool.IsClosed(edge, face)) continue
    // Null where the edge has none; the types tell of another call of the same name.
    const found = oc.BRep_Tool.PolygonOnTriangulation(
      edge,
      triangles,
      location,
    ) as unknown as Polygon | null
    if (!found) continue
    const polygon = scope.own(found)
    yield Array.from({ length: polygon.NbNodes() }, (_, i) => polygon.Node(i + 1) - 1)
  }
}

/** Normals of the vertices of one smooth face: of its triangles, each by its area. */
function normalsOf(positions: Float64Array, indices: Uint32Array): Float32Array {
  const sums = new Float64Array(positions.length)
  const at = (v: number, k: number): number => positions[3 * v + k] ?? 0
  for (let i = 0; i < indices.length; i += 3) {
    const [a = 0, b = 0, c = 0] = indices.subarray(i, i + 3)
    const [ux, uy, uz] = [at(b, 0) - at(a, 0), at(b, 1) - at(a, 1), at(b, 2) - at(a, 2)]
    const [vx, vy, vz] = [at(c, 0) - at(a, 0), at(c, 1) - at(a, 1), at(c, 2) - at(a, 2)]
    const normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
    for (const vertex of [a, b, c]) {
      for (let k = 0; k < 3; k++) {
        sums[3 * vertex + k] = (sums[3 * vertex + k] ?? 0) + (normal[k] ?? 0)
      }
    }
  }
  const normals = new Float32Array(positions.length)
  for (let i = 0; i < sums.length; i += 3) {
    const length = Math.hypot(sums[i] ?? 0, sums[i + 1] ?? 0, sums[i + 2] ?? 0) || 1
    for (let k = 0; k < 3; k++) normals[i + k] = (sums[i + k] ?? 0) / length
  }
  return normals
}

/** The edges as pairs of places: each once, and not where its two faces run smoothly on. */
function edgeLines(faces: readonly FaceMesh[]): Required<Pick<SolidMesh, 'edges' | 'rims'>> {
  const known = new Map<string, { places: number[]; normals: number[][]; names: string[] }>()
  for (const { name, rims, positions, normals } of faces) {
    for (const rim of rims) {
      const places = rim.flatMap((v) => [...positions.subarray(3 * v, 3 * v + 3)])
      const key = rimKey(rim.map((v) => [...positions.subarray(3 * v, 3 * v + 3)]))
      const middle = rim[Math.floor(rim.length / 2)] ?? 0
      const normal = [...normals.subarray(3 * middle, 3 * middle + 3)]
      const found = known.get(key)
      if (found) {
        found.normals.push(normal)
        found.names.push(name)
      } else known.set(key, { places, normals: [normal], names: [name] })
    }
  }
  const pairs: number[] = []
  const rims: NonNullable<SolidMesh['rims']>[number][] = []
  for (const { places, normals, names } of known.values()) {
    const [a, b] = normals
    if (a && b && a.reduce((sum, x, k) => sum + x * (b[k] ?? 0), 0) > Math.cos(SMOOTH)) continue
    const start = pairs.length
    for (let i = 3; i < places.length; i += 3) pairs.push(...places.slice(i - 3, i + 3))
    const [first = '', second = first] = names
    rims.push({ key: meetingKey(first, second), start, count: pairs.length - start })
  }
  return { edges: new Float32Array(pairs), rims }
}

/** The same for both ways along an edge: its ends and its middle, rounded far below any tolerance. */
function rimKey(places: readonly (readonly number[])[]): string {
  const word = (p: readonly number[] | undefined): string =>
    (p ?? []).map((x) => Math.round(x * 1e6)).join(',')
  const ends = [word(places[0]), word(places.at(-1))].sort()
  const [a, b] = [
    places[Math.floor((places.length - 1) / 2)],
    places[Math.ceil((places.length - 1) / 2)],
  ]
  const middle = (a ?? []).map((x, k) => (x + (b?.[k] ?? 0)) / 2)
  return [...ends, word(middle), places.length].join(' ')
}
