import { evaluateFormula } from '../../formula'
import { SURFACE_PARAMETERS, valuesOf, type Part, type SurfaceNote } from '../../part'
import { exactly, formula, text } from '../../part/fields'
import { fail, succeed, type Result } from '../../result'
import { formatLength } from '../../units'
import type { NoteRules } from '../kind'
import { SURFACE_SYMBOLS } from '../symbols'

/** Values that Ra is asked in, in µm: the series of preferred numbers that ISO 21920-1 goes by. */
export const SURFACE_VALUES = ['0.1', '0.2', '0.4', '0.8', '1.6', '3.2', '6.3', '12.5', '25']

const plain = ({ parameter, value, process }: SurfaceNote): string =>
  [`${parameter} ${value}`, process.trim()].filter((w) => w !== '').join(', ')

export const surface: NoteRules<SurfaceNote> = {
  name: 'surface',
  fields: {
    parameter: exactly(...SURFACE_PARAMETERS),
    value: text,
    removal: exactly('any', 'required', 'forbidden'),
    allowance: formula,
    process: text,
  },
  onSolids: true,
  offer: ({ edges, isSolid }) => ({
    ...{ kind: 'surface', parameter: 'Ra', removal: 'required', allowance: '', process: '' },
    value: edges.length === 0 && isSolid !== true ? '3.2' : '0.8',
  }),
  requires: (note) => {
    const value = Number(note.value.replace(',', '.'))
    return {
      ...{ what: `roughness ${note.parameter}`, instrument: 'roughness tester' },
      ...(value > 0 ? { most: { value, unit: 'µm' } } : {}),
    }
  },
  twice: 'Two surfaces are asked of one face.',
  plain,
  tell: (note, { part }) => {
    const words = plain(note)
    const value = Number(note.value.replace(',', '.'))
    if (note.value.trim() === '' || !(value > 0 && value <= 1000)) {
      const mend = 'Type a number in µm, such as 1.6.'
      return { words, problem: fail('surface.value', 'This is no roughness.', mend).problem }
    }
    const left = leftOn(note, part)
    if (!left.ok) return { words, problem: left.problem }
    if (left.value === 0) return { words }
    return { words: `${words}, ${formatLength(left.value, part.units)} left on` }
  },
  cells: (note, words) => [{ symbol: SURFACE_SYMBOLS[note.removal] }, { words }],
}

/** What is left on a face for a later working, in mm; 0 where nothing is said. */
function leftOn({ allowance, removal }: SurfaceNote, part: Part): Result<number> {
  if (allowance.trim() === '') return succeed(0)
  const lookup = valuesOf(part).table.lookup
  const left = evaluateFormula(allowance, { want: 'length', units: part.units, lookup })
  if (!left.ok) return left
  if (removal === 'forbidden') {
    const mend = 'Leave it out, or let the face be made by taking material off.'
    return fail('surface.forbidden', 'What may not be worked has no allowance.', mend)
  }
  if (left.value > 0) return left
  const mend = 'Type what is left on for a later working, above 0, or leave it out.'
  return fail('surface.allowance', 'This is no allowance.', mend)
}
