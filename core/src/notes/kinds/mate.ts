import { evaluateFormula, evaluateTolerance, type Tolerance } from '../../formula'
import { valuesOf, type MateNote, type Part } from '../../part'
import { formula, text } from '../../part/fields'
import { fail, succeed, type Result } from '../../result'
import { formatLength } from '../../units'
import { landOf } from '../faces'
import type { NoteRules } from '../kind'

const plain = ({ name, size }: MateNote): string => `for ${name.trim() || '…'}, ⌀${size.trim()}`

/** The diameter of a part that is not in the model, in mm, and its tolerance. */
export function mateSize(
  { size }: Pick<MateNote, 'size'>,
  part: Part,
): Result<{ readonly nominal: number; readonly limits: Tolerance }> {
  const context = {
    want: 'length',
    units: part.units,
    lookup: valuesOf(part).table.lookup,
  } as const
  const nominal = evaluateFormula(size, context)
  if (!nominal.ok) return nominal
  const limits = evaluateTolerance(size, context)
  if (!limits.ok) return limits
  if (limits.value) return succeed({ nominal: nominal.value, limits: limits.value })
  const mend = 'Type one behind the diameter, as in 20 H7 or 20 0 -0.01.'
  return fail('mate.tolerance', 'What it fits has no tolerance.', mend)
}

export const mate: NoteRules<MateNote> = {
  name: 'mating part',
  fields: { name: text, size: formula },
  offer: ({ edges, part }) => {
    const land = landOf(edges)
    const size = land ? formatLength(2 * land.radius, part.units) : ''
    const isInside = land?.side === 'inside'
    return {
      kind: 'mate',
      name: isInside ? 'shaft' : 'hub',
      size: `${size} ${isInside ? 'h6' : 'H7'}`,
    }
  },
  twice: 'Two mating parts are named on one face.',
  plain,
  tell: (note, { edges, part }) => {
    const words = plain(note)
    if (!landOf(edges)) {
      const mend = 'Pick a face that runs along the axis.'
      return {
        words,
        problem: fail('mate.land', 'A fit is on a cylinder or in a bore.', mend).problem,
      }
    }
    const size = mateSize(note, part)
    if (!size.ok) return { words, problem: size.problem }
    if (note.name.trim() === '') {
      const mend = 'Type what it is, such as ball bearing.'
      return { words, problem: fail('mate.name', 'What it fits has no name.', mend).problem }
    }
    return { words }
  },
}
