import { DATUM_LETTERS } from '@lathica/core/notes'
import type { DatumNote } from '@lathica/core/part'
import { plain, type NoteLooks } from '../kind'

export const datum: NoteLooks<DatumNote> = {
  ...{ title: 'Datum', key: 'e', icon: 'noteDatum' },
  help: 'A letter on a face that others are measured from.',
  hint: 'Click the face that is the datum.',
  fields: (note) => [
    {
      ...{ kind: 'choice', id: 'letter', label: 'Letter', value: note.letter },
      ...{ options: plain(DATUM_LETTERS), take: (letter) => ({ letter }) },
    },
  ],
}
