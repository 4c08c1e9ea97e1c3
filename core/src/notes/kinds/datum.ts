import type { DatumNote, Note } from '../../part'
import { text } from '../../part/fields'
import { fail } from '../../result'
import type { NoteRules } from '../kind'

/** Letters that are taken for datums: I, O, Q and X are left out (ISO 5459:2011, clause 7.1). */
export const DATUM_LETTERS = [...'ABCDEFGHJKLMNPRSTUVWYZ']

/** The first letter that no datum has. */
function freeLetter(all: readonly Note[]): string {
  const taken = new Set(all.flatMap((n) => (n.kind === 'datum' ? [n.letter] : [])))
  return DATUM_LETTERS.find((l) => !taken.has(l)) ?? ''
}

export const datum: NoteRules<DatumNote> = {
  name: 'datum',
  fields: { letter: text },
  onSolids: true,
  offer: ({ all }) => ({ kind: 'datum', letter: freeLetter(all) }),
  plain: ({ letter }) => letter,
  tell: (note, { all }) => {
    const words = note.letter
    if (!DATUM_LETTERS.includes(note.letter)) {
      const problem = fail(
        'datum.letter',
        note.letter.trim() === ''
          ? 'A datum needs a letter.'
          : `“${note.letter}” letters no datum.`,
        'Take one capital; I, O, Q and X are left out.',
      )
      return { words: words || '?', problem: problem.problem }
    }
    const twice = all.some(
      (n) => n.kind === 'datum' && n.letter === note.letter && n.id !== note.id,
    )
    if (!twice) return { words }
    const mend = `Take another letter, such as ${freeLetter(all)}.`
    return { words, problem: fail('datum.twice', `There are two datums ${words}.`, mend).problem }
  },
}
