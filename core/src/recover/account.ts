import { integrate, lengthOf as lengthOfPiece, nearestOn, type Piece, type Vec } from '../geometry'
import { areaOf, reachOf } from './axis'
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
  const whole = outline.map((p) => 2 * Math.PI * Math.abs(integrate(p, 0).yAlong))
  const found = outline.map(() => 0)
  let [turned, rest, departure] = [0, 0, 0]
  for (const face of solid.faces) {
    const area = areaOf(face)
    const points = inHalfPlane(face.nodes, about)
    const off = points.map((p) => nearest(outline, p).distance)
    departure = off.reduce((most, d) => Math.max(most, d), departure)
    if (runOf(face, about, size) && off.every((d) => d <= near)) {
      turned += area
      const at = nearest(outline, middleOf(face, about)).piece
      found[at] = (found[at] ?? 0) + area
      continue
    }
    rest += area
    // Corners of a flat may all lie on what is turned: its middles tell that it does not.
    departure = middlesOf(face, about).reduce(
      (most, p) => Math.max(most, nearest(outline, p).distance),
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
    turned: turned / (turned + rest),
    covered: covered / whole.reduce((sum, area) => sum + area, 0),
    hasOutside:
      outside.length === 0 || outside.some((i) => (found[i] ?? 0) > THERE * (whole[i] ?? 0)),
    departure,
  }
}

function nearest(
  outline: readonly Piece[],
  p: Vec,
): { readonly piece: number; readonly distance: number } {
  let best = { piece: 0, distance: Infinity }
  outline.forEach((piece, i) => {
    const { distance } = nearestOn(piece, p)
    if (distance < best.distance) best = { piece: i, distance }
  })
  return best
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
