import { flats } from './flats'
import { crossHoles, endHoles } from './holes'
import { endSlots, halfRoundSeats, keyways } from './slots'
import type { Feature, Finder, Host, RestFace } from './types'

export type { Feature, Host, RestFace } from './types'

/** What is looked for, in this order: what is told by more faces goes before what needs but one. */
const FINDERS: readonly Finder[] = [endHoles, crossHoles, keyways, halfRoundSeats, endSlots, flats]

/**
 * The steps that make the faces which a half-section does not have, as far as they are known: each face
 * is taken once. Whether they make the solid is for the kernel to say.
 */
export function featuresOf(rest: readonly RestFace[], host: Host): readonly Feature[] {
  let left = rest
  return FINDERS.flatMap((find) => {
    const found = find(left, host)
    const taken = new Set(found.flatMap((f) => f.faces))
    left = left.filter((f) => !taken.has(f.number))
    return found
  })
}
