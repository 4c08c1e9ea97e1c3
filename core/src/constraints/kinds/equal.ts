import type { CurvePair } from '../../sketch'
import { roundPoints, separation, sumEquation } from '../../equations'
import type { ConstraintKind, NewConstraint } from '../kind'
import { entityOf, fromFirst, isLine, isRound } from '../picks'

export const equal: ConstraintKind<CurvePair> = {
  fields: { curve: 'id', to: 'id' },
  words: (c, { sketch, name }) => {
    const round = entityOf(sketch, c.curve)?.kind !== 'line'
    return `${name(c.curve)} ${round ? 'equal in radius to' : 'as long as'} ${name(c.to)}`
  },
  demands: (setting, c) => {
    const [a, b] = [c.curve, c.to].map((id) => {
      const ends = roundPoints(setting, id) ?? setting.line(id)
      return separation(ends[0], ends[1])
    })
    const terms =
      a && b
        ? ([
            [1, a],
            [-1, b],
          ] as const)
        : []
    return [sumEquation(c.id, terms)]
  },
  offer: {
    make: (sketch, picks) =>
      [...fromFirst(sketch, picks, isLine), ...fromFirst(sketch, picks, isRound)].map(
        ([to, curve]): NewConstraint => ({ kind: 'equal', curve, to }),
      ),
    needs: 'Pick two lines or more, or two arcs or more.',
  },
}
