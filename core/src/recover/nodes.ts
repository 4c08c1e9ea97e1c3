import { place, type Place } from '../geometry'

/** The i-th of points that stand in a row, x, y, z each. */
export const nodeAt = (nodes: Float64Array, i: number): Place =>
  place(nodes[3 * i] ?? 0, nodes[3 * i + 1] ?? 0, nodes[3 * i + 2] ?? 0)

/** How long a way is, in mm. */
export const lengthOf = ({ x, y, z }: Place): number => Math.hypot(x, y, z)
