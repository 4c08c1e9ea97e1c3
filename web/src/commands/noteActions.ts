import { addNote, offeredNote } from '@lathica/core/notes'
import type { NoteKind } from '@lathica/core/part'
import { nextTick } from 'vue'
import type { IconName } from '../icons/paths'
import { useBoardStore } from '../store/board'
import { useNotesStore } from '../store/notes'
import { usePartStore } from '../store/part'
import { useRouteStore } from '../store/route'
import type { Action } from './action'
import { hasMaterial } from './makeStep'

const KINDS: readonly (readonly [NoteKind, string, IconName, string, string, string])[] = [
  [
    'thread',
    'w',
    'noteThread',
    'Thread',
    'A screw thread on a land or in a bore, as it is called out: M16x1.5-6g.',
    'Click the land or bore that carries the thread.',
  ],
  [
    'datum',
    'e',
    'noteDatum',
    'Datum',
    'A letter on a face that others are measured from.',
    'Click the face that is the datum.',
  ],
  [
    'frame',
    'r',
    'noteFrame',
    'Geometric tolerance',
    'How far a face may be off its true form, way or place.',
    'Click the face that has the tolerance.',
  ],
  [
    'surface',
    't',
    'noteSurface',
    'Surface',
    'How smooth a face is to be; from the list of notes, all others.',
    'Click the face that is to be so smooth.',
  ],
  [
    'treatment',
    's',
    'noteTreatment',
    'Treatment',
    'How a face is hardened or coated, and how deep; drawn as a chain line along it.',
    'Click the face that is treated.',
  ],
  [
    'text',
    'a',
    'noteText',
    'Words',
    'Words for the workshop on a face.',
    'Click the face it is said of.',
  ],
]

/** What is said of faces. */
export function noteActions(): Action[] {
  const notes = useNotesStore()
  return [
    ...KINDS.map(([kind, key, icon, label, help, hint]): Action => ({
      ...{ id: `note:${kind}`, label, help, key, icon, pages: ['note'] },
      enabled: hasMaterial,
      run: () => {
        askFor(kind, hint)
      },
    })),
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

/** Asks for the face a note is said of, and puts it there. */
export function askFor(kind: NoteKind, hint: string): void {
  const board = useBoardStore()
  const route = useRouteStore()
  const parts = usePartStore()
  board.stepId = undefined
  board.picks = []
  board.startAsking({
    hint,
    accept: 'face',
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
