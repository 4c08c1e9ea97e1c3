import {
  boundsOf,
  curvatureOf,
  distance,
  lengthOf,
  meetOnlyAtEnd,
  meetingsOf,
  pointAt,
  radiusOf,
  reversed,
  stretch,
  tangentAt,
  windingAround,
  type Meeting,
  type Piece,
  type Turned,
  type Vec,
} from '../geometry'
import { VERTEX_TOLERANCE } from '../tolerances'
import { mergeVertices, ordered, traceLoops, twin, type Arrangement } from './arrangement'
import { nest } from './nesting'
import { edgeKey, type EdgeName, type Loop, type Section, type SectionEdge } from './types'

/** How often the first and the second outline wind around a place decides whether it is material. */
export type Rule = (first: number, second: number) => boolean

/** An edge between two vertices, with how often each outline runs along it, forwards positive. */
interface Owned {
  readonly piece: Piece
  readonly name: EdgeName
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
): Section | undefined {
  const sided = [
    ...first.map((edge) => ({ ...edge, second: false })),
    ...second.map((edge) => ({ ...edge, second: true })),
  ]
  const { edges, vertices, startOf } = merged(split(sided, selfCrossing))
  const arrangement = ordered(edges, vertices, startOf)
  const [wFirst, wSecond] = windings(arrangement)
  const material = (h: number): boolean => rule(wFirst[h] ?? 0, wSecond[h] ?? 0)
  const traced = traceLoops(arrangement, (h) => material(h) && !material(twin(h)))
  const loops: Loop[] = []
  for (const halfEdges of traced) {
    const [start] = halfEdges
    const end = halfEdges.at(-1)
    if (start === undefined || end === undefined) continue
    if (startOf[start] !== startOf[twin(end)]) return undefined
    loops.push(joined(halfEdges.flatMap((h) => edgeAlong(edges, h))))
  }
  return { regions: nest(loops) }
}

function edgeAlong(edges: readonly Owned[], halfEdge: number): SectionEdge[] {
  const edge = edges[halfEdge >> 1]
  if (!edge) return []
  const piece = (halfEdge & 1) === 0 ? edge.piece : reversed(edge.piece)
  return [{ piece, name: edge.name }]
}

/** A stretch whose ends are one vertex is nothing when it is no longer than this; else a full circle. */
const SHORTEST = 8 * VERTEX_TOLERANCE

interface Sided extends SectionEdge {
  readonly second: boolean
}

/** Splits edges at their meetings. A sweep along the axis finds the pairs that are near. */
function split(edges: readonly Sided[], selfCrossing: boolean): Sided[] {
  const boxes = edges.map((e) => boundsOf(e.piece))
  const order = [...edges.keys()].sort((a, b) => (boxes[a]?.min.x ?? 0) - (boxes[b]?.min.x ?? 0))
  const cuts: (Cut[] | undefined)[] = []
  const active: number[] = []
  for (const i of order) {
    const box = boxes[i]
    const edge = edges[i]
    if (!box || !edge) continue
    const left = box.min.x - VERTEX_TOLERANCE
    let kept = 0
    for (const j of active) {
      const otherBox = boxes[j]
      const other = edges[j]
      if (!otherBox || !other || otherBox.max.x < left) continue
      active[kept++] = j
      if (!selfCrossing && other.second === edge.second) continue
      if (otherBox.min.y > box.max.y + VERTEX_TOLERANCE) continue
      if (box.min.y > otherBox.max.y + VERTEX_TOLERANCE) continue
      if (meetOnlyAtEnd(edge.piece, other.piece)) continue
      for (const m of meetingsOf(edge.piece, other.piece, VERTEX_TOLERANCE)) {
        note(cuts, i, edge.piece, m.t, m)
        note(cuts, j, other.piece, m.u, m)
      }
    }
    active.length = kept
    active.push(i)
  }
  return edges.flatMap((edge, i) => stretches(edge, cuts[i]))
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

function stretches(edge: Sided, cuts: Cut[] | undefined): Sided[] {
  if (!cuts) return [edge]
  cuts.sort((a, b) => a.t - b.t)
  const parts: Sided[] = []
  let from = edge.piece.from
  for (const { at } of [...cuts, { at: edge.piece.to }]) {
    if (distance(from, at) <= VERTEX_TOLERANCE) continue
    parts.push({ ...edge, piece: stretch(edge.piece, from, at) })
    from = at
  }
  return parts
}

/** One vertex for ends that fall together, and one edge for stretches that do. */
function merged(parts: readonly Sided[]): {
  readonly edges: Owned[]
  readonly vertices: readonly Vec[]
  readonly startOf: Int32Array
} {
  const { vertices, indexOf } = mergeVertices()
  const edges: Owned[] = []
  const starts: number[] = []
  const between = new Map<number, number[]>()
  for (const { piece, name, second } of parts) {
    const a = indexOf(piece.from)
    const b = indexOf(piece.to)
    if (a === b && lengthOf(piece) <= SHORTEST) continue
    const snapped = snappedTo(piece, vertices[a], vertices[b])
    const key = a < b ? a * 0x4000000 + b : b * 0x4000000 + a
    const candidates = between.get(key)
    const same = candidates?.find((i) => coincide(edges[i]?.piece, snapped))
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
    if (candidates) candidates.push(i)
    else between.set(key, [i])
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
  const middle = pointAt(b, 0.5)
  const other = pointAt(a, 0.5)
  return distance(middle, other) <= 4 * VERTEX_TOLERANCE
}

function sameWay(a: Piece | undefined, b: Piece): boolean {
  return a !== undefined && Math.sign(curvatureOf(a)) === Math.sign(curvatureOf(b))
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
    if (known[seed] === 1 || !piece) continue
    rays ??= [
      edges.map((e) => ({ piece: e.piece, times: e.first })),
      edges.map((e) => ({ piece: e.piece, times: e.second })),
    ]
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

/** Stretches of one edge that follow one another again, as one. */
export function joined(loop: Loop): Loop {
  const out: SectionEdge[] = []
  for (const edge of loop) {
    const last = out.at(-1)
    if (last && continues(last, edge)) out[out.length - 1] = through(last, edge)
    else out.push(edge)
  }
  const [start] = out
  const end = out.at(-1)
  if (start && end && out.length > 2 && continues(end, start)) {
    out[0] = through(end, start)
    out.pop()
  }
  return out
}

function through(a: SectionEdge, b: SectionEdge): SectionEdge {
  return { ...a, piece: stretch(a.piece, a.piece.from, b.piece.to) }
}

function continues(a: SectionEdge, b: SectionEdge): boolean {
  if (a.name !== b.name && edgeKey(a.name) !== edgeKey(b.name)) return false
  const [p, q] = [a.piece, b.piece]
  const [u, v] = [tangentAt(p, 1), tangentAt(q, 0)]
  if (Math.abs(u.x * v.y - u.y * v.x) > 1e-7 || u.x * v.x + u.y * v.y < 0) return false
  if (p.kind === 'line' || q.kind === 'line') return p.kind === q.kind
  return (
    distance(p.centre, q.centre) <= VERTEX_TOLERANCE &&
    Math.abs(radiusOf(p) - radiusOf(q)) <= VERTEX_TOLERANCE &&
    distance(p.from, q.to) > VERTEX_TOLERANCE
  )
}
