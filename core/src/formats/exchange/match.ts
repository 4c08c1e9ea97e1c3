import type { FileSaid, SolidSaid } from './solids'
import { spread } from './solids'

/** A solid as it was read, by what it can be known by again. */
export interface KnownBy {
  readonly faces: number
  /** x, y and z of its corners in mm */
  readonly corners: readonly (readonly number[])[]
}

/** Spreads that differ by less than this share are of one shape. */
const SAME = 1e-3

/**
 * What a file says of each solid that was read from it. A file tells them in its own order and an assembly places one
 * several times: they are known again by their faces and by how their corners lie to one another.
 */
export function saidOf(
  { solids, scale }: FileSaid,
  read: readonly KnownBy[],
): (SolidSaid | undefined)[] {
  if (solids.length === 1) return read.map(() => solids[0])
  const used = new Map<SolidSaid, number>()
  return read.map((solid) => {
    const own = spread(solid.corners)
    const off = (s: SolidSaid): number => Math.abs(s.spread * scale - own) / Math.max(own, 1e-9)
    const alike = solids.filter((s) => s.faces === solid.faces && off(s) < SAME)
    // Of equal ones each has its turn.
    const least = Math.min(...alike.map((s) => used.get(s) ?? 0))
    const said = alike.find((s) => (used.get(s) ?? 0) === least)
    if (said) used.set(said, least + 1)
    return said
  })
}
