import type { Vec } from '../geometry'
import type { Equation } from './equations'
import type { Circle, LinearGraph } from './linearGraph'

/** Ties between coordinates as those see them who put them on. */
export interface Ties {
  /** Ties coordinate b to a at a difference in mm; a tie that closes a circle is noted. */
  readonly tie: (
    a: number,
    b: number,
    difference: number,
    reason: string,
    support?: readonly [number, number],
  ) => void
  /** Holds a point at a place; one that is held one way already may still be held the other way. */
  readonly hold: (point: number, place: Vec, reason: string) => void
  /** Whether two coordinates are one by ties. */
  readonly together: (a: number, b: number) => boolean
  /** How far b lies from a by ties, in mm; undefined while nothing ties them. */
  readonly between: (a: number, b: number) => number | undefined
  /** The difference from a to b where the points stand, in mm. */
  readonly gap: (a: number, b: number) => number
  /** How many ties are on. */
  readonly count: () => number
  /** Where a point stands at the start, in mm. */
  readonly place: (point: number) => Vec
}

/** A demand that becomes ties where others have made things straight, and equations elsewhere. */
export interface Reducible {
  readonly owner: string
  /** Puts on its ties and returns true, once it can; nothing is left of it then. */
  readonly reduce: (ties: Ties) => boolean
  /** All it asks for, told without any ties. */
  readonly equations: () => readonly Equation[]
  /** What is left of it when it could be reduced in part only; all of it when left out. */
  readonly left?: () => readonly Equation[]
}

/** @param tolerance misfit in mm up to which a point held one way is held the other way only */
export function createTies(
  graph: LinearGraph,
  start: Float64Array,
  ground: readonly [number, number],
  tolerance: number,
): { readonly ties: Ties; readonly circles: Circle[] } {
  const circles: Circle[] = []
  let count = 0
  const at = (c: number): number => start[c] ?? 0
  const between = (a: number, b: number): number | undefined =>
    graph.rootOf(a) === graph.rootOf(b) ? graph.offsetOf(b) - graph.offsetOf(a) : undefined
  const ties: Ties = {
    tie: (a, b, difference, reason, support) => {
      count++
      const circle = graph.tie(a, b, difference, reason, support)
      if (circle) circles.push(circle)
    },
    hold: (point, place, reason) => {
      const closed = [
        graph.tie(ground[0], 2 * point, place.x, reason),
        graph.tie(ground[1], 2 * point + 1, place.y, reason),
      ].flatMap((circle) => circle ?? [])
      const partly = closed.length === 1 && closed.every((k) => k.misfit <= tolerance)
      if (!partly) circles.push(...closed)
    },
    together: (a, b) => Math.abs(between(a, b) ?? Infinity) < 1e-12,
    between,
    gap: (a, b) => at(b) - at(a),
    count: () => count,
    place: (point) => ({ x: at(2 * point), y: at(2 * point + 1) }),
  }
  return { ties, circles }
}

/**
 * Turns demands into ties as far as they go. Each tie may make further lines straight, so this goes
 * on until nothing changes.
 * @returns the equations of those that are left
 */
export function reduceDemands(demands: readonly (Equation | Reducible)[], ties: Ties): Equation[] {
  let left = demands.filter((d): d is Reducible => 'reduce' in d)
  for (let before = -1; before !== ties.count();) {
    before = ties.count()
    left = left.filter((d) => !d.reduce(ties))
  }
  const kept = new Set<Equation | Reducible>(left)
  return demands.flatMap((d) => {
    if (!('reduce' in d)) return [d]
    return kept.has(d) ? (d.left ?? d.equations)() : []
  })
}
