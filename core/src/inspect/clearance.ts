import {
  apart,
  boundsOf,
  coursesOf,
  otherOf,
  radiusOf,
  type Apart,
  type Coordinate,
  type Course,
  type Piece,
} from '../geometry'
import { combine, edgesOf, liesOnAxis, sectionArea, type Section } from '../section'
import { VERTEX_TOLERANCE } from '../tolerances'
import { once } from '../once'

/** How two bodies that turn about one axis stand to one another; lengths in mm. */
export interface Clearance {
  /** True where they share material: the rest then means nothing. */
  readonly overlap: boolean
  /** The least gap, and where. */
  readonly gap: Apart
  /** How far the first can be moved sideways until it touches; undefined where nothing stops it. */
  readonly radial: number | undefined
  /** How far it can be moved to either side along the axis; undefined where it leaves freely. */
  readonly left: number | undefined
  readonly right: number | undefined
}

/** Sharing less than this area in mm² is touching. */
const LEAST_SHARED = 1e-9

/**
 * Exact from the half-sections. Since both are round about one axis the nearest places lie in one
 * half-plane; moved sideways they touch first at the axial place where radii differ least; moved
 * along the axis, at the radius where the way is shortest.
 * @param moving the section of the body that moves
 * @param still the one it moves in
 * @returns undefined when one of them has no material
 */
export const clearanceBetween = (moving: Section, still: Section): Clearance | undefined =>
  clearancesOf(moving)(still)

const clearancesOf = once((moving: Section) => once((still: Section) => clearance(moving, still)))

function clearance(moving: Section, still: Section): Clearance | undefined {
  const [a, b] = [surfaces(moving), surfaces(still)]
  const gap = leastApart(a, b)
  if (!gap) return undefined
  const shared = combine(moving, still, 'common')
  const steps = gapsAlong(a, b, 'y')
  const right = steps.filter((g) => g.middle > 0).map((g) => g.least)
  const left = steps.filter((g) => g.middle < 0).map((g) => g.least)
  const sideways = gapsAlong(a, b, 'x').map((g) => g.least)
  return {
    overlap: shared !== undefined && sectionArea(shared) > LEAST_SHARED,
    gap,
    radial: least(sideways),
    left: least(left),
    right: least(right),
  }
}

const least = (values: readonly number[]): number | undefined =>
  values.length === 0 ? undefined : Math.max(0, Math.min(...values))

const surfaces = (section: Section): Piece[] =>
  edgesOf(section).flatMap((e) => (liesOnAxis(e) ? [] : [e.piece]))

/** The least distance between two sets of pieces. */
export function leastApart(a: readonly Piece[], b: readonly Piece[]): Apart | undefined {
  let best: Apart | undefined
  const boxes = b.map(boundsOf)
  for (const piece of a) {
    const box = boundsOf(piece)
    b.forEach((other, i) => {
      const far = boxes[i]
      if (best && far) {
        const dx = Math.max(far.min.x - box.max.x, box.min.x - far.max.x, 0)
        const dy = Math.max(far.min.y - box.max.y, box.min.y - far.max.y, 0)
        if (Math.hypot(dx, dy) >= best.distance) return
      }
      const next = apart(piece, other)
      if (!best || next.distance < best.distance) best = next
    })
  }
  return best
}

/** The way from a course to another, across a range of the other coordinate that both have. */
interface Way {
  /** The least way by size. */
  readonly least: number
  /** The way in the middle of the range, whose sign says to which side the other lies. */
  readonly middle: number
}

/** Ways from pieces to others in one direction, at every value of a coordinate that both reach. */
function gapsAlong(a: readonly Piece[], b: readonly Piece[], over: Coordinate): Way[] {
  const others = b.flatMap((piece) => coursesOf(piece, over))
  return a
    .flatMap((piece) => coursesOf(piece, over))
    .flatMap((course) => others.flatMap((other) => wayBetween(course, other, over) ?? []))
}

function wayBetween(from: Course, to: Course, over: Coordinate): Way | undefined {
  const low = Math.max(from.low, to.low)
  const high = Math.min(from.high, to.high)
  // What only passes by at one value is slid along, and stops nothing.
  if (high - low <= VERTEX_TOLERANCE) return undefined
  const way = (value: number): number => to.at(value) - from.at(value)
  const isFree = from.piece.kind === 'cubic' || to.piece.kind === 'cubic'
  const turning = isFree ? leastBy(way, low, high) : turningPlaces(from.piece, to.piece, over)
  const places = [low, high, ...turning]
  const ways = places.filter((v) => v >= low && v <= high).map((v) => Math.abs(way(v)))
  return { least: Math.min(...ways), middle: way((low + high) / 2) }
}

/** Looks along a range, and halvings of what lies around the least found there. */
const LOOKS = 32
const HALVINGS = 60

/** Where a way that has no closed form is least by size within a range. */
function leastBy(way: (value: number) => number, low: number, high: number): number[] {
  const size = (v: number): number => Math.abs(way(v))
  const looks = Array.from({ length: LOOKS + 1 }, (_, i) => low + ((high - low) * i) / LOOKS)
  const least = looks.reduce((best, v) => (size(v) < size(best) ? v : best))
  let [a, b] = [
    Math.max(low, least - (high - low) / LOOKS),
    Math.min(high, least + (high - low) / LOOKS),
  ]
  for (let i = 0; i < HALVINGS; i++) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3]
    if (size(p) < size(q)) b = q
    else a = p
  }
  return [(a + b) / 2]
}

/**
 * Where the way between two pieces may be least within a range: where their tangents are parallel. For
 * two arcs with the centres c and radii r that is at c₁ + r₁n with n = (c₂ − c₁)/(±r₁ ± r₂).
 */
function turningPlaces(a: Piece, b: Piece, over: Coordinate): number[] {
  if (a.kind === 'line' && b.kind === 'line') return []
  if (a.kind === 'arc' && b.kind === 'arc') {
    const between = b.centre[over] - a.centre[over]
    return [radiusOf(a) - radiusOf(b), radiusOf(a) + radiusOf(b)].flatMap((spread) => {
      if (spread === 0) return []
      const reach = (radiusOf(a) * between) / spread
      return [a.centre[over] + reach, a.centre[over] - reach]
    })
  }
  const [arc, straight] = a.kind === 'arc' ? [a, b] : [b, a]
  if (arc.kind !== 'arc') return []
  const other = otherOf(over)
  const along = straight.to[over] - straight.from[over]
  const across = straight.to[other] - straight.from[other]
  const reach = (radiusOf(arc) * across) / Math.hypot(along, across)
  return [arc.centre[over] + reach, arc.centre[over] - reach]
}
