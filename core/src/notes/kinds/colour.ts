import { string } from 'yup'
import type { ColourNote } from '../../part'
import { exactly } from '../../part/fields'
import type { NoteRules } from '../kind'

export const colour: NoteRules<ColourNote> = {
  name: 'colour',
  fields: {
    colour: string()
      .strict()
      .required()
      .matches(/^#[0-9a-f]{6}$/),
    finish: exactly('matt', 'polished'),
  },
  onSolids: true,
  offer: () => ({ kind: 'colour', colour: '#2f6f8f', finish: 'matt' }),
  twice: 'Two colours are given to one face.',
  plain: ({ colour: of, finish }) => `${finish} ${of}`,
  tell: (note) => ({ words: colour.plain(note) }),
}
