import { meetingKey, stretchKey } from '../names'
import { hangingTogether, stretchesInOrder } from '../solid'
import { Places } from './places'
import type { SolidMesh } from './solid'

/** One face of a solid: its triangles, and the lines round it. */
export interface FacePiece extends Pick<SolidMesh, 'positions' | 'normals' | 'indices'> {
  readonly name: string
  /** Two vertices per line. */
  readonly lines: Uint32Array
}

/** Faces that bend less than this, in radians, at an edge are smooth there, and it is not drawn. */
const SMOOTH = 0.02

/** Faces as one mesh, with its edges where two of them meet: each once, and not where they run smoothly on. */
export const joinedPieces = (pieces: readonly FacePiece[]): SolidMesh => ({
  ...joined(pieces),
  ...edgeLines(pieces),
})

/** All faces as one mesh. */
function joined(pieces: readonly FacePiece[]): Omit<SolidMesh, 'edges' | 'rims'> {
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
  /** By number of the face and of its vertex at the first end. */
  readonly beside: { readonly face: number; readonly vertex: number }[]
}

/** The edges as pairs of places: each once, and not where its two faces run smoothly on. */
function edgeLines(pieces: readonly FacePiece[]): Required<Pick<SolidMesh, 'edges' | 'rims'>> {
  const places = new Places()
  const found = new Map<number, EdgePiece>()
  pieces.forEach(({ lines, positions }, face) => {
    const placeOf = (v: number): number => places.numberOf(...tripleAt(positions, 3 * v))
    for (let i = 0; i < lines.length; i += 2) {
      const vertex = lines[i] ?? 0
      const [a, b] = [placeOf(vertex), placeOf(lines[i + 1] ?? 0)]
      const key = Math.min(a, b) * 0x4000000 + Math.max(a, b)
      const piece = found.get(key)
      if (piece) piece.beside.push({ face, vertex })
      else found.set(key, { ends: [a, b], beside: [{ face, vertex }] })
    }
  })
  /** By the numbers of two faces, then by their names: several may have one name. */
  const byPair = new Map<number, EdgePiece[]>()
  for (const piece of found.values()) {
    const [a, b] = piece.beside
    // What has one side only is a sharp bend within a face.
    if (!a || !b) continue
    const key = Math.min(a.face, b.face) * pieces.length + Math.max(a.face, b.face)
    const own = byPair.get(key)
    if (own) own.push(piece)
    else byPair.set(key, [piece])
  }
  const byFaces = new Map<string, EdgePiece[]>()
  for (const [pair, own] of byPair) {
    const faces = [pieces[Math.floor(pair / pieces.length)], pieces[pair % pieces.length]]
    const key = meetingKey(faces[0]?.name ?? '', faces[1]?.name ?? '')
    byFaces.set(key, [...(byFaces.get(key) ?? []), ...own])
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
function isSmoothAt({ beside }: EdgePiece, pieces: readonly FacePiece[]): boolean {
  const [one, other] = beside.map(({ face, vertex }) =>
    tripleAt(pieces[face]?.normals ?? new Float32Array(0), 3 * vertex),
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
