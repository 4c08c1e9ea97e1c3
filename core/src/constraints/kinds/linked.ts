import type { Linked } from '../../sketch'
import type { ConstraintKind } from '../kind'

/** Made where a new point is drawn onto another profile or the section. */
export const linked: ConstraintKind<Linked> = {
  fields: { point: 'id', profile: 'other', source: 'key', x: 'coordinate', y: 'coordinate' },
  words: (c, { name }) => `${name(c.point)} on a corner of another profile`,
  joins: true,
  demands: ({ index, ties }, c) => {
    ties.hold(index(c.point), c, c.id)
    return []
  },
}
