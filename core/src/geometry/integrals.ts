import { fewFor } from '../once'
import { alongCubic, controlOf, cubicAt, isSamePiece, type Cubic, type CubicPiece } from './cubic'
import { gauss } from './gauss'
import {
  alongBow,
  bowOf,
  radiusOf,
  sweepOf,
  type ArcPiece,
  type LinePiece,
  type Piece,
} from './piece'
import { cross, type Vec } from './vector'

/**
 * What one piece adds to the integrals over the area it bounds, by Green's theorem, and over its
 * own length. Area integrals run along the boundary counter-clockwise; x is taken from a given
 * origin on the axis so that far-off sections lose no digits.
 */
export interface Integrals {
  /** ∬ dA in mm² */
  readonly area: number
  /** ∬ y dA in mm³ */
  readonly y: number
  /** ∬ x y dA in mm⁴ */
  readonly xy: number
  /** ∬ y³ dA in mm⁵ */
  readonly yyy: number
  /** ∬ x² y dA in mm⁵ */
  readonly xxy: number
  /** ∫ y ds along the piece in mm² */
  readonly yAlong: number
}

export const INTEGRAL_NAMES = ['area', 'y', 'xy', 'yyy', 'xxy', 'yAlong'] as const

/** @param originX axial position in mm from which x is taken */
export function integrate(piece: Piece, originX: number): Integrals {
  switch (piece.kind) {
    case 'line':
      return integrateLine(piece, originX)
    case 'arc':
      return integrateArc(piece, originX)
    case 'cubic':
      return integrateCubic(piece.on, { piece, originX })
  }
}

/** The area between a piece and the datum point in mm², by closed forms. */
export function areaBeside(piece: Piece): number {
  const chord = cross(piece.from, piece.to) / 2
  switch (piece.kind) {
    case 'line':
      return chord
    case 'arc': {
      const sweep = sweepOf(piece)
      return chord + (radiusOf(piece) ** 2 * (sweep - Math.sin(sweep))) / 2
    }
    case 'cubic': {
      const [a, b, c, d] = controlOf(piece)
      const within =
        6 * (cross(a, b) + cross(c, d)) +
        3 * (cross(a, c) + cross(b, c) + cross(b, d)) +
        cross(a, d)
      return (cross(piece.from, a) + cross(d, piece.to)) / 2 + within / 20
    }
  }
}

/** Closed forms: −∫ y dx, −½∫ y² dx, −½∫ x y² dx, −¼∫ y⁴ dx, −½∫ x² y² dx, ∫ y ds on a line. */
function integrateLine(piece: LinePiece, originX: number): Integrals {
  const a = piece.from.x - originX
  const b = piece.to.x - originX
  const p = piece.from.y
  const q = piece.to.y
  const dx = piece.to.x - piece.from.x
  const square = p * p + p * q + q * q
  return {
    area: (-dx * (p + q)) / 2,
    y: (-dx * square) / 6,
    xy: (-dx * (a * (3 * p * p + 2 * p * q + q * q) + b * (p * p + 2 * p * q + 3 * q * q))) / 24,
    yyy: (-dx * (p ** 4 + p ** 3 * q + p * p * q * q + p * q ** 3 + q ** 4)) / 20,
    xxy:
      (-dx *
        (a * a * (6 * p * p + 3 * p * q + q * q) +
          a * b * (3 * p * p + 4 * p * q + 3 * q * q) +
          b * b * (p * p + 3 * p * q + 6 * q * q))) /
      60,
    yAlong: (Math.hypot(dx, q - p) * (p + q)) / 2,
  }
}

/**
 * Sixteen Gauss points per quarter turn. On an arc the integrands are trigonometric polynomials of
 * degree five or less, for which the rule's error on a quarter turn lies below rounding. It is
 * preferred to the antiderivatives, which cancel badly on flat arcs of large radius.
 */
function integrateArc(piece: ArcPiece, originX: number): Integrals {
  const bow = bowOf(piece)
  const { sweep, radius } = bow
  const parts = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2)))
  const sums = { ...NOTHING }
  for (let part = 0; part < parts; part++) {
    gauss(part / parts, (part + 1) / parts, (t, weight) => {
      const p = alongBow(piece, bow, t)
      // dx/dθ = −(y − yc) for a turn about the centre.
      addSlice(sums, p.x - originX, p.y, weight * sweep * -(p.y - piece.centre.y))
      sums.yAlong += p.y * weight * Math.abs(sweep) * radius
    })
  }
  return sums
}

const NOTHING: Integrals = { area: 0, y: 0, xy: 0, yyy: 0, xxy: 0, yAlong: 0 }

type Sums = { -readonly [K in keyof Integrals]: number }

/** What a bit of the way dx at a place adds to the integrals over the area. */
function addSlice(sums: Sums, x: number, y: number, dx: number): void {
  const yy = y * y
  sums.area -= y * dx
  sums.y -= (yy / 2) * dx
  sums.xy -= ((x * yy) / 2) * dx
  sums.yyy -= ((yy * yy) / 4) * dx
  sums.xxy -= ((x * x * yy) / 2) * dx
}

interface Asked {
  readonly piece: CubicPiece
  readonly originX: number
}

const integrateCubic = fewFor(
  (one: Asked, other: Asked) =>
    one.originX === other.originX && isSamePiece(one.piece, other.piece),
  worked,
)

/**
 * On a cubic the area integrands are polynomials of degree 14 or less, for which the rule is exact.
 * From the ends of the piece to those of its curve, a rounding apart, it goes straight.
 */
function worked(on: Cubic, { piece, originX }: Asked): Integrals {
  const { start, end } = piece
  const [a, b, c, d] = on
  const sums = { ...NOTHING }
  const [one, two, three] = [3 * (b.x - a.x), 3 * (c.x - b.x), 3 * (d.x - c.x)]
  gauss(start, end, (s, weight) => {
    const r = 1 - s
    const [rr, rs, ss] = [r * r, r * s, s * s]
    const [i, j, k, l] = [rr * r, 3 * rr * s, 3 * r * ss, ss * s]
    addSlice(
      sums,
      i * a.x + j * b.x + k * c.x + l * d.x - originX,
      i * a.y + j * b.y + k * c.y + l * d.y,
      weight * (rr * one + 2 * rs * two + ss * three),
    )
  })
  sums.yAlong = alongCubic(piece, (_, y) => y)
  const straight = (from: Vec, to: Vec): void => {
    if (from.x === to.x && from.y === to.y) return
    const gap = integrateLine({ kind: 'line', from, to }, originX)
    for (const name of INTEGRAL_NAMES) if (name !== 'yAlong') sums[name] += gap[name]
  }
  straight(piece.from, cubicAt(on, start))
  straight(cubicAt(on, end), piece.to)
  return sums
}
