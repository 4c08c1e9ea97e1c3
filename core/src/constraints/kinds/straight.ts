import type { Axial, Radial } from '../../sketch'
import { x, y, type ConstraintKind, type NewConstraint } from '../kind'
import { linesIn } from '../picks'

/** Lines along the axis have both ends at one y; lines square to it at one x. */
function straight<C extends Axial | Radial>(
  kind: C['kind'],
  across: (point: number) => number,
): ConstraintKind<C> {
  return {
    fields: { line: 'id' } as ConstraintKind<C>['fields'],
    words: (c, { name, words }) => `${name(c.line)} ${words[kind]}`,
    demands: ({ line, ties }, c) => {
      const [a, b] = line(c.line)
      ties.tie(across(a), across(b), 0, c.id)
      return []
    },
    offer: {
      make: (sketch, picks) => {
        const lines = linesIn(sketch, picks)
        if (lines.length < picks.length) return []
        return lines.map((line): NewConstraint => ({ kind, line }))
      },
      needs: 'Pick one line or several.',
    },
  }
}

export const axial = straight<Axial>('axial', y)
export const radial = straight<Radial>('radial', x)
