import {
  curvatureAt,
  distance,
  lengthOf,
  nearestOn,
  pointAt,
  reversed,
  stretch,
  windingsBeside,
  type Piece,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import { mergeVertices, ordered, traceLoops, twin, type Arrangement } from './arrangement'
import { joined } from './joined'
import { nest } from './nesting'
import { split, type Outline, type Stretch } from './split'
import type { Loop, Section, SectionEdge } from './types'

/** How often the first and the second outline wind around a place decides whether it is material. */
export type Rule = (first: number, second: number) => boolean

/**
 * Lays two outlines over one another, splits them at all their meetings, makes one edge of what
 * coincides, and keeps as material what the rule says of the winding numbers. Edges of the result
 * keep their names; where two coincide the first outline's name stays.
 * @param selfCrossing true when edges of one outline may cross others of the same
 * @returns undefined when rounding left an outline open, which no section may be
 */
export function overlay(
  first: Outline,
  second: Outline,
  rule: Rule,
  selfCrossing = false,
  retries = RETRIES,
): Section | undefined {
  const { edges, vertices, startOf } = merged(split(first, second, selfCrossing))
  const arrangement = ordered(edges, vertices, startOf)
  const [wFirst, wSecond] = windings(arrangement)
  const material = new Uint8Array(startOf.length)
  for (let h = 0; h < startOf.length; h++) {
    material[h] = rule(wFirst[h] ?? 0, wSecond[h] ?? 0) ? 1 : 0
  }
  const traced = traceLoops(arrangement, (h) => material[h] === 1 && material[twin(h)] === 0)
  const loops: Loop[] = []
  for (const halfEdges of traced) {
    const [start] = halfEdges
    const end = halfEdges.at(-1)
    if (start === undefined || end === undefined) continue
    if (startOf[start] !== startOf[twin(end)]) {
      if (retries === 0) return undefined
      // What was split was moved onto its vertices, by a rounding: edges that all but coincide may
      // cross anew by that, and are split once more.
      const [one, two] = [outlineOf(edges, (e) => e.first), outlineOf(edges, (e) => e.second)]
      return overlay(one, two, rule, true, retries - 1)
    }
    const loop: SectionEdge[] = []
    for (const h of halfEdges) addEdge(loop, edges[h >> 1], (h & 1) === 0)
    loops.push(joined(loop))
  }
  return { regions: nest(loops) }
}

/** How often an outline that rounding left open is split again. */
const RETRIES = 2

/** Edges as an outline again, each as often as it counts, run through the way that counts. */
function outlineOf(edges: readonly Stretch[], times: (edge: Stretch) => number): SectionEdge[] {
  return edges.flatMap((edge) => {
    const all = edge.run ?? [edge]
    const n = times(edge)
    const run = all.map(({ piece, name }) => ({ piece: n < 0 ? reversed(piece) : piece, name }))
    return Array.from({ length: Math.abs(n) }, () => run).flat()
  })
}

/** Adds an edge, or all edges of a run, to a loop as it is run through. */
function addEdge(loop: SectionEdge[], edge: Stretch | undefined, forwards: boolean): void {
  if (!edge) return
  const { piece, name, run } = edge
  if (run) {
    if (forwards) for (const e of run) loop.push(e)
    else for (const e of [...run].reverse()) loop.push({ ...e, piece: reversed(e.piece) })
  } else loop.push({ piece: forwards ? piece : reversed(piece), name })
}

/** A stretch whose ends are one vertex is nothing when it is no longer than this; else a full circle. */
const SHORTEST = 8 * VERTEX_TOLERANCE

/** One vertex for ends that fall together, and one edge for stretches that do. */
function merged(parts: readonly Stretch[]): {
  readonly edges: Stretch[]
  readonly vertices: readonly Vec[]
  readonly startOf: Int32Array
} {
  const { vertices, indexOf } = mergeVertices(2 * parts.length)
  const edges: Stretch[] = []
  const starts = new Int32Array(2 * parts.length)
  // Edges by their lower vertex, each with the next one of the same: few meet at one.
  const firstAt = new Int32Array(2 * parts.length).fill(-1)
  const nextAt = new Int32Array(parts.length)
  const sameAs = (piece: Piece, a: number, b: number): number => {
    let i = firstAt[Math.min(a, b)] ?? -1
    for (; i >= 0; i = nextAt[i] ?? -1) {
      const ends = (starts[2 * i] ?? 0) + (starts[2 * i + 1] ?? 0)
      if (ends === a + b && coincide(edges[i]?.piece, piece)) break
    }
    return i
  }
  for (const part of parts) {
    const a = indexOf(part.piece.from)
    const b = indexOf((part.tail ?? part.piece).to)
    const i = edges.length
    if (!part.run) {
      if (a === b && lengthOf(part.piece) <= SHORTEST) continue
      part.piece = snappedTo(part.piece, vertices[a], vertices[b])
      const same = sameAs(part.piece, a, b)
      const edge = same >= 0 && edges[same]
      if (edge) {
        const isAlong = starts[2 * same] === a && (a !== b || sameWay(edge.piece, part.piece))
        edge.first += isAlong ? part.first : -part.first
        edge.second += isAlong ? part.second : -part.second
        continue
      }
      const low = Math.min(a, b)
      nextAt[i] = firstAt[low] ?? -1
      firstAt[low] = i
    }
    edges.push(part)
    starts[2 * i] = a
    starts[2 * i + 1] = b
  }
  return { edges, vertices, startOf: starts.subarray(0, 2 * edges.length) }
}

function snappedTo(piece: Piece, from: Vec | undefined, to: Vec | undefined): Piece {
  if (!from || !to || (piece.from === from && piece.to === to)) return piece
  return stretch(piece, from, to)
}

/** Stretches with the same ends are one when their middles fall together. */
function coincide(a: Piece | undefined, b: Piece): boolean {
  if (!a) return false
  if (a.kind === 'line' && b.kind === 'line') return true
  if (a.kind === 'cubic' || b.kind === 'cubic') {
    return nearestOn(b, pointAt(a, 0.5)).distance <= 4 * VERTEX_TOLERANCE
  }
  const middle = pointAt(b, 0.5)
  const other = pointAt(a, 0.5)
  return distance(middle, other) <= 4 * VERTEX_TOLERANCE
}

function sameWay(a: Piece, b: Piece): boolean {
  return Math.sign(curvatureAt(a, 0.5)) === Math.sign(curvatureAt(b, 0.5))
}

/**
 * The winding numbers of both outlines to the left of every half-edge: one ray for each connected
 * network, and from there on by going round the vertices.
 */
function windings(arrangement: Arrangement<Stretch>): readonly [Int32Array, Int32Array] {
  const { edges, startOf, around, firstAt } = arrangement
  const first = new Int32Array(startOf.length)
  const second = new Int32Array(startOf.length)
  const known = new Uint8Array(startOf.length)
  const set = (h: number, a: number, b: number): void => {
    const edge = edges[h >> 1]
    const way = (h & 1) === 0 ? 1 : -1
    first[h] = a
    second[h] = b
    first[twin(h)] = a - way * (edge?.first ?? 0)
    second[twin(h)] = b - way * (edge?.second ?? 0)
    known[h] = known[twin(h)] = 1
  }
  for (let seed = 0; seed < startOf.length; seed += 2) {
    const piece = edges[seed >> 1]?.piece
    if (known[seed] === 1 || !piece || edges[seed >> 1]?.run) continue
    const [a, b] = besides(piece, edges)
    set(seed, a, b)
    const queue = [startOf[seed] ?? 0, startOf[seed + 1] ?? 0]
    for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
      const begin = firstAt[v] ?? 0
      const count = (firstAt[v + 1] ?? 0) - begin
      let from = 0
      while (from < count && known[around[begin + from] ?? 0] !== 1) from++
      for (let k = 1; from < count && k < count; k++) {
        const before = around[begin + ((from + k - 1) % count)] ?? 0
        const h = around[begin + ((from + k) % count)] ?? 0
        if (known[h] === 1) continue
        // What lies left of one half-edge lies right of the next one counter-clockwise.
        const edge = edges[h >> 1]
        const way = (h & 1) === 0 ? 1 : -1
        set(
          h,
          (first[before] ?? 0) + way * (edge?.first ?? 0),
          (second[before] ?? 0) + way * (edge?.second ?? 0),
        )
        queue.push(startOf[twin(h)] ?? 0)
      }
    }
  }
  return [first, second]
}

/** How often the first and the second outline wind around a place just left of a piece's middle. */
function besides(piece: Piece, edges: readonly Stretch[]): readonly [number, number] {
  const windingOf = windingsBeside(piece)
  let [first, second] = [0, 0]
  for (const edge of edges) {
    let winding = 0
    if (edge.run) for (const e of edge.run) winding += windingOf(e.piece)
    else if (edge.first !== 0 || edge.second !== 0) winding = windingOf(edge.piece)
    first += winding * edge.first
    second += winding * edge.second
  }
  return [first, second]
}
