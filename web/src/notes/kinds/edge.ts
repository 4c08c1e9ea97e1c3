import { INSIDE_EDGES, OUTSIDE_EDGES } from '@lathica/core/notes'
import type { EdgeNote } from '@lathica/core/part'
import type { NoteField, NoteLooks } from '../kind'

export const edge: NoteLooks<EdgeNote> = {
  ...{ title: 'Edge', key: 'x', icon: 'noteEdge' },
  help: 'What may stand over or be missing at an edge; from the list of notes, at all others.',
  hint: 'Click the circular edge that is to be so.',
  fields: (note, { state }) => {
    const { corner } = state
    const outside: NoteField = {
      ...{ kind: 'typed', id: 'outside', label: 'Outside', text: note.outside },
      ...{ empty: 'nothing said, -0.3, ±0.05', offers: OUTSIDE_EDGES },
      ...{ said: 'Outside edges, in mm', take: (to: string) => ({ outside: to }) },
    }
    const inside: NoteField = {
      ...{ kind: 'typed', id: 'inside', label: 'Inside', text: note.inside },
      ...{ empty: 'nothing said, +0.3, ±0.05', offers: INSIDE_EDGES },
      ...{ said: 'Inside edges, in mm', take: (to: string) => ({ inside: to }) },
    }
    if (!corner) return [outside, inside]
    return corner.turn > 0 ? [outside] : [inside]
  },
}
