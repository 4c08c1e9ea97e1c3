import { SURFACE_VALUES } from '@lathica/core/notes'
import type { SurfaceNote } from '@lathica/core/part'
import type { NoteLooks } from '../kind'
import { SURFACE_SYMBOLS } from '../symbols'

export const surface: NoteLooks<SurfaceNote> = {
  ...{ title: 'Surface', key: 't', icon: 'noteSurface' },
  help: 'How smooth a face is to be; from the list of notes, all others.',
  hint: 'Click the face that is to be so smooth.',
  fields: (note) => [
    {
      ...{ kind: 'choice', id: 'parameter', label: 'Parameter', value: note.parameter },
      options: [
        { value: 'Ra', label: 'Ra, mean' },
        { value: 'Rz', label: 'Rz, height' },
      ],
      take: (parameter) => ({ parameter }),
    },
    {
      ...{ kind: 'typed', id: 'value', label: 'At most', text: note.value },
      ...{ said: 'At most, in µm', offers: SURFACE_VALUES, take: (value) => ({ value }) },
    },
    {
      ...{ kind: 'choice', id: 'removal', label: 'Made', value: note.removal },
      options: [
        { value: 'any', label: 'any way' },
        { value: 'required', label: 'by taking material off' },
        { value: 'forbidden', label: 'without taking material off' },
      ],
      take: (removal) => ({ removal }),
    },
  ],
  cells: (note, words) => [{ symbol: SURFACE_SYMBOLS[note.removal] }, { words }],
}
