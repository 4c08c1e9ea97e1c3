import type { Entity } from '../sketch'
import type { Setting, Ties } from '../equations'

/** Whether two points are one, by number or by ties of both coordinates. */
export const areOne = (ties: Ties, p: number, q: number): boolean =>
  p === q || (ties.together(2 * p, 2 * q) && ties.together(2 * p + 1, 2 * q + 1))

/** The number of a point at which both of two pieces end: one of the first. */
export function sharedEnd(
  { index, ties }: Setting,
  a: Entity | undefined,
  b: Entity | undefined,
): number | undefined {
  const ends = (e: Entity | undefined): number[] =>
    e && e.kind !== 'circle' ? [index(e.from), index(e.to)] : []
  return ends(a).find((p) => ends(b).some((q) => areOne(ties, p, q)))
}
