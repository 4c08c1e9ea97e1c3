import type { Piece } from '../geometry'

/** Ways a drawing looks at a part: from beside, and along the axis from either end. */
export type SeenFrom = 'along' | 'left' | 'right'

/**
 * What the solid kernel tells of bodies that are no full turn: their edges that nothing hides, by the way they are
 * looked at, in mm of the part: x to the right and y upwards from the axis.
 */
export type SeenLines = Readonly<Partial<Record<SeenFrom, readonly Piece[]>>>

export const NOTHING_SEEN: SeenLines = {}
