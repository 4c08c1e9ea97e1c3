import { leftNormal } from './change'
import { cubicAt, parameterWhere, type CubicPiece } from './cubic'
import { curvatureAt, pointAt, radiusOf, sweepOf, type ArcPiece, type Piece } from './piece'
import type { Vec } from './vector'

/** A piece and how often its direction counts. */
export interface Turned {
  readonly piece: Piece
  readonly times: number
}

/** The four directions along which rays are cast; each turns a place so that the ray runs to +u. */
const RAYS: readonly { readonly way: Vec; readonly turned: (p: Vec) => Vec }[] = [
  { way: { x: 1, y: 0 }, turned: (p) => p },
  { way: { x: 0, y: 1 }, turned: (p) => ({ x: p.y, y: -p.x }) },
  { way: { x: -1, y: 0 }, turned: (p) => ({ x: -p.x, y: -p.y }) },
  { way: { x: 0, y: -1 }, turned: (p) => ({ x: -p.y, y: p.x }) },
]

/**
 * How often pieces wind counter-clockwise around a place, by the signed crossings of a ray.
 * @param place a point that lies on none of them, or the middle of one piece and which one it is: then
 *   the winding just to the left of that piece's middle
 */
export function windingAround(
  place: Vec | { readonly beside: Piece },
  pieces: Iterable<Turned>,
): number {
  if (!('beside' in place)) return crossings(place, RAYS[0] ?? NO_RAY, pieces, undefined)
  const own = place.beside
  const middle = pointAt(own, 0.5)
  // The ray that leaves the piece most steeply, on the outside of its turn, never meets it again.
  const normal = leftNormal(own, 0.5)
  const outside = curvatureAt(own, 0.5) > 0 ? -1 : 1
  const steepness = ({ way }: (typeof RAYS)[number]): number =>
    outside * (way.x * normal.x + way.y * normal.y)
  const ray = RAYS.reduce((best, r) => (steepness(r) > steepness(best) ? r : best))
  let ownTimes = 0
  const others: Turned[] = []
  for (const turned of pieces) {
    if (turned.piece === own) ownTimes = turned.times
    else others.push(turned)
  }
  const beyond = crossings(middle, ray, others, own)
  return outside > 0 ? beyond : beyond + ownTimes
}

const NO_RAY = { way: { x: 1, y: 0 }, turned: (p: Vec): Vec => p }

function crossings(
  from: Vec,
  ray: (typeof RAYS)[number],
  pieces: Iterable<Turned>,
  except: Piece | undefined,
): number {
  const origin = ray.turned(from)
  let sum = 0
  for (const { piece, times } of pieces) {
    if (piece === except || times === 0) continue
    sum +=
      times *
      (piece.kind === 'line'
        ? lineCrossing(piece, ray.turned, origin)
        : piece.kind === 'arc'
          ? arcCrossings(piece, ray.turned, origin)
          : cubicCrossing(piece, ray, origin))
  }
  return sum
}

/** A simple cubic crosses a ray once or not at all, as its chord crosses the ray's line. */
function cubicCrossing(piece: CubicPiece, ray: (typeof RAYS)[number], o: Vec): number {
  const [from, to] = [ray.turned(piece.from), ray.turned(piece.to)]
  if (from.y > o.y === to.y > o.y || Math.max(from.x, to.x) <= o.x) return 0
  const sign = to.y > from.y ? 1 : -1
  if (Math.min(from.x, to.x) > o.x) return sign
  // The coordinate across the ray, in the plane itself.
  const across = ray.way.x === 0 ? 'x' : 'y'
  const value = across === 'y' ? ray.way.x * o.y : -ray.way.y * o.y
  const at = ray.turned(cubicAt(piece.on, parameterWhere(piece, across, value)))
  return at.x > o.x ? sign : 0
}

/** +1 for a line that crosses the ray upwards, −1 downwards; ends count for the part above only. */
function lineCrossing(
  { from, to }: { readonly from: Vec; readonly to: Vec },
  turned: (p: Vec) => Vec,
  o: Vec,
): number {
  const a = turned(from)
  const b = turned(to)
  if (a.y > o.y === b.y > o.y) return 0
  const x = a.x + ((o.y - a.y) * (b.x - a.x)) / (b.y - a.y)
  return x > o.x ? (b.y > a.y ? 1 : -1) : 0
}

/** An arc is taken apart where it turns back, so that each part runs only up or only down. */
function arcCrossings(piece: ArcPiece, turned: (p: Vec) => Vec, o: Vec): number {
  const c = turned(piece.centre)
  const r = radiusOf(piece)
  // Ends may stick out by rounding, and it is by them that neighbours agree; hence the margin.
  const margin = 1e-6 * r
  if (Math.abs(o.y - c.y) > r + margin || o.x > c.x + r + margin) return 0
  const from = turned(piece.from)
  const to = turned(piece.to)
  const half = Math.sqrt(Math.max(0, (r - (o.y - c.y)) * (r + (o.y - c.y))))
  const start = Math.atan2(from.y - c.y, from.x - c.x)
  const sweep = sweepOf(piece)
  const way = Math.sign(sweep)
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
    way > 0
      ? Math.floor((start - quarter) / Math.PI + 1)
      : Math.ceil((start - quarter) / Math.PI - 1)
  let angle = start
  for (;;) {
    const next = quarter + turn * Math.PI
    if (way * (next - start) >= Math.abs(sweep)) break
    part(turn % 2 === 0 ? c.y + r : c.y - r, Math.cos((angle + next) / 2) > 0)
    angle = next
    turn += way
  }
  part(to.y, Math.cos((angle + start + sweep) / 2) > 0)
  return sum
}
