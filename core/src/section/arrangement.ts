import { curvatureOf, reversed, tangentAt, type Vec } from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import type { SectionEdge } from './types'

/**
 * Edges that meet at shared vertices only, as half-edges: half-edge 2·i runs along edge i, 2·i + 1
 * against it. (de Berg et al., Computational Geometry, ch. 2.)
 */
export interface Arrangement {
  readonly edges: readonly SectionEdge[]
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
  const leaving: number[][] = vertices.map(() => [])
  startOf.forEach((v, h) => leaving[v]?.push(h))
  const keys = Array.from(startOf, (_, h) => directionKey(edges, h))
  for (const list of leaving) {
    list.sort((a, b) => {
      const [angleA, bendA] = keys[a] ?? [0, 0]
      const [angleB, bendB] = keys[b] ?? [0, 0]
      return Math.abs(angleA - angleB) > 1e-12 ? angleA - angleB : bendA - bendB
    })
  }
  return { edges, vertices, startOf, leaving }
}

/** Sorts by direction; pieces that leave along one tangent are told apart by how they bend. */
function directionKey(edges: readonly SectionEdge[], halfEdge: number): readonly [number, number] {
  const edge = edges[halfEdge >> 1]
  if (!edge) return [0, 0]
  const piece = (halfEdge & 1) === 0 ? edge.piece : reversed(edge.piece)
  const tangent = tangentAt(piece, 0)
  return [Math.atan2(tangent.y, tangent.x), curvatureOf(piece)]
}

/** Gives every place a number; places within the tolerance get the same. A grid finds neighbours. */
function mergeVertices(): { vertices: Vec[]; indexOf: (p: Vec) => number } {
  const vertices: Vec[] = []
  const cells = new Map<number, number[]>()
  const nearIn = (cell: number, p: Vec): number => {
    for (const v of cells.get(cell) ?? []) {
      const q = vertices[v]
      if (q && Math.hypot(p.x - q.x, p.y - q.y) <= VERTEX_TOLERANCE) return v
    }
    return -1
  }
  const indexOf = (p: Vec): number => {
    for (const i of cellsNear(p.x)) {
      for (const j of cellsNear(p.y)) {
        const found = nearIn(cellKey(i, j), p)
        if (found >= 0) return found
      }
    }
    const v = vertices.push(p) - 1
    const key = cellKey(Math.floor(p.x / CELL), Math.floor(p.y / CELL))
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

/** The cells along one direction in which a neighbour of a coordinate can lie: mostly just its own. */
function cellsNear(c: number): number[] {
  const cell = Math.floor(c / CELL)
  if (Math.floor((c - VERTEX_TOLERANCE) / CELL) < cell) return [cell, cell - 1]
  if (Math.floor((c + VERTEX_TOLERANCE) / CELL) > cell) return [cell, cell + 1]
  return [cell]
}

/**
 * Runs along half-edges keeping the area they bound on the left, always turning as sharply left of
 * the way back as the allowed half-edges permit.
 * @param allowed which half-edges may be used; all when left out
 * @returns closed runs of half-edges; every allowed half-edge is in just one
 */
export function traceLoops(
  arrangement: Arrangement,
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
