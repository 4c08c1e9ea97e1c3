/**
 * The equations that are not mere ties between coordinates. Coordinates are numbered 2·i for x and
 * 2·i + 1 for y of point i. Residuals are in mm: angles are multiplied by a length, so that one
 * tolerance fits all.
 */
export interface Equation {
  /** The id of the constraint or size that asks for it. */
  readonly owner: string
  /** The coordinates it reads, in the order of its gradient. */
  readonly coordinates: Int32Array
  /** True when it carries a size's value; false when it is a purely geometric demand. */
  readonly valued: boolean
  /**
   * The residual in mm where the coordinates stand.
   * @param at all coordinates in mm
   * @param gradient receives one derivative per coordinate read
   */
  evaluate(at: Float64Array, gradient: Float64Array): number
}

const value = (array: Float64Array, i: number): number => array[i] ?? 0

/** What reads only b − a changes by a vector with b, and against it with a. */
function spread(gradient: Float64Array, slot: number, gx: number, gy: number): void {
  gradient[slot] = -gx
  gradient[slot + 1] = -gy
  gradient[slot + 2] = gx
  gradient[slot + 3] = gy
}

/** |b − a| = length. */
export function lengthEquation(owner: string, a: number, b: number, length: number): Equation {
  const coordinates = Int32Array.of(2 * a, 2 * a + 1, 2 * b, 2 * b + 1)
  return {
    owner,
    coordinates,
    valued: true,
    evaluate(at, gradient) {
      const dx = value(at, 2 * b) - value(at, 2 * a)
      const dy = value(at, 2 * b + 1) - value(at, 2 * a + 1)
      const size = Math.hypot(dx, dy)
      // Ends on one spot have no direction; any will do to part them.
      const ux = size > 0 ? dx / size : 1
      const uy = size > 0 ? dy / size : 0
      spread(gradient, 0, ux, uy)
      return size - length
    },
  }
}

/** The signed distance of a point from the line through a and b is nought. */
export function pointOnLineEquation(owner: string, p: number, a: number, b: number): Equation {
  const coordinates = Int32Array.of(2 * p, 2 * p + 1, 2 * a, 2 * a + 1, 2 * b, 2 * b + 1)
  return {
    owner,
    coordinates,
    valued: false,
    evaluate(at, gradient) {
      const dx = value(at, 2 * b) - value(at, 2 * a)
      const dy = value(at, 2 * b + 1) - value(at, 2 * a + 1)
      const px = value(at, 2 * p) - value(at, 2 * a)
      const py = value(at, 2 * p + 1) - value(at, 2 * a + 1)
      const size = Math.hypot(dx, dy) || 1
      const ux = dx / size
      const uy = dy / size
      const off = ux * py - uy * px
      const along = (ux * px + uy * py) / size
      // Moving an end by h across the line moves the foot by h·(1 − along) or h·along.
      gradient[0] = -uy
      gradient[1] = ux
      gradient[2] = uy * (1 - along)
      gradient[3] = -ux * (1 - along)
      gradient[4] = uy * along
      gradient[5] = -ux * along
      return off
    },
  }
}

/**
 * The direction from a to b stands at an angle to the direction from c to d, or to the axis when
 * these are left out.
 * @param angle target in radians, signed, in (−π, π]
 * @param arm length in mm by which the angle's error is multiplied
 * @param valued false when the angle is no size's but a matter of the constraint's kind
 */
export function angleEquation(
  owner: string,
  [a, b]: readonly [number, number],
  to: readonly [number, number] | undefined,
  angle: number,
  arm: number,
  valued = true,
): Equation {
  const points = to ? [a, b, to[0], to[1]] : [a, b]
  const coordinates = Int32Array.from(points.flatMap((p) => [2 * p, 2 * p + 1]))
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
    coordinates,
    valued,
    evaluate(at, gradient) {
      const first = direction(at, a, b, gradient, 0, 1)
      const second = to ? direction(at, to[0], to[1], gradient, 4, -1) : 0
      return arm * wrap(first - second - angle)
    },
  }
}

/** The same angle in [−π, π). */
function wrap(angle: number): number {
  const turn = 2 * Math.PI
  return angle - turn * Math.floor((angle + Math.PI) / turn)
}

/** |b − a| = |d − c|: two lines are of one length. */
export function equalLengthEquation(
  owner: string,
  [a, b]: readonly [number, number],
  [c, d]: readonly [number, number],
): Equation {
  const coordinates = Int32Array.from([a, b, c, d].flatMap((p) => [2 * p, 2 * p + 1]))
  const span = (
    at: Float64Array,
    p: number,
    q: number,
    gradient: Float64Array,
    slot: number,
    sign: number,
  ): number => {
    const dx = value(at, 2 * q) - value(at, 2 * p)
    const dy = value(at, 2 * q + 1) - value(at, 2 * p + 1)
    const size = Math.hypot(dx, dy)
    const ux = size > 0 ? (sign * dx) / size : sign
    const uy = size > 0 ? (sign * dy) / size : 0
    spread(gradient, slot, ux, uy)
    return size
  }
  return {
    owner,
    coordinates,
    valued: false,
    evaluate: (at, gradient) => span(at, a, b, gradient, 0, 1) - span(at, c, d, gradient, 4, -1),
  }
}

/** A sum of coordinates with fixed weights is nought, in mm: middles and mirror images. */
export function weightedEquation(
  owner: string,
  terms: readonly (readonly [coordinate: number, weight: number])[],
): Equation {
  return {
    owner,
    coordinates: Int32Array.from(terms, ([c]) => c),
    valued: false,
    evaluate(at, gradient) {
      let sum = 0
      terms.forEach(([c, weight], k) => {
        sum += weight * value(at, c)
        gradient[k] = weight
      })
      return sum
    },
  }
}

/**
 * Two points mirror one another about the line through c and e: their middle lies on it, and the
 * way from one to the other is square to it.
 */
export function symmetryEquations(
  owner: string,
  [a, b]: readonly [number, number],
  [c, e]: readonly [number, number],
): readonly Equation[] {
  const coordinates = Int32Array.from([a, b, c, e].flatMap((p) => [2 * p, 2 * p + 1]))
  const read = (at: Float64Array) => {
    const [cx, cy] = [value(at, 2 * c), value(at, 2 * c + 1)]
    const [dx, dy] = [value(at, 2 * e) - cx, value(at, 2 * e + 1) - cy]
    const size = Math.hypot(dx, dy) || 1
    const [ax, ay, bx, by] = [a, a, b, b].map((p, k) => value(at, 2 * p + (k % 2)))
    return { cx, cy, size, ux: dx / size, uy: dy / size, ax, ay, bx, by }
  }
  const middle: Equation = {
    owner,
    coordinates,
    valued: false,
    evaluate(at, gradient) {
      const { cx, cy, size, ux, uy, ax = 0, ay = 0, bx = 0, by = 0 } = read(at)
      const [px, py] = [(ax + bx) / 2 - cx, (ay + by) / 2 - cy]
      const along = (ux * px + uy * py) / size
      const parts = [-uy / 2, ux / 2, -uy / 2, ux / 2]
      gradient.set(parts)
      gradient.set([uy * (1 - along), -ux * (1 - along), uy * along, -ux * along], 4)
      return ux * py - uy * px
    },
  }
  const square: Equation = {
    owner,
    coordinates,
    valued: false,
    evaluate(at, gradient) {
      const { size, ux, uy, ax = 0, ay = 0, bx = 0, by = 0 } = read(at)
      const [wx, wy] = [bx - ax, by - ay]
      const along = ux * wx + uy * wy
      const [tx, ty] = [(wx - along * ux) / size, (wy - along * uy) / size]
      gradient.set([-ux, -uy, ux, uy, -tx, -ty, tx, ty])
      return along
    },
  }
  return [middle, square]
}
