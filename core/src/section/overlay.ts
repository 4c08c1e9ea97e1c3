import {
  areApart,
  boundsOf,
  curvatureAt,
  distance,
  lengthOf,
  meetOnlyAtEnd,
  meetingsOf,
  nearestOn,
  pointAt,
  reversed,
  stretch,
  windingAround,
  type Meeting,
  type Piece,
  type Turned,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import { mergeVertices, ordered, traceLoops, twin, type Arrangement } from './arrangement'
import { joined } from './joined'
import { nest } from './nesting'
import { type EdgeName, type Loop, type Section, type SectionEdge } from './types'

/** How often the first and the second outline wind around a place decides whether it is material. */
export type Rule = (first: number, second: number) => boolean

/** An edge between two vertices, with how often each outline runs along it, forwards positive. */
interface Owned {
  readonly piece: Piece
  readonly name: EdgeName
  /** All edges of a run that meets nothing, of which the piece is the first and the tail the last. */
  readonly run?: readonly SectionEdge[] | undefined
  readonly tail?: Piece | undefined
  first: number
  second: number
}

/** Outlines: closed runs of edges with what they enclose on their left. */
export type Outline = readonly SectionEdge[]

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
  const material = (h: number): boolean => rule(wFirst[h] ?? 0, wSecond[h] ?? 0)
  const traced = traceLoops(arrangement, (h) => material(h) && !material(twin(h)))
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
function outlineOf(edges: readonly Owned[], times: (edge: Owned) => number): SectionEdge[] {
  return edges.flatMap((edge) => {
    const all = edge.run ?? [edge]
    const n = times(edge)
    const run = all.map(({ piece, name }) => ({ piece: n < 0 ? reversed(piece) : piece, name }))
    return Array.from({ length: Math.abs(n) }, () => run).flat()
  })
}

/** Adds an edge, or all edges of a run, to a loop as it is run through. */
function addEdge(loop: SectionEdge[], edge: Owned | undefined, forwards: boolean): void {
  if (!edge) return
  const { piece, name, run } = edge
  if (run) {
    if (forwards) for (const e of run) loop.push(e)
    else for (const e of [...run].reverse()) loop.push({ ...e, piece: reversed(e.piece) })
  } else loop.push({ piece: forwards ? piece : reversed(piece), name })
}

/** A stretch whose ends are one vertex is nothing when it is no longer than this; else a full circle. */
const SHORTEST = 8 * VERTEX_TOLERANCE

/** A stretch between two meetings, and which outline it belongs to. */
interface Stretch {
  readonly piece: Piece
  readonly name: EdgeName
  readonly second: boolean
  /** Edges that follow one another far from the other outline stay together. */
  readonly run?: readonly SectionEdge[]
}

/** Splits edges at their meetings. A sweep along the axis finds the pairs that are near. */
function split(first: Outline, second: Outline, selfCrossing: boolean): Stretch[] {
  const edges = [...first, ...second]
  const boxes = boxesOf(edges)
  const isFar = selfCrossing ? () => false : farFrom(boxes, first.length, edges.length)
  const order = Array.from(edges.keys()).filter((i) => !isFar(i))
  order.sort((a, b) => at(boxes, 4 * a) - at(boxes, 4 * b))
  const cuts: (Cut[] | undefined)[] = []
  const active: number[] = []
  for (const i of order) {
    const edge = edges[i]
    if (!edge) continue
    const left = at(boxes, 4 * i) - VERTEX_TOLERANCE
    const low = at(boxes, 4 * i + 1) - VERTEX_TOLERANCE
    const high = at(boxes, 4 * i + 3) + VERTEX_TOLERANCE
    const isSecond = i >= first.length
    let kept = 0
    for (const j of active) {
      if (at(boxes, 4 * j + 2) < left) continue
      active[kept++] = j
      if (!selfCrossing && j >= first.length === isSecond) continue
      if (at(boxes, 4 * j + 1) > high || at(boxes, 4 * j + 3) < low) continue
      const other = edges[j]
      if (!other || areApart(edge.piece, other.piece, VERTEX_TOLERANCE)) continue
      if (meetOnlyAtEnd(edge.piece, other.piece)) continue
      for (const m of meetingsOf(edge.piece, other.piece, VERTEX_TOLERANCE)) {
        note(cuts, i, edge.piece, m.t, m)
        note(cuts, j, other.piece, m.u, m)
      }
    }
    active.length = kept
    active.push(i)
  }
  const parts: Stretch[] = []
  const runs: SectionEdge[][] = []
  edges.forEach((edge, i) => {
    if (!isFar(i)) addStretches(parts, edge, i >= first.length, cuts[i])
    else if (i > 0 && isFar(i - 1) && follows(runs.at(-1)?.at(-1), edge)) runs.at(-1)?.push(edge)
    else runs.push([edge])
  })
  for (const run of runs) addRun(parts, run)
  return parts
}

/** Tells edges of the first outline that lie clear of the box around the second. */
function farFrom(boxes: Float64Array, first: number, all: number): (i: number) => boolean {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = first; i < all; i++) {
    x0 = Math.min(x0, at(boxes, 4 * i))
    y0 = Math.min(y0, at(boxes, 4 * i + 1))
    x1 = Math.max(x1, at(boxes, 4 * i + 2))
    y1 = Math.max(y1, at(boxes, 4 * i + 3))
  }
  const margin = 4 * VERTEX_TOLERANCE
  return (i) =>
    i < first &&
    (at(boxes, 4 * i) > x1 + margin ||
      at(boxes, 4 * i + 2) < x0 - margin ||
      at(boxes, 4 * i + 1) > y1 + margin ||
      at(boxes, 4 * i + 3) < y0 - margin)
}

const follows = (before: SectionEdge | undefined, edge: SectionEdge): boolean =>
  before !== undefined && distance(before.piece.to, edge.piece.from) <= VERTEX_TOLERANCE

/** A run stands for its edges; one that closes leaves its last edge to itself, as a start for rays. */
function addRun(parts: Stretch[], run: readonly SectionEdge[]): void {
  const [first] = run
  const last = run.at(-1)
  if (!first || !last) return
  const closes = run.length > 1 && follows(last, first)
  const open = closes ? run.slice(0, -1) : run
  if (closes) parts.push({ ...last, second: false })
  if (open.length === 1) parts.push({ ...first, second: false })
  else parts.push({ ...first, second: false, run: open })
}

const at = (numbers: Float64Array, i: number): number => numbers[i] ?? 0

/** Left, low, right, high of every edge. */
function boxesOf(edges: Outline): Float64Array {
  const boxes = new Float64Array(4 * edges.length)
  edges.forEach(({ piece }, i) => {
    const { min, max } = boundsOf(piece)
    boxes[4 * i] = min.x
    boxes[4 * i + 1] = min.y
    boxes[4 * i + 2] = max.x
    boxes[4 * i + 3] = max.y
  })
  return boxes
}

interface Cut {
  readonly t: number
  readonly at: Vec
}

function note(
  cuts: (Cut[] | undefined)[],
  i: number,
  piece: Piece,
  t: number,
  { at }: Meeting,
): void {
  if (distance(at, piece.from) <= VERTEX_TOLERANCE) return
  if (distance(at, piece.to) <= VERTEX_TOLERANCE) return
  const list = cuts[i]
  if (list) list.push({ t, at })
  else cuts[i] = [{ t, at }]
}

function addStretches(
  parts: Stretch[],
  { piece, name }: SectionEdge,
  second: boolean,
  cuts: Cut[] | undefined,
): void {
  if (!cuts) {
    parts.push({ piece, name, second })
    return
  }
  cuts.sort((a, b) => a.t - b.t)
  let { from } = piece
  for (let i = 0; i <= cuts.length; i++) {
    const to = cuts[i]?.at ?? piece.to
    if (distance(from, to) <= VERTEX_TOLERANCE) continue
    parts.push({ piece: stretch(piece, from, to), name, second })
    from = to
  }
}

/** One vertex for ends that fall together, and one edge for stretches that do. */
function merged(parts: readonly Stretch[]): {
  readonly edges: Owned[]
  readonly vertices: readonly Vec[]
  readonly startOf: Int32Array
} {
  const { vertices, indexOf } = mergeVertices()
  const edges: Owned[] = []
  const starts: number[] = []
  /** Edges by their lower vertex: few meet at one, so that they are looked through. */
  const at: number[][] = []
  for (const { piece, name, second, run } of parts) {
    const tail = run?.at(-1)?.piece
    const a = indexOf(piece.from)
    const b = indexOf((tail ?? piece).to)
    if (tail) {
      edges.push({ piece, tail, name, run, first: 1, second: 0 })
      starts.push(a, b)
      continue
    }
    if (a === b && lengthOf(piece) <= SHORTEST) continue
    const snapped = snappedTo(piece, vertices[a], vertices[b])
    const low = Math.min(a, b)
    const candidates = (at[low] ??= [])
    const same = candidates.find(
      (i) =>
        (starts[2 * i] ?? 0) + (starts[2 * i + 1] ?? 0) === a + b &&
        coincide(edges[i]?.piece, snapped),
    )
    if (same !== undefined) {
      const edge = edges[same]
      const along = starts[2 * same] === a && (a !== b || sameWay(edge?.piece, snapped)) ? 1 : -1
      if (edge && second) edge.second += along
      else if (edge) edge.first += along
      continue
    }
    const i =
      edges.push({ piece: snapped, name, first: second ? 0 : 1, second: second ? 1 : 0 }) - 1
    starts.push(a, b)
    candidates.push(i)
  }
  return { edges, vertices, startOf: Int32Array.from(starts) }
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

function sameWay(a: Piece | undefined, b: Piece): boolean {
  return a !== undefined && Math.sign(curvatureAt(a, 0.5)) === Math.sign(curvatureAt(b, 0.5))
}

/**
 * The winding numbers of both outlines to the left of every half-edge: one ray for each connected
 * network, and from there on by going round the vertices.
 */
function windings(arrangement: Arrangement<Owned>): readonly [Int32Array, Int32Array] {
  const { edges, startOf, leaving } = arrangement
  const first = new Int32Array(startOf.length)
  const second = new Int32Array(startOf.length)
  const known = new Uint8Array(startOf.length)
  let rays: readonly [readonly Turned[], readonly Turned[]] | undefined
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
    rays ??= [raysOf(edges, (e) => e.first), raysOf(edges, (e) => e.second)]
    const place = { beside: piece }
    set(seed, windingAround(place, rays[0]), windingAround(place, rays[1]))
    const queue = [startOf[seed] ?? 0, startOf[seed + 1] ?? 0]
    for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
      const around = leaving[v] ?? []
      const begin = around.findIndex((h) => known[h] === 1)
      for (let k = 1; begin >= 0 && k < around.length; k++) {
        const before = around[(begin + k - 1) % around.length] ?? 0
        const h = around[(begin + k) % around.length] ?? 0
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

function raysOf(edges: readonly Owned[], times: (edge: Owned) => number): readonly Turned[] {
  const rays: Turned[] = []
  for (const edge of edges) {
    const n = times(edge)
    if (n === 0) continue
    if (!edge.run) rays.push({ piece: edge.piece, times: n })
    else for (const { piece } of edge.run) rays.push({ piece, times: n })
  }
  return rays
}
