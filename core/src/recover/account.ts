import { integrate, lengthOf as lengthOfPiece, type Piece, type Vec } from '../geometry'
import { areaOf, reachOf } from './axis'
import { nearestIn } from './near'
import { inHalfPlane, runOf } from './runs'
import type { ForeignFace, ForeignSolid, Line } from './types'

/** How the faces of a solid stand to a half-section turned about a line. */
export interface Account {
  /** The share of the solid's surface that is part of the turned one. */
  readonly turned: number
  /** The share of the turned surface that some face of the solid covers. */
  readonly covered: number
  /** Whether the outermost part of it is there, and not only what closes the outline. */
  readonly hasOutside: boolean
  /** The numbers of the faces that are not part of it. */
  readonly rest: readonly number[]
  /** How far the farthest point of any face lies from the turned surface, in mm. */
  readonly departure: number
}

/** Points lie on an outline within this share of the size of the solid: its ends were joined within half of that. */
const ON = 2e-5
/** A piece is there when faces cover more of it than this. */
const THERE = 0.3
/** What reaches so far out, as a share of the greatest radius, is the outside. */
const OUTSIDE = 0.98

/**
 * Accounts for every face of a solid: it is part of what its half-section is turned to when it is turned about the line
 * and its points lie on the outline. What is left over is a hole, a flat, a slot or a boss, however small.
 */
export function accountFor(solid: ForeignSolid, about: Line, outline: readonly Piece[]): Account {
  const size = reachOf(solid)
  const near = ON * size
  const nearest = nearestIn(outline)
  const whole = outline.map((p) => 2 * Math.PI * Math.abs(integrate(p, 0).yAlong))
  const found = outline.map(() => 0)
  let [turned, other, departure] = [0, 0, 0]
  const rest: number[] = []
  for (const [number, face] of solid.faces.entries()) {
    const area = areaOf(face)
    const points = inHalfPlane(face.nodes, about)
    const off = points.map((p) => nearest(p).distance)
    departure = off.reduce((most, d) => Math.max(most, d), departure)
    const isOn = runOf(face, about, size) && off.every((d) => d <= near)
    if (isOn && isFilled(face, about, nearest, near)) {
      turned += area
      for (const [at, share] of sharedOut(face, about, nearest, outline)) {
        found[at] = (found[at] ?? 0) + share * area
      }
      continue
    }
    other += area
    rest.push(number)
    // Corners of a flat may all lie on what is turned: its middles tell that it does not.
    departure = middlesOf(face, about).reduce(
      (most, p) => Math.max(most, nearest(p).distance),
      departure,
    )
  }
  const covered = whole.reduce((sum, area, i) => sum + Math.min(area, found[i] ?? 0), 0)
  const greatest = Math.max(...outline.flatMap((p) => [p.from.y, p.to.y]))
  const outside = outline.flatMap((p, i) => {
    const goesAlong = Math.abs(p.to.x - p.from.x) > 0.5 * lengthOfPiece(p)
    return goesAlong && Math.max(p.from.y, p.to.y) >= OUTSIDE * greatest ? [i] : []
  })
  return {
    turned: turned / (turned + other),
    covered: covered / whole.reduce((sum, area) => sum + area, 0),
    hasOutside:
      outside.length === 0 || outside.some((i) => (found[i] ?? 0) > THERE * (whole[i] ?? 0)),
    rest,
    departure,
  }
}

/** The chords of a circle come nearer to its middle than this share of its radius. */
const SAGGED = 0.02

/** Whether what lies between the corners of a face is turned too: those of a slot's floor may all lie on a cylinder. */
function isFilled(
  face: ForeignFace,
  about: Line,
  nearest: ReturnType<typeof nearestIn>,
  near: number,
): boolean {
  if (face.kind !== 'plane') return true
  const inner = inHalfPlane(face.nodes, about).reduce((least, p) => Math.min(least, p.y), Infinity)
  return middlesOf(face, about).every((p) => nearest(p).distance <= near + SAGGED * inner)
}

/**
 * The pieces of an outline that a face is made by, with the shares of it that they make: a curve of several cubics makes
 * one face.
 */
function sharedOut(
  face: ForeignFace,
  about: Line,
  nearest: ReturnType<typeof nearestIn>,
  outline: readonly Piece[],
): ReadonlyMap<number, number> {
  if (!face.spline) return new Map([[nearest(middleOf(face, about)).piece, 1]])
  const pieces = [...new Set(middlesOf(face, about).map((p) => nearest(p).piece))]
  const areas = pieces.map((i) => {
    const piece = outline[i]
    return piece ? Math.abs(integrate(piece, 0).yAlong) : 0
  })
  const whole = areas.reduce((sum, a) => sum + a, 0) || 1
  return new Map(pieces.map((i, k) => [i, (areas[k] ?? 0) / whole]))
}

/** The middles of a face's triangles. */
function middlesOf({ nodes, triangles }: ForeignFace, about: Line): Vec[] {
  const places = new Float64Array(triangles.length)
  for (let t = 0; t < triangles.length; t += 3) {
    for (let k = 0; k < 3; k++) {
      const corner = (i: number): number => nodes[3 * (triangles[t + i] ?? 0) + k] ?? 0
      places[t + k] = (corner(0) + corner(1) + corner(2)) / 3
    }
  }
  return inHalfPlane(places, about)
}

/** A place in the half-plane that stands for a face: the mean of its points. */
function middleOf({ nodes }: ForeignFace, about: Line): Vec {
  const points = inHalfPlane(nodes, about)
  const sum = points.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 })
  return { x: sum.x / points.length, y: sum.y / points.length }
}
