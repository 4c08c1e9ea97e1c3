import type { Places } from '../places'
import { SAME, TURN } from './cuts'
import type { OnLine } from './shell'

/** A circle about the axis with the points that faces on both sides of it share. */
export class Ring {
  private readonly own: OnLine[]
  private isSorted = true
  /** Whether it has other points than all circles have. */
  isMarked = false

  constructor(
    readonly x: number,
    readonly radius: number,
    circle: Float64Array,
    private readonly places: Places,
  ) {
    const steps = circle.length / 2 - 1
    this.own = Array.from({ length: steps }, (_, i) => ({
      at: (TURN * i) / steps,
      id: places.numberOf(radius * (circle[2 * i] ?? 1), radius * (circle[2 * i + 1] ?? 0), x),
    }))
  }

  /** Puts a point on it, told square to the axis. @returns its number */
  put(x: number, y: number): number {
    const at = (Math.atan2(y, x) + TURN) % TURN
    const near = this.own.find((p) => apart(p.at, at) * this.radius < SAME)
    if (near) return near.id
    const id = this.places.numberOf(x, y, this.x)
    this.own.push({ at, id })
    this.isSorted = false
    this.isMarked = true
    return id
  }

  /** All points, each once, in the order they come round. */
  get points(): readonly OnLine[] {
    if (!this.isSorted) this.own.sort((a, b) => a.at - b.at)
    this.isSorted = true
    return this.own
  }

  /** Once round, back to the first point. */
  get whole(): readonly OnLine[] {
    const [first] = this.points
    return first ? [...this.points, { at: first.at + TURN, id: first.id }] : []
  }

  /** From one of its points on to another; all round where they are one and `isWhole`. */
  from(one: number, other: number, isWhole: boolean): readonly OnLine[] {
    const { points } = this
    const start = points.findIndex((p) => p.id === one)
    const end = points.findIndex((p) => p.id === other)
    const first = points[start]
    if (!first || end < 0) return []
    if (start === end && !isWhole) return [first]
    const count = (end - start + points.length) % points.length || points.length
    return Array.from({ length: count + 1 }, (_, i) => {
      const p = points[(start + i) % points.length] ?? first
      return start + i < points.length ? p : { at: p.at + TURN, id: p.id }
    })
  }
}

/** Between two angles of the first turn. */
function apart(one: number, other: number): number {
  const between = Math.abs(one - other)
  return between > Math.PI ? TURN - between : between
}
