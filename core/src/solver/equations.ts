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
      gradient[0] = -ux
      gradient[1] = -uy
      gradient[2] = ux
      gradient[3] = uy
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
 */
export function angleEquation(
  owner: string,
  [a, b]: readonly [number, number],
  to: readonly [number, number] | undefined,
  angle: number,
  arm: number,
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
    gradient[slot] = -gx
    gradient[slot + 1] = -gy
    gradient[slot + 2] = gx
    gradient[slot + 3] = gy
    return Math.atan2(dy, dx)
  }
  return {
    owner,
    coordinates,
    valued: true,
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
