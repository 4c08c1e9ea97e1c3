import {
  areApart,
  distance,
  meetOnlyAtEnd,
  meetingsOf,
  stretch,
  type Meeting,
  type Piece,
  type Vec,
} from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { boxesOf, forNearPairs, numberAt as at } from './nearPairs'
import type { EdgeName, SectionEdge } from '../types'

/** Outlines: closed runs of edges with what they enclose on their left. */
export type Outline = readonly SectionEdge[]

/** A stretch between two meetings, with how often each outline runs along it, forwards positive. */
export interface Stretch {
  piece: Piece
  readonly name: EdgeName
  /** All edges of a run that meets nothing, of which the piece is the first and the tail the last. */
  readonly run: Outline | undefined
  readonly tail: Piece | undefined
  first: number
  second: number
}

/**
 * Splits the edges of two outlines at their meetings. A sweep along the axis finds the pairs that
 * are near. Edges of the first that follow one another far from the second stay together.
 * @param selfCrossing true when edges of one outline may cross others of the same
 */
export function split(first: Outline, second: Outline, selfCrossing: boolean): Stretch[] {
  const edges = [...first, ...second]
  const boxes = boxesOf(edges)
  const isFar = selfCrossing ? () => false : farFrom(boxes, first.length, edges.length)
  const cuts = cutsOf(edges, first.length, boxes, isFar, selfCrossing)
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

interface Cut {
  readonly t: number
  readonly at: Vec
}

/** Where each edge is cut, if it is, in the order of its direction. */
function cutsOf(
  edges: Outline,
  seconds: number,
  boxes: Float64Array,
  isFar: (i: number) => boolean,
  selfCrossing: boolean,
): readonly (Cut[] | undefined)[] {
  const cuts = new Array<Cut[] | undefined>(edges.length)
  forNearPairs(boxes, isFar, (i, j) => {
    if (!selfCrossing && j >= seconds === i >= seconds) return
    const [edge, other] = [edges[i], edges[j]]
    if (!edge || !other || areApart(edge.piece, other.piece, VERTEX_TOLERANCE)) return
    if (meetOnlyAtEnd(edge.piece, other.piece, VERTEX_TOLERANCE)) return
    for (const m of meetingsOf(edge.piece, other.piece, VERTEX_TOLERANCE)) {
      note(cuts, i, edge.piece, m.t, m)
      note(cuts, j, other.piece, m.u, m)
    }
  })
  return cuts
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
  if (closes) parts.push(part(last.piece, last.name, false))
  const open = closes ? run.slice(0, -1) : run
  const tail = open.length === 1 ? undefined : open.at(-1)?.piece
  parts.push({ ...part(first.piece, first.name, false), run: tail && open, tail })
}

const part = (piece: Piece, name: EdgeName, second: boolean): Stretch => ({
  piece,
  name,
  run: undefined,
  tail: undefined,
  first: second ? 0 : 1,
  second: second ? 1 : 0,
})

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
  if (!list) {
    cuts[i] = [{ t, at }]
    return
  }
  let place = list.push({ t, at }) - 1
  for (let before = list[place - 1]; before && before.t > t; before = list[place - 1]) {
    list[place--] = before
  }
  list[place] = { t, at }
}

function addStretches(
  parts: Stretch[],
  { piece, name }: SectionEdge,
  second: boolean,
  cuts: Cut[] | undefined,
): void {
  if (!cuts) {
    parts.push(part(piece, name, second))
    return
  }
  let { from } = piece
  for (let i = 0; i <= cuts.length; i++) {
    const to = cuts[i]?.at ?? piece.to
    if (distance(from, to) <= VERTEX_TOLERANCE) continue
    parts.push(part(stretch(piece, from, to), name, second))
    from = to
  }
}
