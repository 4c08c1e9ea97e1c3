import {
  controlOf,
  cubic,
  distance,
  nearestOn,
  pointAt,
  scale,
  subtract,
  unit,
  type CubicPiece,
  type Vec,
} from '../geometry'

/** Rounds of steps for one curve; they mostly end after five. */
const MOST_ROUNDS = 30
/** Halvings at most: sixteen curves follow any sound face. */
const MOST_HALVINGS = 4
/** A curve is told by at least so many places between its ends. */
const FEW = 4

/**
 * The free curves that places along a line follow, one after another, as few as keep to all of them.
 * @param places in order; the first and last are ends
 * @param near how far a place may lie off in mm
 * @returns undefined where a few curves do not follow them
 */
export function curvesThrough(
  places: readonly Vec[],
  near: number,
  halvings = MOST_HALVINGS,
): CubicPiece[] | undefined {
  if (places.length < FEW + 2) return undefined
  const whole = curveThrough(places, near)
  if (whole) return [whole]
  if (halvings === 0) return undefined
  const middle = Math.floor(places.length / 2)
  const first = curvesThrough(places.slice(0, middle + 1), near, halvings - 1)
  const last = first && curvesThrough(places.slice(middle), near, halvings - 1)
  return first && last && [...first, ...last]
}

/**
 * One cubic through places: its handles by Gauss and Newton's steps on how far off the places are,
 * square to it (Björck, Numerical Methods for Least Squares Problems, ch. 9).
 */
function curveThrough(places: readonly Vec[], near: number): CubicPiece | undefined {
  const [from] = places
  const to = places.at(-1)
  const [second, before] = [places[1], places.at(-2)]
  if (!from || !to || !second || !before) return undefined
  const length = places.slice(1).reduce((sum, p, i) => sum + distance(p, places[i] ?? p), 0)
  if (length === 0) return undefined
  // Along the first and the last chord to begin with.
  let leave = addScaled(from, unit(subtract(second, from)), length / 3)
  let come = addScaled(to, unit(subtract(before, to)), length / 3)
  let best: { readonly curve: CubicPiece; readonly off: number } | undefined
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const curve = cubic(from, leave, come, to)
    const rows = places.slice(1, -1).map((p) => rowFor(curve, p))
    const off = Math.max(...rows.map((r) => Math.abs(r.off)))
    // Steps go on past what is near enough, as long as they halve what is left.
    if (best && best.off <= near && off > best.off / 2) return best.curve
    if (!best || off < best.off) best = { curve, off }
    const step = leastSquares(rows)
    if (!step || step.some((s) => !Number.isFinite(s))) return undefined
    const [a = 0, b = 0, c = 0, d = 0] = step
    leave = { x: leave.x - a, y: leave.y - b }
    come = { x: come.x - c, y: come.y - d }
  }
  return best && best.off <= near ? best.curve : undefined
}

const addScaled = (p: Vec, way: Vec, by: number): Vec => {
  const { x, y } = scale(way, by)
  return { x: p.x + x, y: p.y + y }
}

interface Row {
  readonly off: number
  readonly by: readonly [number, number, number, number]
}

/** How far a place is off a curve, square to it, and how that changes with the two handles. */
function rowFor(curve: CubicPiece, p: Vec): Row {
  const { t } = nearestOn(curve, p)
  const foot = pointAt(curve, t)
  const [a, b, c, d] = controlOf(curve)
  const s = 1 - t
  const slope = {
    x: 3 * (s * s * (b.x - a.x) + 2 * s * t * (c.x - b.x) + t * t * (d.x - c.x)),
    y: 3 * (s * s * (b.y - a.y) + 2 * s * t * (c.y - b.y) + t * t * (d.y - c.y)),
  }
  const along = unit(slope)
  const normal = { x: -along.y, y: along.x }
  const off = normal.x * (foot.x - p.x) + normal.y * (foot.y - p.y)
  const [one, two] = [3 * s * s * t, 3 * s * t * t]
  return { off, by: [one * normal.x, one * normal.y, two * normal.x, two * normal.y] }
}

/** Solves the normal equations of four unknowns, held a little where they say nothing. */
function leastSquares(rows: readonly Row[]): readonly number[] | undefined {
  const matrix = Array.from({ length: 4 }, (_, i) =>
    Array.from({ length: 5 }, (__, j) =>
      rows.reduce((sum, r) => sum + (r.by[i as 0] ?? 0) * (j < 4 ? (r.by[j as 0] ?? 0) : r.off), 0),
    ),
  )
  const hold = 1e-14 * matrix.reduce((sum, row, i) => sum + (row[i] ?? 0), 0)
  matrix.forEach((row, i) => {
    row[i] = (row[i] ?? 0) + hold
  })
  for (let k = 0; k < 4; k++) {
    const pivot = matrix[k]
    const by = pivot?.[k] ?? 0
    if (!pivot || by === 0) return undefined
    for (let i = 0; i < 4; i++) {
      const row = matrix[i]
      if (i === k || !row) continue
      const share = (row[k] ?? 0) / by
      for (let j = k; j < 5; j++) row[j] = (row[j] ?? 0) - share * (pivot[j] ?? 0)
    }
  }
  return matrix.map((row, i) => (row[4] ?? 0) / (row[i] ?? 1))
}
