import { ORIGIN_ID, type Coincident } from '../../sketch'
import { x, y, type ConstraintKind } from '../kind'
import { fromFirst, isPoint } from '../picks'

export const coincident: ConstraintKind<Coincident> = {
  fields: { a: 'id', b: 'id' },
  words: (c, { name }) => `${name(c.a)} meets ${name(c.b)}`,
  joins: true,
  demands: ({ index, ties }, c) => {
    const [a, b] = [index(c.a), index(c.b)]
    ties.tie(x(a), x(b), 0, c.id)
    ties.tie(y(a), y(b), 0, c.id)
    return []
  },
  offer: {
    make: (sketch, picks) => {
      const originFirst = [...picks].sort(
        (a, b) => Number(b === ORIGIN_ID) - Number(a === ORIGIN_ID),
      )
      return fromFirst(sketch, originFirst, isPoint).map(([b, a]) => ({ kind: 'coincident', a, b }))
    },
    needs: 'Pick two points or more.',
  },
}
