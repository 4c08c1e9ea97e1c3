/**
 * The equations that are not mere ties between coordinates. Coordinates are numbered 2·i for x and
 * 2·i + 1 for y of point i. Residuals are in mm: angles are multiplied by a length, so that one
 * tolerance fits all.
 */
export interface Equation {
  /** The id of the constraint or size that asks for it; empty for what an arc is by its nature. */
  readonly owner: string
  /** The coordinates it reads, in the order of its gradient; one may come more than once. */
  readonly coordinates: Int32Array
  /** True when it carries a size's value; false when it is a purely geometric demand. */
  readonly valued: boolean
  /**
   * The residual in mm where the coordinates stand.
   * @param at all coordinates in mm
   * @param gradient receives one derivative per coordinate read; see {@link gradientFor}
   */
  evaluate(at: Float64Array, gradient: Float64Array): number
}

/** The most coordinates that an equation reads, but those of free curves of many places. */
const USUALLY_READ = 16

/** Room for the derivatives of any one of some equations. */
export function gradientFor(equations: readonly Equation[]): Float64Array {
  let most = USUALLY_READ
  for (const { coordinates } of equations) most = Math.max(most, coordinates.length)
  return new Float64Array(most)
}

const value = (array: Float64Array, i: number): number => array[i] ?? 0

/** Something measured on points: a length or a signed distance in mm. Equations are sums of such. */
export interface Measure {
  readonly coordinates: readonly number[]
  /**
   * The measured value in mm; writes its derivatives, times a weight, from a slot on.
   */
  evaluate(at: Float64Array, gradient: Float64Array, slot: number, weight: number): number
}

const coordinatesOf = (...points: readonly number[]): number[] =>
  points.flatMap((p) => [2 * p, 2 * p + 1])

/** What reads only b − a changes by a vector with b, and against it with a. */
function spread(gradient: Float64Array, slot: number, gx: number, gy: number): void {
  gradient[slot] = -gx
  gradient[slot + 1] = -gy
  gradient[slot + 2] = gx
  gradient[slot + 3] = gy
}

/** |b − a| */
export function separation(a: number, b: number): Measure {
  return {
    coordinates: coordinatesOf(a, b),
    evaluate(at, gradient, slot, weight) {
      const dx = value(at, 2 * b) - value(at, 2 * a)
      const dy = value(at, 2 * b + 1) - value(at, 2 * a + 1)
      const size = Math.hypot(dx, dy)
      // Points on one spot have no direction; any will do to part them.
      const ux = size > 0 ? dx / size : 1
      const uy = size > 0 ? dy / size : 0
      spread(gradient, slot, weight * ux, weight * uy)
      return size
    },
  }
}

/** The distance of p from the line through a and b, positive on the left of its direction. */
export function offset(p: number, a: number, b: number): Measure {
  return {
    coordinates: coordinatesOf(p, a, b),
    evaluate(at, gradient, slot, weight) {
      const dx = value(at, 2 * b) - value(at, 2 * a)
      const dy = value(at, 2 * b + 1) - value(at, 2 * a + 1)
      const px = value(at, 2 * p) - value(at, 2 * a)
      const py = value(at, 2 * p + 1) - value(at, 2 * a + 1)
      const size = Math.hypot(dx, dy) || 1
      const ux = (weight * dx) / size
      const uy = (weight * dy) / size
      const along = (dx * px + dy * py) / (size * size)
      // Moving an end by h across the line moves the foot by h·(1 − along) or h·along.
      gradient[slot] = -uy
      gradient[slot + 1] = ux
      gradient[slot + 2] = uy * (1 - along)
      gradient[slot + 3] = -ux * (1 - along)
      gradient[slot + 4] = uy * along
      gradient[slot + 5] = -ux * along
      return (dx * py - dy * px) / size
    },
  }
}

/** How far q lies from p in the direction of the line from a to b. */
export function advance(p: number, q: number, a: number, b: number): Measure {
  return {
    coordinates: coordinatesOf(p, q, a, b),
    evaluate(at, gradient, slot, weight) {
      const dx = value(at, 2 * b) - value(at, 2 * a)
      const dy = value(at, 2 * b + 1) - value(at, 2 * a + 1)
      const size = Math.hypot(dx, dy) || 1
      const [ux, uy] = [dx / size, dy / size]
      const wx = value(at, 2 * q) - value(at, 2 * p)
      const wy = value(at, 2 * q + 1) - value(at, 2 * p + 1)
      const along = ux * wx + uy * wy
      spread(gradient, slot, weight * ux, weight * uy)
      const share = weight / size
      spread(gradient, slot + 4, share * (wx - along * ux), share * (wy - along * uy))
      return along
    },
  }
}

/** One coordinate. */
export function coordinate(c: number): Measure {
  return {
    coordinates: [c],
    evaluate(at, gradient, slot, weight) {
      gradient[slot] = weight
      return value(at, c)
    },
  }
}

/** The length of the arc from a to b about c, which may be a turn either way. */
export function arcLength(a: number, b: number, c: number, counterClockwise: boolean): Measure {
  return {
    coordinates: coordinatesOf(a, b, c),
    evaluate(at, gradient, slot, weight) {
      const [ax, ay] = [
        value(at, 2 * a) - value(at, 2 * c),
        value(at, 2 * a + 1) - value(at, 2 * c + 1),
      ]
      const [bx, by] = [
        value(at, 2 * b) - value(at, 2 * c),
        value(at, 2 * b + 1) - value(at, 2 * c + 1),
      ]
      const radius = Math.hypot(ax, ay) || 1
      const far = bx * bx + by * by || 1
      const turn = Math.atan2(ax * by - ay * bx, ax * bx + ay * by)
      const way = counterClockwise ? turn : -turn
      const sweep = way > 0 ? way : way + 2 * Math.PI
      const sign = counterClockwise ? weight : -weight
      // r·θ: the radius is that of the start; the sweep turns with both ends.
      const gax = (weight * sweep * ax) / radius + (sign * ay) / radius
      const gay = (weight * sweep * ay) / radius - (sign * ax) / radius
      const gbx = (-sign * radius * by) / far
      const gby = (sign * radius * bx) / far
      gradient[slot] = gax
      gradient[slot + 1] = gay
      gradient[slot + 2] = gbx
      gradient[slot + 3] = gby
      gradient[slot + 4] = -gax - gbx
      gradient[slot + 5] = -gay - gby
      return radius * sweep
    },
  }
}

/**
 * What is made of several measures, each of which may read what others do.
 * @param make the value in mm, and how it changes with each of the measures
 */
export function composed(
  measures: readonly Measure[],
  make: (values: readonly number[]) => {
    readonly value: number
    readonly partial: readonly number[]
  },
): Measure {
  const coordinates = [...new Set(measures.flatMap((m) => m.coordinates))]
  const slots = measures.map((m) => m.coordinates.map((c) => coordinates.indexOf(c)))
  const own = measures.map((m) => new Float64Array(m.coordinates.length))
  return {
    coordinates,
    evaluate(at, gradient, slot, weight) {
      const values = measures.map((m, i) => m.evaluate(at, own[i] ?? gradient, 0, 1))
      const { value: made, partial } = make(values)
      gradient.fill(0, slot, slot + coordinates.length)
      slots.forEach((into, i) => {
        const by = weight * (partial[i] ?? 0)
        into.forEach((k, j) => {
          gradient[slot + k] = value(gradient, slot + k) + by * value(own[i] ?? gradient, j)
        })
      })
      return made
    },
  }
}

/** A measure with the weight it has in a sum. */
export type Term = readonly [weight: number, measure: Measure]

/**
 * A weighted sum of measures comes to a target.
 * @param target in mm; left out for purely geometric demands, whose sum is nought
 */
export function sumEquation(owner: string, terms: readonly Term[], target?: number): Equation {
  const goal = target ?? 0
  return {
    owner,
    coordinates: Int32Array.from(terms.flatMap(([, measure]) => measure.coordinates)),
    valued: target !== undefined,
    evaluate(at, gradient) {
      let sum = -goal
      let slot = 0
      for (const [weight, measure] of terms) {
        sum += weight * measure.evaluate(at, gradient, slot, weight)
        slot += measure.coordinates.length
      }
      return sum
    },
  }
}

/** A sum of coordinates with fixed weights is nought, in mm: middles and mirror images. */
export function weightedEquation(
  owner: string,
  terms: readonly (readonly [coordinate: number, weight: number])[],
): Equation {
  return sumEquation(
    owner,
    terms.map(([c, weight]) => [weight, coordinate(c)]),
  )
}

/**
 * The direction from a to b stands at an angle to the direction from c to d.
 * @param angle target in radians, signed, in (−π, π]
 * @param arm length in mm by which the angle's error is multiplied
 * @param valued false when the angle is no size's but a matter of the constraint's kind
 */
export function angleEquation(
  owner: string,
  [a, b]: readonly [number, number],
  [c, d]: readonly [number, number],
  angle: number,
  arm: number,
  valued = true,
): Equation {
  const direction = (
    at: Float64Array,
    p: number,
    q: number,
    gradient: Float64Array,
    slot: number,
    sign: number,
  ): number => {
    const dx = value(at, 2 * q) - value(at, 2 * p)
    const dy = value(at, 2 * q + 1) - value(at, 2 * p + 1)
    const square = dx * dx + dy * dy || 1
    const gx = (-dy / square) * sign * arm
    const gy = (dx / square) * sign * arm
    spread(gradient, slot, gx, gy)
    return Math.atan2(dy, dx)
  }
  return {
    owner,
    coordinates: Int32Array.from(coordinatesOf(a, b, c, d)),
    valued,
    evaluate(at, gradient) {
      const first = direction(at, a, b, gradient, 0, 1)
      const second = direction(at, c, d, gradient, 4, -1)
      return arm * wrap(first - second - angle)
    },
  }
}

/** The same angle in [−π, π). */
function wrap(angle: number): number {
  const turn = 2 * Math.PI
  return angle - turn * Math.floor((angle + Math.PI) / turn)
}
