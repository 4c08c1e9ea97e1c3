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
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { SectionEdge } from '../types'

/**
 * Edges that meet at shared vertices only, as half-edges: half-edge 2·i runs along edge i, 2·i + 1
 * against it. (de Berg et al., Computational Geometry, ch. 2.)
 */
export interface Arrangement<E extends { readonly piece: Piece } = SectionEdge> {
  readonly edges: readonly E[]
  readonly vertices: readonly Vec[]
  /** Per half-edge the vertex it starts from. */
  readonly startOf: Int32Array
  /** The half-edges that leave vertex after vertex, counter-clockwise round each. */
  readonly around: Int32Array
  /** Per vertex where in `around` its half-edges begin; those of the next one begin where they end. */
  readonly firstAt: Int32Array
  /** Per half-edge where in `around` it stands. */
  readonly placeOf: Int32Array
}

export const twin = (halfEdge: number): number => halfEdge ^ 1

/** The half-edges that leave a vertex, counter-clockwise. */
export function leavingFrom(
  { around, firstAt }: Pick<Arrangement, 'around' | 'firstAt'>,
  vertex: number,
): Int32Array {
  return around.subarray(firstAt[vertex], firstAt[vertex + 1])
}

/** How many half-edges leave a vertex. */
export const degreeOf = ({ firstAt }: Pick<Arrangement, 'firstAt'>, vertex: number): number =>
  (firstAt[vertex + 1] ?? 0) - (firstAt[vertex] ?? 0)

/** Merges ends within the vertex tolerance and orders what leaves each vertex. */
export function arrange(edges: readonly SectionEdge[]): Arrangement {
  const { vertices, indexOf } = mergeVertices(2 * edges.length)
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
  const firstAt = new Int32Array(vertices.length + 1)
  for (const v of startOf) firstAt[v + 1] = (firstAt[v + 1] ?? 0) + 1
  for (let v = 0; v < vertices.length; v++) {
    firstAt[v + 1] = (firstAt[v + 1] ?? 0) + (firstAt[v] ?? 0)
  }
  const around = new Int32Array(startOf.length)
  const filled = firstAt.slice()
  for (let h = 0; h < startOf.length; h++) {
    const v = startOf[h] ?? 0
    const place = filled[v] ?? 0
    around[place] = h
    filled[v] = place + 1
  }
  sortRound(edges, around, firstAt)
  const placeOf = new Int32Array(startOf.length)
  for (let place = 0; place < around.length; place++) placeOf[around[place] ?? 0] = place
  return { edges, vertices, startOf, around, firstAt, placeOf }
}

/** Sorts the half-edges round each vertex by insertion: few leave one. */
function sortRound(
  edges: readonly { readonly piece: Piece; readonly tail?: Piece | undefined }[],
  around: Int32Array,
  firstAt: Int32Array,
): void {
  const pieceFrom = (h: number): Piece | undefined => {
    const edge = edges[h >> 1]
    return edge && (h & 1) === 1 ? reversed(edge.tail ?? edge.piece) : edge?.piece
  }
  const angles = new Float64Array(around.length)
  const isBefore = (a: number, b: number): boolean => {
    const apart = (angles[a] ?? 0) - (angles[b] ?? 0)
    if (Math.abs(apart) > NEARLY_ALONG) return apart < 0
    return turnBetween(pieceFrom(a), pieceFrom(b)) < 0
  }
  for (let v = 0; v + 1 < firstAt.length; v++) {
    const begin = firstAt[v] ?? 0
    const end = firstAt[v + 1] ?? 0
    // Of one or two the order round the vertex is the same either way.
    if (end - begin < 3) continue
    for (let i = begin; i < end; i++) {
      const h = around[i] ?? 0
      angles[h] = angleOf(edges[h >> 1], h)
      let j = i
      for (; j > begin && isBefore(h, around[j - 1] ?? 0); j--) around[j] = around[j - 1] ?? 0
      around[j] = h
    }
  }
}

/** The direction in which a half-edge leaves its vertex, as an angle in radians. */
function angleOf(
  edge: { readonly piece: Piece; readonly tail?: Piece | undefined } | undefined,
  h: number,
): number {
  if (!edge) return 0
  const isBackwards = (h & 1) === 1
  const piece = isBackwards ? (edge.tail ?? edge.piece) : edge.piece
  const sign = isBackwards ? -1 : 1
  if (piece.kind === 'line') {
    const { from, to } = piece
    return directionFrom(sign * (to.x - from.x), sign * (to.y - from.y))
  }
  const tangent = tangentAt(piece, h & 1)
  return directionFrom(sign * tangent.x, sign * tangent.y)
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

/**
 * Gives every place a number; places within the tolerance get the same. A grid finds neighbours.
 * @param most how many places there may be
 */
export function mergeVertices(most: number): { vertices: Vec[]; indexOf: (p: Vec) => number } {
  const vertices: Vec[] = []
  const mask = 2 ** Math.ceil(Math.log2(2 * most + 1)) - 1
  // Vertices by their cell, each with the next one of the same cell.
  const firstIn = new Int32Array(mask + 1).fill(-1)
  const nextIn = new Int32Array(most)
  const nearIn = (cell: number, p: Vec): number => {
    let v = firstIn[cell] ?? -1
    while (v >= 0) {
      const q = vertices[v]
      if (q && distance(p, q) <= VERTEX_TOLERANCE) return v
      v = nextIn[v] ?? -1
    }
    return -1
  }
  // Cells that happen to share a key do no harm: distances decide.
  const cellOf = (i: number, j: number): number => {
    const key = Math.imul(i, 73856093) ^ Math.imul(j, 19349663)
    return (key ^ (key >>> 15)) & mask
  }
  const indexOf = (p: Vec): number => {
    // Neighbours mostly lie in the same cell; only near its border in the next one too.
    const i0 = Math.floor((p.x - VERTEX_TOLERANCE) / CELL)
    const i1 = Math.floor((p.x + VERTEX_TOLERANCE) / CELL)
    const j0 = Math.floor((p.y - VERTEX_TOLERANCE) / CELL)
    const j1 = Math.floor((p.y + VERTEX_TOLERANCE) / CELL)
    // Both ends of the reach, not all between: where numbers are too large to be counted up by one, a loop has no end.
    for (let i = i0; ; i = i1) {
      for (let j = j0; ; j = j1) {
        const found = nearIn(cellOf(i, j), p)
        if (found >= 0) return found
        if (j === j1) break
      }
      if (i === i1) break
    }
    const own = cellOf(Math.floor(p.x / CELL), Math.floor(p.y / CELL))
    const v = vertices.push(p) - 1
    nextIn[v] = firstIn[own] ?? -1
    firstIn[own] = v
    return v
  }
  return { vertices, indexOf }
}

const CELL = 16 * VERTEX_TOLERANCE

/**
 * Runs along half-edges keeping the area they bound on the left, always turning as sharply left of
 * the way back as the allowed half-edges permit.
 * @param allowed which half-edges may be used; all when left out
 * @returns closed runs of half-edges; every allowed half-edge is in just one
 */
export function traceLoops(
  { startOf, around, firstAt, placeOf }: Omit<Arrangement, 'edges' | 'vertices'>,
  allowed: (halfEdge: number) => boolean = () => true,
): number[][] {
  const done = new Uint8Array(startOf.length)
  const loops: number[][] = []
  const after = (h: number): number => {
    const back = twin(h)
    const v = startOf[back] ?? 0
    const begin = firstAt[v] ?? 0
    const end = firstAt[v + 1] ?? 0
    let place = placeOf[back] ?? 0
    for (let k = begin; k < end; k++) {
      place = place === begin ? end - 1 : place - 1
      const candidate = around[place] ?? 0
      if (allowed(candidate)) return candidate
    }
    return -1
  }
  for (let first = 0; first < startOf.length; first++) {
    if (done[first] === 1 || !allowed(first)) continue
    const loop: number[] = []
    for (let h = first; h >= 0 && done[h] !== 1; h = after(h)) {
      done[h] = 1
      loop.push(h)
    }
    loops.push(loop)
  }
  return loops
}
