import {
  apart,
  boundsOf,
  cross,
  dot,
  fromPoint,
  leftNormal,
  nearestOn,
  pointAt,
  mapped,
  scale,
  subtract,
  tangentAt,
  unit,
  windingAround,
  distance,
  mix,
  type Apart,
  type Box,
  type Piece,
  type Vec,
} from '../geometry'
import { liesOnAxis, loopsOf, type Section } from '../section'
import { VERTEX_TOLERANCE } from '../tolerances'
import { once } from '../once'

/** An edge with what leads away from its ends along the outline. */
interface Side {
  readonly piece: Piece
  readonly box: Box
  /** Into the material; a line's only, since an arc's turns. */
  readonly inward: Vec | undefined
  /** Number of the loop. */
  readonly loop: number
  /** The way on from its start and from its end, along the neighbouring edge. */
  readonly before: Vec
  readonly after: Vec
}

/** The directions of a corner may miss a right angle by this much. */
const ROUNDING = 1e-9

/** The cosine of 60°: a way that leaves a wall less steeply than this measures no wall. */
const STEEP = 0.5

/**
 * The least thickness of a body's wall: the shortest way through the material between surfaces that
 * do not meet, square to both, or from an end of one of them. Where two surfaces run together in an
 * edge there is no wall. Ways across the axis count too: a solid shaft is as thick as its diameter.
 * @returns undefined for a section without material
 */
export const leastWall = once((section: Section): Apart | undefined => {
  const sides = sidesOf(section)
  const turned = sides.map(({ piece }) => ({ piece, times: 1 }))
  const inMaterial = (p: Vec): boolean => windingAround(up(p), turned) > 0
  let best: Apart | undefined
  const offer = (a: Side, b: Side): void => {
    const way = widest(a.piece, b.piece)
    if (way.distance <= VERTEX_TOLERANCE || (best && way.distance >= best.distance)) return
    const through = unit(subtract(way.to, way.from))
    if (!endsWell(a, way.from, through) || !endsWell(b, way.to, scale(through, -1))) return
    const middle = mix(way.from, way.to, 0.5)
    const along = sides.filter((s) => nearestOn(s.piece, up(middle)).distance <= VERTEX_TOLERANCE)
    const inside =
      along.length > 0
        ? along.some(isRim)
        : QUARTERS.every((t) => inMaterial(mix(way.from, way.to, t)))
    if (inside) best = way
  }
  const surfaces = sides.filter((s) => !onAxis(s.piece))
  // Lands and webs lie between edges next but one: a short way found early spares most of the rest.
  surfaces.forEach((a, i) => {
    const b = surfaces[i + 2]
    if (b && !areNeighbours(a, b)) offer(a, b)
  })
  for (let i = 0; i < surfaces.length; i++) {
    const a = surfaces[i]
    for (let k = i + 1; a && k < surfaces.length; k++) {
      const b = surfaces[k]
      if (
        b &&
        mayFace(a, b) &&
        (!best || boxesApart(a.box, b.box) < best.distance) &&
        !areNeighbours(a, b)
      ) {
        offer(a, b)
      }
    }
  }
  // The other half of the section lies below the axis.
  const below = surfaces.map(mirrored)
  for (const a of surfaces) {
    const least = a.box.min.y
    if (least <= VERTEX_TOLERANCE || (best && least > best.distance)) continue
    for (const b of below) {
      if (mayFace(a, b) && (!best || boxesApart(a.box, b.box) < best.distance)) offer(a, b)
    }
  }
  return best
})

/** Where a way is looked at to tell whether it runs through material. */
const QUARTERS = [0.25, 0.5, 0.75]

/** The place in the upper half that is the same place of the part. */
const up = (p: Vec): Vec => ({ x: p.x, y: Math.abs(p.y) })

/** A way along an edge measures a wall where the edge is the wall's end: outside corners at both ends. */
function isRim({ piece, before, after }: Side): boolean {
  const starts = cross(scale(before, -1), tangentAt(piece, 0)) > ROUNDING
  const ends = cross(tangentAt(piece, 1), after) > ROUNDING
  return (starts || piece.from.y <= VERTEX_TOLERANCE) && (ends || piece.to.y <= VERTEX_TOLERANCE)
}

const onAxis = (piece: Piece): boolean =>
  liesOnAxis({ piece, name: { step: '', entity: '', role: 'drawn' } })

function sidesOf(section: Section): Side[] {
  return loopsOf(section).flatMap((edges, loop) =>
    edges.map(({ piece }, at) => {
      const previous = edges[(at + edges.length - 1) % edges.length]?.piece ?? piece
      const next = edges[(at + 1) % edges.length]?.piece ?? piece
      const [start, end] = [tangentAt(piece, 0), tangentAt(piece, 1)]
      const onAxisAt = (p: Vec): boolean => p.y <= VERTEX_TOLERANCE
      // Across the axis the outline goes on as its own mirror image.
      return {
        ...{ piece, loop, box: boundsOf(piece) },
        inward: piece.kind === 'line' ? leftNormal(piece, 0) : undefined,
        before: onAxisAt(piece.from)
          ? { x: start.x, y: -start.y }
          : scale(tangentAt(previous, 1), -1),
        after: onAxisAt(piece.to) ? { x: -end.x, y: end.y } : tangentAt(next, 0),
      }
    }),
  )
}

/** No way leads into the material from one line and out at another that looks the same way. */
function mayFace(a: Side, b: Side): boolean {
  return !a.inward || !b.inward || dot(a.inward, b.inward) < STEEP
}

/** Edges that share a corner meet there, and have no thickness between them. */
function areNeighbours(a: Side, b: Side): boolean {
  if (a.loop !== b.loop) return false
  return [distance(a.piece.from, b.piece.to), distance(a.piece.to, b.piece.from)].some(
    (d) => d <= VERTEX_TOLERANCE,
  )
}

/** The nearest places of two pieces; of parallel ones, in the middle of where they face one another. */
function widest(a: Piece, b: Piece): Apart {
  const way = apart(a, b)
  const t = (nearestOn(a, b.from).t + nearestOn(a, b.to).t) / 2
  const middle = fromPoint(pointAt(a, t), b)
  return middle.distance <= way.distance + ROUNDING ? middle : way
}

/** Whether a way into the material goes through a wall: steeply, or from the point of an inside corner. */
function endsWell({ piece, before, after }: Side, at: Vec, through: Vec): boolean {
  const { t } = nearestOn(piece, at)
  if (Math.abs(dot(tangentAt(piece, t), through)) <= STEEP) return true
  if (distance(at, piece.from) <= VERTEX_TOLERANCE) {
    return dot(before, through) <= ROUNDING && dot(tangentAt(piece, 0), through) <= ROUNDING
  }
  if (distance(at, piece.to) <= VERTEX_TOLERANCE) {
    return dot(after, through) <= ROUNDING && -dot(tangentAt(piece, 1), through) <= ROUNDING
  }
  return false
}

function mirrored(side: Side): Side {
  const down = (p: Vec): Vec => ({ x: p.x, y: -p.y })
  const { piece } = side
  const image = mapped(piece, down, true)
  return {
    ...side,
    piece: image,
    box: boundsOf(image),
    inward: side.inward && down(side.inward),
    before: down(side.before),
    after: down(side.after),
  }
}

function boxesApart(a: Box, b: Box): number {
  const x = Math.max(b.min.x - a.max.x, a.min.x - b.max.x, 0)
  const y = Math.max(b.min.y - a.max.y, a.min.y - b.max.y, 0)
  return Math.sqrt(x * x + y * y)
}
