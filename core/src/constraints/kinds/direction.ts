import { signedAngle, type LinePair } from '../../sketch'
import { angleEquation, straightOf, type Reducible, type Setting } from '../../equations'
import type { ConstraintKind, NewConstraint } from '../kind'
import { fromFirst, isLine } from '../picks'

const pair = (kind: LinePair['kind'], needs: string): ConstraintKind<LinePair> => ({
  fields: { line: 'id', to: 'id' },
  words: (c, { name }) => `${name(c.line)} ${kind} to ${name(c.to)}`,
  demands: (setting, c) => [direction(setting, c)],
  offer: {
    make: (sketch, picks) =>
      fromFirst(sketch, picks, isLine).map(([to, line]): NewConstraint => ({ kind, line, to })),
    needs,
  },
})

export const parallel = pair('parallel', 'Pick two lines or more.')
export const perpendicular = pair('perpendicular', 'Pick two lines.')

/** Parallel to a straight line of the axes' directions is a tie; else the angle is held. */
function direction({ line, entities, locate, extent, side }: Setting, c: LinePair): Reducible {
  const [first, second] = [line(c.line), line(c.to)]
  const now = signedAngle({ ...c, reversed: false }, entities, locate)
  const turned = c.kind === 'perpendicular' ? 1 : 0
  return {
    owner: c.id,
    reduce: (ties) => {
      for (const [known, other] of [
        [second, first],
        [first, second],
      ] as const) {
        const straight = straightOf(ties, ...known)
        if (!straight) continue
        const across = turned === 1 ? 1 - straight.across : straight.across
        ties.tie(2 * other[0] + across, 2 * other[1] + across, 0, c.id, straight.support)
        return true
      }
      return false
    },
    // Lines are made parallel or square by the angle that is nearest to the one they have.
    equations: () => {
      const angle =
        turned === 1
          ? (side(c.id, Math.sin(now), 1, extent) * Math.PI) / 2
          : side(c.id, Math.cos(now), 1, extent) > 0
            ? 0
            : Math.PI
      return [angleEquation(c.id, first, second, angle, extent, false)]
    },
  }
}
