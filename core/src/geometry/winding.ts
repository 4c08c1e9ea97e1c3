import { leftNormal } from './change'
import { cubicAt, parameterWhere, type CubicPiece } from './cubic'
import {
  curvatureAt,
  pointAt,
  radiusOf,
  sweepOf,
  type ArcPiece,
  type LinePiece,
  type Piece,
} from './piece'
import type { Vec } from './vector'

/** A piece and how often its direction counts. */
export interface Turned {
  readonly piece: Piece
  readonly times: number
}

/** The four directions along which rays are cast. */
const RAYS: readonly Vec[] = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 0, y: -1 },
]

/** A place in the directions of a ray: along it, and to its left. Exact, as rays run along the axes. */
const along = (way: Vec, p: Vec): number => way.x * p.x + way.y * p.y
const aside = (way: Vec, p: Vec): number => way.x * p.y - way.y * p.x

/** How often pieces wind counter-clockwise around a place on none of them, by the crossings of a ray. */
export function windingAround(place: Vec, pieces: Iterable<Turned>): number {
  const way = RAYS[0] ?? place
  let sum = 0
  for (const { piece, times } of pieces)
    if (times !== 0) sum += times * crossings(piece, way, place)
  return sum
}

/**
 * What each piece adds to the winding just to the left of the middle of one of them, run through once.
 */
export function windingsBeside(own: Piece): (piece: Piece) => number {
  const middle = pointAt(own, 0.5)
  // The ray that leaves the piece most steeply, on the outside of its turn, never meets it again.
  const normal = leftNormal(own, 0.5)
  const outside = curvatureAt(own, 0.5) > 0 ? -1 : 1
  const steepness = (way: Vec): number => outside * (way.x * normal.x + way.y * normal.y)
  const way = RAYS.reduce((best, r) => (steepness(r) > steepness(best) ? r : best))
  return (piece) => (piece === own ? (outside > 0 ? 0 : 1) : crossings(piece, way, middle))
}

/** By how much more often a piece crosses a ray from right to left than back. */
function crossings(piece: Piece, way: Vec, from: Vec): number {
  switch (piece.kind) {
    case 'line':
      return lineCrossing(piece, way, from)
    case 'arc':
      return arcCrossings(piece, way, from)
    case 'cubic':
      return cubicCrossing(piece, way, from)
  }
}

/** A simple cubic crosses a ray once or not at all, as its chord crosses the ray's line. */
function cubicCrossing(piece: CubicPiece, way: Vec, place: Vec): number {
  const o = seenFrom(way, place)
  const [from, to] = [seenFrom(way, piece.from), seenFrom(way, piece.to)]
  if (from.y > o.y === to.y > o.y || Math.max(from.x, to.x) <= o.x) return 0
  const sign = to.y > from.y ? 1 : -1
  if (Math.min(from.x, to.x) > o.x) return sign
  // The coordinate across the ray, in the plane itself.
  const across = way.x === 0 ? 'x' : 'y'
  const at = cubicAt(piece.on, parameterWhere(piece, across, place[across]))
  return along(way, at) > o.x ? sign : 0
}

const seenFrom = (way: Vec, p: Vec): Vec => ({ x: along(way, p), y: aside(way, p) })

/** +1 for a line that crosses the ray upwards, −1 downwards; ends count for the part above only. */
function lineCrossing({ from, to }: LinePiece, way: Vec, place: Vec): number {
  const level = aside(way, place)
  const a = aside(way, from)
  const b = aside(way, to)
  if (a > level === b > level) return 0
  const start = along(way, from)
  const x = start + ((level - a) * (along(way, to) - start)) / (b - a)
  return x > along(way, place) ? (b > a ? 1 : -1) : 0
}

/** An arc is taken apart where it turns back, so that each part runs only up or only down. */
function arcCrossings(piece: ArcPiece, way: Vec, place: Vec): number {
  const o = seenFrom(way, place)
  const c = seenFrom(way, piece.centre)
  const r = radiusOf(piece)
  // Ends may stick out by rounding, and it is by them that neighbours agree; hence the margin.
  const margin = 1e-6 * r
  if (Math.abs(o.y - c.y) > r + margin || o.x > c.x + r + margin) return 0
  const from = seenFrom(way, piece.from)
  const to = seenFrom(way, piece.to)
  const half = Math.sqrt(Math.max(0, (r - (o.y - c.y)) * (r + (o.y - c.y))))
  const start = Math.atan2(from.y - c.y, from.x - c.x)
  const sweep = sweepOf(piece)
  const turns = Math.sign(sweep)
  let sum = 0
  let here = from.y
  // Heights of the turning points between the two ends, in the order they are passed.
  const part = (until: number, right: boolean): void => {
    if (here > o.y !== until > o.y) {
      const x = right ? c.x + half : c.x - half
      if (x > o.x) sum += until > here ? 1 : -1
    }
    here = until
  }
  const quarter = Math.PI / 2
  // The first turning point, at an odd multiple of a quarter turn, that lies strictly ahead.
  let turn =
    turns > 0
      ? Math.floor((start - quarter) / Math.PI + 1)
      : Math.ceil((start - quarter) / Math.PI - 1)
  let angle = start
  for (;;) {
    const next = quarter + turn * Math.PI
    if (turns * (next - start) >= Math.abs(sweep)) break
    part(turn % 2 === 0 ? c.y + r : c.y - r, Math.cos((angle + next) / 2) > 0)
    angle = next
    turn += turns
  }
  part(to.y, Math.cos((angle + start + sweep) / 2) > 0)
  return sum
}
