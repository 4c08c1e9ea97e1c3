import { string } from 'yup'
import type { Note, TextNote } from '../../part'
import { flag } from '../../part/fields'
import { fail } from '../../result'
import type { NoteRules } from '../kind'
import { FLAG_SYMBOL } from '../symbols'

/** The most that a note says, in letters. */
const LONGEST = 400

/** The number of a flag: flags are counted in the order they were put. */
const flagNumber = (note: TextNote, all: readonly Note[]): number =>
  all.filter((n) => n.kind === 'text' && n.flag).findIndex((n) => n.id === note.id) + 1

export const text: NoteRules<TextNote> = {
  name: 'words',
  fields: { words: string().strict().defined().max(LONGEST), flag },
  onSolids: true,
  offer: () => ({ kind: 'text', words: '', flag: false }),
  plain: ({ words }) => words,
  requires: () => ({ what: 'words', instrument: 'by eye' }),
  tell: (note, { all }) => {
    const { words } = note
    if (words.trim() !== '') {
      return { words: note.flag ? `${flagNumber(note, all)}: ${words}` : words }
    }
    return {
      words: '…',
      problem: fail('text.empty', 'This note says nothing.', 'Type its words.').problem,
    }
  },
  // Its words begin with its number.
  cells: (note, words) =>
    note.flag ? [{ symbol: FLAG_SYMBOL }, { words: words.split(':')[0] ?? '' }] : [{ words }],
}
