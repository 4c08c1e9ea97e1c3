import { changeSize, type Command } from '../edit'
import type { NewNote, Note, NoteKind, Part, ThreadNote } from '../part'
import { fail, succeed } from '../result'
import { evaluate } from '../route'
import { readThread } from '../standards'
import { landOf } from './faces'
import { NOTE_KINDS } from './kinds'
import { threadDiameter } from './kinds/thread'
import { diameterSizeOf } from './sizes'
import { cornerCalled, faceEdges, notesOf } from './states'

/** More notes than this nobody reads. */
const MOST_NOTES = 500

/** A new note as it is offered for a face. */
export function offeredNote(part: Part, kind: NoteKind, body: string, on: string): NewNote {
  const state = evaluate(part)
  const rules = NOTE_KINDS[kind]
  const corner = rules.stands === 'corner' ? cornerCalled(state, body, on) : undefined
  const edges = on === '' || corner ? [] : faceEdges(state, body, on)
  const isSolid = on !== '' && edges.length === 0 && !corner
  const stands = { part, edges, all: notesOf(part), isSolid, ...(corner ? { corner } : {}) }
  return { ...rules.offer(stands), body, on } as NewNote
}

/** Says something of a face. */
export function addNote(note: NewNote): Command {
  return {
    label: `add ${NOTE_KINDS[note.kind].name}`,
    run: (part) => {
      if (notesOf(part).length >= MOST_NOTES) {
        return fail('note.many', 'No more notes than these fit a part.', 'Delete some first.')
      }
      const id = `note${part.nextId}`
      const notes = [...notesOf(part), { ...note, id } as Note]
      return succeed({ ...part, nextId: part.nextId + 1, notes })
    },
  }
}

/** Changes a note; what it says then is judged where it stands. */
export function changeNote(note: Note): Command {
  return {
    label: `change ${NOTE_KINDS[note.kind].name}`,
    run: (part) => {
      if (!notesOf(part).some((n) => n.id === note.id)) {
        return fail('note.none', 'This note is gone.', 'Choose another.')
      }
      return succeed({ ...part, notes: notesOf(part).map((n) => (n.id === note.id ? note : n)) })
    },
  }
}

/** Takes a note away. */
export function removeNote(id: string): Command {
  return {
    label: 'delete note',
    run: (part) => {
      const notes = notesOf(part).filter((n) => n.id !== id)
      const { notes: _, ...rest } = part
      return succeed(notes.length === 0 ? rest : { ...part, notes })
    },
  }
}

/** Gives the land or bore of a thread the diameter that the thread wants, by the size that it was drawn with. */
export function fitLand({ callout, body, on }: ThreadNote): Command {
  return {
    label: 'make the land fit its thread',
    run: (part) => {
      const edges = faceEdges(evaluate(part), body, on)
      const [land, thread] = [landOf(edges), readThread(callout)]
      if (!land || !thread.ok) {
        return fail('thread.land', 'There is no land to be made to fit.', 'Pick a cylinder.')
      }
      const size = diameterSizeOf(part, body, on)
      if (!size) {
        const mend = 'Change what gives it, or give it a diameter in its profile.'
        return fail('thread.unsized', 'No size of a profile gives this diameter.', mend)
      }
      const wanted = threadDiameter(thread.value, land.side)
      return changeSize(size.sketch, size.id, `${Number(wanted.toFixed(6))} mm`).run(part)
    },
  }
}
