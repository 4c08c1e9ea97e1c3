import type { CurvePair } from '../../sketch'
import { roundPoints } from '../../equations'
import { x, y, type ConstraintKind, type NewConstraint } from '../kind'
import { fromFirst, isRound } from '../picks'

export const concentric: ConstraintKind<CurvePair> = {
  fields: { curve: 'id', to: 'id' },
  words: (c, { name }) => `${name(c.curve)} concentric with ${name(c.to)}`,
  joins: true,
  demands: (setting, c) => {
    const [a, b] = [roundPoints(setting, c.curve), roundPoints(setting, c.to)]
    if (!a || !b) return []
    setting.ties.tie(x(a[0]), x(b[0]), 0, c.id)
    setting.ties.tie(y(a[0]), y(b[0]), 0, c.id)
    return []
  },
  offer: {
    make: (sketch, picks) =>
      fromFirst(sketch, picks, isRound).map(([to, curve]): NewConstraint => ({
        kind: 'concentric',
        curve,
        to,
      })),
    needs: 'Pick two arcs or circles, or more.',
  },
}
