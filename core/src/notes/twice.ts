import type { Note } from '../part'
import { fail, type Problem } from '../result'

/** That another note of the kind stands in the same place. */
export function saidTwice(note: Note, all: readonly Note[], sentence: string): Problem | undefined {
  const other = all.some(
    (n) => n.kind === note.kind && n.id !== note.id && n.on === note.on && n.body === note.body,
  )
  return other ? fail('note.twice', sentence, 'Delete one of them.').problem : undefined
}
