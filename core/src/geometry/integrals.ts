import { pointAt, radiusOf, sweepOf, type ArcPiece, type LinePiece, type Piece } from './piece'

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

/** Nodes and weights of the 16-point Gauss–Legendre rule on [−1, 1], the positive half. */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.0950125098376374401853, 0.1894506104550684962854],
  [0.2816035507792589132305, 0.1826034150449235888668],
  [0.4580167776572273863424, 0.1691565193950025381893],
  [0.6178762444026437484467, 0.1495959888165767320815],
  [0.7554044083550030338951, 0.1246289712555338720525],
  [0.8656312023878317438805, 0.0951585116824927848099],
  [0.9445750230732325760779, 0.0622535239386478928628],
  [0.9894009349916499325962, 0.0271524594117540948518],
]

/**
 * Sixteen Gauss points per quarter turn. On an arc the integrands are trigonometric polynomials of
 * degree five or less, for which the rule's error on a quarter turn lies below rounding. It is
 * preferred to the antiderivatives, which cancel badly on flat arcs of large radius.
 */
function integrateArc(piece: ArcPiece, originX: number): Integrals {
  const sweep = sweepOf(piece)
  const radius = radiusOf(piece)
  const parts = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2)))
  const sums = { area: 0, y: 0, xy: 0, yyy: 0, xxy: 0, yAlong: 0 }
  for (let part = 0; part < parts; part++) {
    for (const [node, weight] of GAUSS) {
      for (const sign of [-1, 1]) {
        const t = (part + 0.5 + (sign * node) / 2) / parts
        const p = pointAt(piece, t)
        const x = p.x - originX
        const yy = p.y * p.y
        const ds = (weight / 2 / parts) * Math.abs(sweep) * radius
        // dx/dθ = −(y − yc) for a turn about the centre.
        const dx = (weight / 2 / parts) * sweep * -(p.y - piece.centre.y)
        sums.area -= p.y * dx
        sums.y -= (yy / 2) * dx
        sums.xy -= ((x * yy) / 2) * dx
        sums.yyy -= ((yy * yy) / 4) * dx
        sums.xxy -= ((x * x * yy) / 2) * dx
        sums.yAlong += p.y * ds
      }
    }
  }
  return sums
}
