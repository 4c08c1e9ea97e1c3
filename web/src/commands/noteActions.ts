import { NOTE_KINDS, addNote, offeredNote } from '@lathica/core/notes'
import type { NoteKind } from '@lathica/core/part'
import { nextTick } from 'vue'
import { NOTE_LOOKS, NOTE_ORDER } from '../notes/kinds'
import { useBoardStore } from '../store/board'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import type { Action } from './action'
import { hasMaterial } from './makeStep'

/** What is said of faces. */
export function noteActions(): Action[] {
  const notes = useNotesStore()
  return [
    ...NOTE_ORDER.map((kind): Action => {
      const { title, help, key, icon, hint } = NOTE_LOOKS[kind]
      return {
        ...{ id: `note:${kind}`, label: title, help, key, icon, pages: ['note'] },
        enabled: hasMaterial,
        run: () => {
          askFor(kind, hint)
        },
      }
    }),
    ...NOTE_ORDER.map((kind): Action => {
      const { title, key } = NOTE_LOOKS[kind]
      return {
        ...{ id: `note:shown:${kind}`, label: `Show or hide: ${title}`, key: `Shift+${key}` },
        help: `Hides every note of the kind ${title} on the board and the solid, or shows them again.`,
        pages: ['note'],
        run: () => {
          notes.toggle(kind)
        },
      }
    }),
    {
      id: 'note:shown',
      label: 'Show notes',
      help: 'Hides what is said of faces on the board, or shows it; the list of notes does so by kind.',
      key: 'g',
      icon: 'notesShown',
      pages: ['note'],
      run: notes.toggleAll,
    },
  ]
}

/** Asks for the face or corner a note is said of, and puts it there. */
function askFor(kind: NoteKind, hint: string): void {
  const board = useBoardStore()
  const route = useRouteStore()
  const parts = usePartStore()
  board.stepId = undefined
  board.picks = []
  board.startAsking({
    hint,
    accept: NOTE_KINDS[kind].stands ?? 'face',
    // Of drilled and milled faces only what needs no land.
    ...(NOTE_KINDS[kind].onSolids === true ? { solids: true as const } : {}),
    bodies: () => (parts.state?.bodies ?? []).filter((b) => !b.reference),
    chosen: () => [],
    take: ({ body, key }) => {
      const { part } = parts
      if (part) putNote(() => addNote(offeredNote(part, kind, body, key)))
    },
  })
  route.bodyId = undefined
}

/** Puts a note in and opens its card, its first field in hand. */
export function putNote(make: () => ReturnType<typeof addNote>): void {
  const notes = useNotesStore()
  const parts = usePartStore()
  if (!parts.run(make())) return
  useBoardStore().useTool('pick')
  notes.noteId = parts.part?.notes?.at(-1)?.id
  void nextTick(() => {
    const field = document.querySelector<HTMLElement>('.note-card [data-first]')
    field?.focus()
    if (field instanceof HTMLInputElement) field.select()
  })
}
