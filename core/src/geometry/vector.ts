/** A point or vector of the section plane in mm: x along the axis, y the radius. */
export interface Vec {
  readonly x: number
  readonly y: number
}

export const ORIGIN: Vec = { x: 0, y: 0 }

export const vec = (x: number, y: number): Vec => ({ x, y })
export const add = (a: Vec, b: Vec): Vec => ({ x: a.x + b.x, y: a.y + b.y })
export const subtract = (a: Vec, b: Vec): Vec => ({ x: a.x - b.x, y: a.y - b.y })
export const scale = (a: Vec, s: number): Vec => ({ x: a.x * s, y: a.y * s })
export const dot = (a: Vec, b: Vec): number => a.x * b.x + a.y * b.y
export const cross = (a: Vec, b: Vec): number => a.x * b.y - a.y * b.x
// A plain root: lengths of parts neither overflow nor vanish, and the careful way is ten times slower.
/** Whether two places are one to the last digit. */
export const isSameVec = (a: Vec, b: Vec): boolean => Object.is(a.x, b.x) && Object.is(a.y, b.y)
export const norm = (a: Vec): number => Math.sqrt(a.x * a.x + a.y * a.y)
export function distance(a: Vec, b: Vec): number {
  const x = a.x - b.x
  const y = a.y - b.y
  return Math.sqrt(x * x + y * y)
}

/** Interpolates from a at t = 0 to b at t = 1. */
export const mix = (a: Vec, b: Vec, t: number): Vec => ({
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
})

/** The vector turned by an angle in radians, counter-clockwise. */
export function rotate(a: Vec, angle: number): Vec {
  const c = Math.cos(angle)
  const s = Math.sin(angle)
  return { x: c * a.x - s * a.y, y: s * a.x + c * a.y }
}

/** The vector of length 1 in the direction of a; the x direction when a has no length. */
export function unit(a: Vec): Vec {
  const length = norm(a)
  return length > 0 ? { x: a.x / length, y: a.y / length } : { x: 1, y: 0 }
}

/** An axis-parallel box in mm. */
export interface Box {
  readonly min: Vec
  readonly max: Vec
}

/** The smallest box around points; undefined when there are none. */
export function boxAround(points: Iterable<Vec>): Box | undefined {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const p of points) {
    x0 = Math.min(x0, p.x)
    y0 = Math.min(y0, p.y)
    x1 = Math.max(x1, p.x)
    y1 = Math.max(y1, p.y)
  }
  return x0 <= x1 ? { min: { x: x0, y: y0 }, max: { x: x1, y: y1 } } : undefined
}
