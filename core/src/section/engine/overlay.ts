import {
  curvatureAt,
  distance,
  lengthOf,
  nearestOn,
  pointAt,
  reversed,
  stretch,
  translated,
  windingsBeside,
  type Piece,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { mergeVertices, ordered, traceLoops, twin, type Arrangement } from './arrangement'
import { joined } from './joined'
import { areaOfLoop, nest } from './nesting'
import { split, type Outline, type Stretch } from './split'
import type { Loop, Section, SectionEdge } from '../types'

/** How often the first and the second outline wind around a place decides whether it is material. */
export type Rule = (first: number, second: number) => boolean

/**
 * Lays two outlines over one another, splits them at all their meetings, makes one edge of what
 * coincides, and keeps as material what the rule says of the winding numbers. Edges of the result
 * keep their names; where two coincide the first outline's name stays.
 *
 * An arrangement is used only when it is sound: round every vertex the winding numbers come out as
 * they went in, every loop closes, and every hole has something around it. One that is not is made
 * again: with what each outline meets of itself split too (outlines that touch themselves), then
 * once more from there (what was moved onto its vertices may cross anew), and at last with the second
 * outline moved aside by hardly more than the vertex tolerance (hairlines between edges that all but coincide).
 * @param selfCrossing true when edges of one outline may cross others of the same
 * @returns undefined when no sound arrangement was found
 */
export function overlay(
  first: Outline,
  second: Outline,
  rule: Rule,
  selfCrossing = false,
): Section | undefined {
  for (const { edges, vertices, startOf } of arrangements(first, second, selfCrossing)) {
    const section = materialOf(ordered(edges, vertices, startOf), rule)
    if (section) return section
  }
  return undefined
}

/** One arrangement after the other, each for when the one before was not sound. */
function* arrangements(first: Outline, second: Outline, selfCrossing: boolean): Iterable<Merged> {
  const isMany = first.length + second.length > MANY
  let made = merged(split(first, second, selfCrossing))
  yield made
  for (let again = 0; again < (isMany ? 1 : RETRIES); again++) {
    const [one, two] = [
      outlineOf(made.edges, (e) => e.first),
      outlineOf(made.edges, (e) => e.second),
    ]
    made = merged(split(one, two, true))
    yield made
  }
  for (const by of isMany ? ASIDE.slice(0, 1) : ASIDE) {
    const aside = second.map((e) => ({ ...e, piece: translated(e.piece, by) }))
    yield merged(split(first, aside, true))
  }
}

/** How often an arrangement that is not sound is split again. */
const RETRIES = 2

/** Outlines of more edges than this together are tried less often: each try takes its time. */
const MANY = 300

/** Ways in mm by which an outline is moved when nothing else makes an arrangement sound. */
const ASIDE: readonly Vec[] = [
  { x: 3.7e-6, y: 2.9e-6 },
  { x: -4.3e-6, y: 5.9e-6 },
  { x: 9.1e-6, y: -7.3e-6 },
]

/** What a rule makes material of; undefined when the arrangement is not sound. */
function materialOf(arrangement: Arrangement<Stretch>, rule: Rule): Section | undefined {
  const { edges, startOf } = arrangement
  const found = windings(arrangement)
  if (!found) return undefined
  const [wFirst, wSecond] = found
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
    if (startOf[start] !== startOf[twin(end)]) return undefined
    const loop: SectionEdge[] = []
    for (const h of halfEdges) addEdge(loop, edges[h >> 1], (h & 1) === 0)
    if (!isHairline(loop)) loops.push(joined(loop))
  }
  const regions = nest(loops)
  const placed = regions.reduce((sum, r) => sum + 1 + r.holes.length, 0)
  return placed === loops.length ? { regions } : undefined
}

/** A loop that encloses no more than its length times the vertex tolerance: two edges that all but coincide. */
function isHairline(loop: Loop): boolean {
  if (loop.length > MOST_OF_HAIRLINE) return false
  let length = 0
  for (const { piece } of loop) length += lengthOf(piece)
  return Math.abs(areaOfLoop(loop)) <= 2 * VERTEX_TOLERANCE * length
}

/** Loops of more edges are not looked at: a hairline has a few. */
const MOST_OF_HAIRLINE = 12

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

/** Edges between vertices. */
interface Merged {
  readonly edges: Stretch[]
  readonly vertices: readonly Vec[]
  /** Per half-edge the vertex it starts at. */
  readonly startOf: Int32Array
}

/** One vertex for ends that fall together, and one edge for stretches that do. */
function merged(parts: readonly Stretch[]): Merged {
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
 * network, and from there on by going round the vertices. Wherever that meets a half-edge that is known
 * already, both numbers must be the same; and so must what a ray says beside the longest edge of every chain, for
 * what hangs at a single vertex agrees with itself wherever it is put.
 * @returns undefined when they are not
 */
function windings(
  arrangement: Arrangement<Stretch>,
): readonly [Int32Array, Int32Array] | undefined {
  const { edges, startOf, around, firstAt } = arrangement
  const first = new Int32Array(startOf.length)
  const second = new Int32Array(startOf.length)
  const known = new Uint8Array(startOf.length)
  const asked = new Uint8Array(edges.length)
  const set = (h: number, a: number, b: number): void => {
    const edge = edges[h >> 1]
    const way = (h & 1) === 0 ? 1 : -1
    first[h] = a
    second[h] = b
    first[twin(h)] = a - way * (edge?.first ?? 0)
    second[twin(h)] = b - way * (edge?.second ?? 0)
    known[h] = known[twin(h)] = 1
  }
  for (const i of longFirst(edges)) {
    const seed = 2 * i
    const piece = edges[i]?.piece
    if (known[seed] === 1 || !piece || edges[i]?.run) continue
    const [a, b] = besides(piece, edges)
    set(seed, a, b)
    asked[i] = 1
    const queue = [startOf[seed] ?? 0, startOf[seed + 1] ?? 0]
    for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
      const begin = firstAt[v] ?? 0
      const count = (firstAt[v + 1] ?? 0) - begin
      let from = 0
      while (from < count && known[around[begin + from] ?? 0] !== 1) from++
      for (let k = 1; from < count && k <= count; k++) {
        const before = around[begin + ((from + k - 1) % count)] ?? 0
        const h = around[begin + ((from + k) % count)] ?? 0
        // What lies left of one half-edge lies right of the next one counter-clockwise.
        const edge = edges[h >> 1]
        const way = (h & 1) === 0 ? 1 : -1
        const a = (first[before] ?? 0) + way * (edge?.first ?? 0)
        const b = (second[before] ?? 0) + way * (edge?.second ?? 0)
        if (known[h] === 1) {
          if (first[h] !== a || second[h] !== b) return undefined
          continue
        }
        set(h, a, b)
        queue.push(startOf[twin(h)] ?? 0)
      }
    }
  }
  for (const i of longestOfChains(edges, startOf)) {
    const piece = edges[i]?.piece
    if (asked[i] === 1 || !piece) continue
    const [a, b] = besides(piece, edges)
    if (first[2 * i] !== a || second[2 * i] !== b) return undefined
  }
  return [first, second]
}

/** Of every chain of edges, each of which begins where the one before ends, the longest, if it is long. */
function longestOfChains(edges: readonly Stretch[], startOf: Int32Array): readonly number[] {
  const longest: number[] = []
  let [best, length] = [-1, SHORT_FOR_RAYS]
  edges.forEach(({ piece, run }, i) => {
    if (i > 0 && startOf[2 * i] !== startOf[2 * i - 1]) {
      if (best >= 0) longest.push(best)
      ;[best, length] = [-1, SHORT_FOR_RAYS]
    }
    const own = run ? 0 : distance(piece.from, piece.to)
    if (own > length) [best, length] = [i, own]
  })
  if (best >= 0) longest.push(best)
  // Many chains cross one another at many vertices, and agree there or not.
  const every = Math.ceil(longest.length / MOST_CHAINS)
  return longest.filter((_, i) => i % every === 0)
}

/** So many chains of an arrangement are looked at by rays, evenly spread. */
const MOST_CHAINS = 8

/**
 * Edges by number, short ones last: beside what is hardly longer than the vertex tolerance, ends that were merged
 * may lie on either side, and a ray from there tells of nothing.
 */
function longFirst(edges: readonly Stretch[]): readonly number[] {
  const [long, short]: [number[], number[]] = [[], []]
  edges.forEach(({ piece }, i) => {
    const isShort = distance(piece.from, piece.to) < SHORT_FOR_RAYS
    ;(isShort ? short : long).push(i)
  })
  return [...long, ...short]
}

/** Rays begin on longer edges than this first. */
const SHORT_FOR_RAYS = 1e3 * VERTEX_TOLERANCE

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
