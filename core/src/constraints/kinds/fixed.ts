import { locator, type Fixed } from '../../sketch'
import type { ConstraintKind } from '../kind'
import { ownPointsIn } from '../picks'

export const fixed: ConstraintKind<Fixed> = {
  fields: { point: 'id', x: 'coordinate', y: 'coordinate' },
  words: (c, { name }) => `${name(c.point)} fixed`,
  joins: true,
  demands: ({ index, ties }, c) => {
    ties.hold(index(c.point), c, c.id)
    return []
  },
  offer: {
    make: (sketch, picks) => {
      const points = ownPointsIn(sketch, picks)
      if (points.length !== picks.length) return []
      const locate = locator(sketch)
      return points.map((point) => {
        const { x, y } = locate(point)
        return { kind: 'fixed', point, x, y }
      })
    },
    needs: 'Pick one point or several.',
  },
}
