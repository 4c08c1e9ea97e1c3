import { addPlaces, scalePlace, type Place } from '../geometry'

/** A curve of poles (B-spline) in space, up to degree 3 and without weights. */
export interface SpaceSpline {
  readonly degree: number
  readonly poles: readonly Place[]
  /** Every knot as often as it counts. */
  readonly knots: readonly number[]
  /** The stretch of it that is meant. */
  readonly from: number
  readonly to: number
}

/** The four places that tell a cubic curve in space. */
export type SpaceCubic = readonly [Place, Place, Place, Place]

/**
 * The cubic curves that a curve of poles is made of, one for each stretch between knots: by blossoms
 * (Farin, Curves and Surfaces for CAGD, ch. 10), so that nothing of it is approximated.
 * @returns none where it has another degree or its knots are no row
 */
export function cubicsOf({ degree, poles, knots, from, to }: SpaceSpline): SpaceCubic[] {
  if (degree < 1 || degree > 3 || knots.length !== poles.length + degree + 1) return []
  const cubics: SpaceCubic[] = []
  for (let k = degree; k < poles.length; k++) {
    const [low, high] = [Math.max(from, knots[k] ?? 0), Math.min(to, knots[k + 1] ?? 0)]
    if (high - low <= 1e-12 * Math.max(1, Math.abs(to - from))) continue
    const at = (...places: readonly number[]): Place => blossom(poles, knots, degree, k, places)
    const [a, b] = [low, high]
    if (degree === 3) cubics.push([at(a, a, a), at(a, a, b), at(a, b, b), at(b, b, b)])
    else if (degree === 2) {
      const [p, q, r] = [at(a, a), at(a, b), at(b, b)]
      cubics.push([p, between(p, q, 2 / 3), between(r, q, 2 / 3), r])
    } else {
      const [p, r] = [at(a), at(b)]
      cubics.push([p, between(p, r, 1 / 3), between(p, r, 2 / 3), r])
    }
  }
  return cubics
}

const between = (a: Place, b: Place, share: number): Place =>
  addPlaces(scalePlace(a, 1 - share), scalePlace(b, share))

/** The blossom of a curve over the stretch that begins at knot k, with as many arguments as it has degrees. */
function blossom(
  poles: readonly Place[],
  knots: readonly number[],
  degree: number,
  k: number,
  places: readonly number[],
): Place {
  const d = poles.slice(k - degree, k + 1)
  for (let r = 1; r <= degree; r++) {
    for (let i = degree; i >= r; i--) {
      const [low = 0, high = 0] = [knots[k - degree + i], knots[k + 1 + i - r]]
      const share = ((places[r - 1] ?? 0) - low) / (high - low)
      const [before, own] = [d[i - 1], d[i]]
      if (before && own) d[i] = between(before, own, share)
    }
  }
  return d[degree] ?? { x: 0, y: 0, z: 0 }
}
