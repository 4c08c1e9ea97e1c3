import { nearestOnCubic } from './cubic'
import { boundsOf, parameterOfDirection, radiusOf, type Piece } from './piece'
import { cross, distance, dot, norm, subtract, type Vec } from './vector'

/** A place where two pieces meet: the point, and the parameter on each. */
export interface Meeting {
  readonly at: Vec
  readonly t: number
  readonly u: number
}

/** The parameter of a point that lies on a piece within a tolerance in mm; ends count first. */
export function parameterNear(piece: Piece, p: Vec, tolerance: number): number | undefined {
  if (distance(p, piece.from) <= tolerance) return 0
  if (distance(p, piece.to) <= tolerance) return 1
  switch (piece.kind) {
    case 'line': {
      const d = subtract(piece.to, piece.from)
      const length = norm(d)
      const t = dot(subtract(p, piece.from), d) / (length * length)
      const off = Math.abs(cross(d, subtract(p, piece.from))) / length
      return t > 0 && t < 1 && off <= tolerance ? t : undefined
    }
    case 'arc': {
      const fromCentre = subtract(p, piece.centre)
      if (Math.abs(norm(fromCentre) - radiusOf(piece)) > tolerance) return undefined
      return parameterOfDirection(piece, fromCentre)
    }
    case 'cubic': {
      const { min, max } = boundsOf(piece)
      if (p.x < min.x - tolerance || p.x > max.x + tolerance) return undefined
      if (p.y < min.y - tolerance || p.y > max.y + tolerance) return undefined
      const found = nearestOnCubic(piece, p)
      return found.distance <= tolerance ? found.t : undefined
    }
  }
}
