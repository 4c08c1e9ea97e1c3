import { AXIS_ID, isFree, pointsOf, type PointOn } from '../../sketch'
import { besideEnd, offFree, onLine, roundPoints, separation, sumEquation } from '../../equations'
import type { ConstraintKind } from '../kind'
import { endsIn, entityOf, isLine, isRound, ownPointsIn } from '../picks'

export const pointOn: ConstraintKind<PointOn> = {
  fields: { point: 'id', curve: 'id' },
  words: (c, { name }) => `${name(c.point)} on ${name(c.curve)}`,
  demands: (setting, c) => {
    const { index, entities, line } = setting
    const p = index(c.point)
    const curve = entities.get(c.curve)
    if (curve && isFree(curve)) return [sumEquation(c.id, [[1, offFree(p, curve, index)]])]
    if (curve?.kind === 'parallel') {
      const { along, from } = curve
      return [
        sumEquation(c.id, [
          [1, offFree(p, along, index)],
          [-1, besideEnd(index(from), along, 0, index, 'left')],
        ]),
      ]
    }
    const round = roundPoints(setting, c.curve)
    if (!round) return [onLine(c.id, p, line(c.curve))]
    const [centre, rim] = round
    return [
      sumEquation(c.id, [
        [1, separation(centre, p)],
        [-1, separation(centre, rim)],
      ]),
    ]
  },
  offer: {
    make: (sketch, picks) => {
      const [curve, ...others] = picks.filter(
        (id) => id === AXIS_ID || entityOf(sketch, id) !== undefined,
      )
      const points = ownPointsIn(sketch, picks)
      if (curve === undefined || picks.length < 2) return []
      if (points.length + 1 + others.length !== picks.length) return []
      const free = entityOf(sketch, curve)
      const isOf = free && (isFree(free) || free.kind === 'parallel')
      if (isOf && points.some((p) => pointsOf(free).includes(p))) return []
      if (others.some((id) => !isLine(sketch, id) || isRound(sketch, curve))) return []
      // Lines put onto a line become collinear with it: both their ends lie on it.
      const own = new Set(endsIn(sketch, curve))
      const ends = others.flatMap((id) => endsIn(sketch, id)).filter((id) => !own.has(id))
      return [...new Set([...points, ...ends])].map((point) => ({ kind: 'pointOn', point, curve }))
    },
    needs: 'Pick a curve or the axis, and points or other lines to lie on it.',
  },
}
