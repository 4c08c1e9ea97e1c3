import { string } from 'yup'
import type { TextNote } from '../../part'
import { fail } from '../../result'
import type { NoteRules } from '../kind'

/** The most that a note says, in letters. */
const LONGEST = 400

export const text: NoteRules<TextNote> = {
  name: 'words',
  fields: { words: string().strict().defined().max(LONGEST) },
  onSolids: true,
  offer: () => ({ kind: 'text', words: '' }),
  plain: ({ words }) => words,
  tell: ({ words }) => {
    if (words.trim() !== '') return { words }
    return {
      words: '…',
      problem: fail('text.empty', 'This note says nothing.', 'Type its words.').problem,
    }
  },
}
