import {
  cross,
  curvatureAt,
  distance,
  lengthOf,
  parameterAtChord,
  pointAt,
  reversed,
  subtract,
  tangentAt,
  type Piece,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import type { SectionEdge } from './types'

/**
 * Edges that meet at shared vertices only, as half-edges: half-edge 2·i runs along edge i, 2·i + 1
 * against it. (de Berg et al., Computational Geometry, ch. 2.)
 */
export interface Arrangement<E extends { readonly piece: Piece } = SectionEdge> {
  readonly edges: readonly E[]
  readonly vertices: readonly Vec[]
  /** Per half-edge the vertex it starts from. */
  readonly startOf: Int32Array
  /** Per vertex the half-edges that leave it, counter-clockwise. */
  readonly leaving: readonly (readonly number[])[]
}

export const twin = (halfEdge: number): number => halfEdge ^ 1

/** Merges ends within the vertex tolerance and orders what leaves each vertex. */
export function arrange(edges: readonly SectionEdge[]): Arrangement {
  const { vertices, indexOf } = mergeVertices()
  const startOf = new Int32Array(2 * edges.length)
  edges.forEach((edge, i) => {
    startOf[2 * i] = indexOf(edge.piece.from)
    startOf[2 * i + 1] = indexOf(edge.piece.to)
  })
  return ordered(edges, vertices, startOf)
}

/** Orders the half-edges that leave each vertex counter-clockwise. A tail is what an edge ends with. */
export function ordered<E extends { readonly piece: Piece; readonly tail?: Piece | undefined }>(
  edges: readonly E[],
  vertices: readonly Vec[],
  startOf: Int32Array,
): Arrangement<E> {
  const leaving: number[][] = vertices.map(() => [])
  for (let h = 0; h < startOf.length; h++) leaving[startOf[h] ?? 0]?.push(h)
  const angles = new Float64Array(startOf.length)
  const pieceFrom = (h: number): Piece | undefined => {
    const edge = edges[h >> 1]
    return edge && (h & 1) === 1 ? reversed(edge.tail ?? edge.piece) : edge?.piece
  }
  const angleOf = (h: number): number => {
    const edge = edges[h >> 1]
    if (!edge) return 0
    const [piece, sign] = (h & 1) === 1 ? [edge.tail ?? edge.piece, -1] : [edge.piece, 1]
    if (piece.kind === 'line') {
      const { from, to } = piece
      return directionFrom(sign * (to.x - from.x), sign * (to.y - from.y))
    }
    const tangent = tangentAt(piece, h & 1)
    return directionFrom(sign * tangent.x, sign * tangent.y)
  }
  for (const list of leaving) {
    // Of one or two the order round the vertex is the same either way.
    if (list.length < 3) continue
    for (const h of list) angles[h] = angleOf(h)
    list.sort((a, b) => {
      const apart = (angles[a] ?? 0) - (angles[b] ?? 0)
      return Math.abs(apart) > NEARLY_ALONG ? apart : turnBetween(pieceFrom(a), pieceFrom(b))
    })
  }
  return { edges, vertices, startOf, leaving }
}

/** Pieces that leave a vertex at less than this, in radians, are told apart further out. */
const NEARLY_ALONG = 1e-4

/** Where the angles of directions wrap round: a direction that drawn lines hardly ever have. */
const WRAP = 2.0137

function directionFrom(x: number, y: number): number {
  const angle = Math.atan2(y, x) - WRAP
  return angle <= -Math.PI ? angle + 2 * Math.PI : angle
}

/** Negative when one piece leaves to the right of another that starts along the same tangent. */
function turnBetween(a: Piece | undefined, b: Piece | undefined): number {
  if (!a || !b) return 0
  const [la, lb] = [lengthOf(a), lengthOf(b)]
  const reach = Math.min(la, lb) / 2
  const u = subtract(pointAt(a, furtherOut(a, reach, la)), a.from)
  const v = subtract(pointAt(b, furtherOut(b, reach, lb)), b.from)
  const turn = -cross(u, v)
  return Math.abs(turn) > 1e-14 * reach * reach ? turn : curvatureAt(a, 0) - curvatureAt(b, 0)
}

/** A place of a piece some way from its start; along a cubic t does not tell how far. */
const furtherOut = (piece: Piece, reach: number, length: number): number =>
  piece.kind === 'cubic' ? (parameterAtChord(piece, reach) ?? 1) : reach / length

/** Gives every place a number; places within the tolerance get the same. A grid finds neighbours. */
export function mergeVertices(): { vertices: Vec[]; indexOf: (p: Vec) => number } {
  const vertices: Vec[] = []
  const cells = new Map<number, number[]>()
  const nearIn = (cell: number, p: Vec): number => {
    for (const v of cells.get(cell) ?? []) {
      const q = vertices[v]
      if (q && distance(p, q) <= VERTEX_TOLERANCE) return v
    }
    return -1
  }
  const indexOf = (p: Vec): number => {
    const key = cellKey(Math.floor(p.x / CELL), Math.floor(p.y / CELL))
    // Neighbours mostly lie in the same cell; only near its border in the next one too.
    const i0 = Math.floor((p.x - VERTEX_TOLERANCE) / CELL)
    const i1 = Math.floor((p.x + VERTEX_TOLERANCE) / CELL)
    const j0 = Math.floor((p.y - VERTEX_TOLERANCE) / CELL)
    const j1 = Math.floor((p.y + VERTEX_TOLERANCE) / CELL)
    for (let i = i0; i <= i1; i++) {
      for (let j = j0; j <= j1; j++) {
        const found = nearIn(cellKey(i, j), p)
        if (found >= 0) return found
      }
    }
    const v = vertices.push(p) - 1
    const list = cells.get(key)
    if (list) list.push(v)
    else cells.set(key, [v])
    return v
  }
  return { vertices, indexOf }
}

const CELL = 16 * VERTEX_TOLERANCE

/** Cells that happen to share a key do no harm: distances decide. */
const cellKey = (i: number, j: number): number => Math.imul(i, 73856093) ^ Math.imul(j, 19349663)

/**
 * Runs along half-edges keeping the area they bound on the left, always turning as sharply left of
 * the way back as the allowed half-edges permit.
 * @param allowed which half-edges may be used; all when left out
 * @returns closed runs of half-edges; every allowed half-edge is in just one
 */
export function traceLoops(
  arrangement: Pick<Arrangement, 'startOf' | 'leaving'>,
  allowed: (halfEdge: number) => boolean = () => true,
): number[][] {
  const { startOf, leaving } = arrangement
  const done = new Uint8Array(startOf.length)
  const loops: number[][] = []
  for (let first = 0; first < startOf.length; first++) {
    if (done[first] === 1 || !allowed(first)) continue
    const loop: number[] = []
    for (let h = first; done[h] !== 1;) {
      done[h] = 1
      loop.push(h)
      const back = twin(h)
      const around = leaving[startOf[back] ?? 0] ?? []
      const place = around.indexOf(back)
      let next = -1
      for (let k = 1; k <= around.length; k++) {
        const candidate = around[(place - k + around.length) % around.length] ?? -1
        if (!allowed(candidate)) continue
        next = candidate
        break
      }
      if (next < 0) break
      h = next
    }
    loops.push(loop)
  }
  return loops
}
