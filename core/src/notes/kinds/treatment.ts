import { evaluateFormula } from '../../formula'
import { valuesOf, type TreatmentNote } from '../../part'
import { formula, text } from '../../part/fields'
import { fail } from '../../result'
import { formatLength } from '../../units'
import type { NoteRules } from '../kind'

export const treatment: NoteRules<TreatmentNote> = {
  name: 'treatment',
  fields: { words: text, depth: formula },
  onSolids: true,
  offer: () => ({ kind: 'treatment', words: 'hardened', depth: '' }),
  plain: ({ words }) => words,
  requires: ({ words }) => ({
    what: 'treatment',
    instrument: /HRC|HV|HB/.test(words) ? 'hardness tester' : 'by the record of the treatment',
  }),
  tell: ({ words, depth }, { part }) => {
    if (words.trim() === '') {
      const mend = 'Type how the face is treated.'
      return { words: '…', problem: fail('treatment.empty', 'This says nothing.', mend).problem }
    }
    if (depth.trim() === '') return { words }
    const lookup = valuesOf(part).table.lookup
    const found = evaluateFormula(depth, { want: 'length', units: part.units, lookup })
    if (!found.ok) return { words, problem: found.problem }
    if (!(found.value > 0)) {
      const mend = 'Type how deep it goes, above 0, or leave it out.'
      return { words, problem: fail('treatment.depth', 'This is no depth.', mend).problem }
    }
    return { words: `${words}, ${formatLength(found.value, part.units)} deep` }
  },
}
