import type { Piece } from '../geometry'

/**
 * Ways a drawing looks at a part: from beside, along the axis from either end, and askew, evenly at all three (ISO
 * 5456-3:1996, 5.1), onto its left end.
 */
export type SeenFrom = 'along' | 'left' | 'right' | 'askew'

/** A way to look, and where what stands before it is cut away. */
export interface Look {
  readonly from: SeenFrom
  /**
   * Undefined for the whole. Else what lies before a plane square to the way is taken off: from beside the plane through
   * the axis, along the axis the plane at this place of it, in mm. Askew it is the quarter nearest to the reader.
   */
  readonly cut?: { readonly at: number }
  /** Bodies, in the order of the plans, that stay whole all the same. */
  readonly whole?: readonly boolean[]
}

/** What the solid kernel tells, in mm of the part: x to the right and y upwards from the axis. */
export interface Seen {
  /** Edges that nothing hides, of all bodies together. */
  readonly lines: readonly Piece[]
  /** Of each body the outlines of what was cut, in no order. */
  readonly cuts: readonly (readonly Piece[])[]
}

/** By `keyOf` what was asked. */
export type SeenLines = ReadonlyMap<string, Seen>

export const NOTHING_SEEN: SeenLines = new Map()

/** What the kernel is asked for a sheet: bodies, and how they are looked at. */
export interface SeenAsk extends Look {
  /** Their ids. */
  readonly bodies: readonly string[]
}

export const keyOf = ({ from, cut, whole, bodies }: SeenAsk): string =>
  JSON.stringify([from, cut?.at ?? null, whole ?? [], bodies])
