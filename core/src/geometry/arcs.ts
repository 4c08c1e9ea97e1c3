import { add, cross, dot, scale, subtract, unit, type Vec } from './vector'

/** What tells an arc between two places. */
export interface ArcBetween {
  readonly centre: Vec
  readonly counterClockwise: boolean
}

/** The arc from one place through a second to a third; undefined when they lie in one line. */
export function arcThrough(from: Vec, through: Vec, to: Vec): ArcBetween | undefined {
  const u = subtract(through, from)
  const v = subtract(to, from)
  const turn = cross(u, v)
  const size = Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)
  if (Math.abs(turn) <= 1e-9 * size || size === 0) return undefined
  const [uu, vv] = [dot(u, u), dot(v, v)]
  const centre = add(from, {
    x: (v.y * uu - u.y * vv) / (2 * turn),
    y: (u.x * vv - v.x * uu) / (2 * turn),
  })
  return { centre, counterClockwise: turn > 0 }
}

/** The arc that leaves a place in a direction and ends at another; undefined when that is straight. */
export function arcAlong(from: Vec, direction: Vec, to: Vec): ArcBetween | undefined {
  const u = unit(direction)
  const chord = subtract(to, from)
  const across = cross(u, chord)
  if (Math.abs(across) <= 1e-9 * Math.hypot(chord.x, chord.y)) return undefined
  const radius = dot(chord, chord) / (2 * across)
  return { centre: add(from, scale({ x: -u.y, y: u.x }, radius)), counterClockwise: radius > 0 }
}
