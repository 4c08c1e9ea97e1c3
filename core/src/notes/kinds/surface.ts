import type { SurfaceNote } from '../../part'
import { exactly, text } from '../../part/fields'
import { fail } from '../../result'
import type { NoteRules } from '../kind'

/** Values that Ra is asked in, in µm: the series of preferred numbers that ISO 21920-1 goes by. */
export const SURFACE_VALUES = ['0.1', '0.2', '0.4', '0.8', '1.6', '3.2', '6.3', '12.5', '25']

export const surface: NoteRules<SurfaceNote> = {
  name: 'surface',
  fields: {
    parameter: exactly('Ra', 'Rz'),
    value: text,
    removal: exactly('any', 'required', 'forbidden'),
  },
  offer: ({ edges }) => ({
    ...{ kind: 'surface', parameter: 'Ra', removal: 'required' },
    value: edges.length === 0 ? '3.2' : '0.8',
  }),
  tell: (note, { all }) => {
    const words = `${note.parameter} ${note.value}`
    const value = Number(note.value.replace(',', '.'))
    if (note.value.trim() === '' || !(value > 0 && value <= 1000)) {
      const mend = 'Type a number in µm, such as 1.6.'
      return { words, problem: fail('surface.value', 'This is no roughness.', mend).problem }
    }
    const other = all.some(
      (n) => n.kind === 'surface' && n.id !== note.id && n.on === note.on && n.body === note.body,
    )
    if (!other) return { words }
    const problem = fail(
      'surface.twice',
      'Two surfaces are asked of one face.',
      'Delete one of them.',
    )
    return { words, problem: problem.problem }
  },
}
