import type { TextNote } from '@lathica/core/part'
import type { NoteLooks } from '../kind'

export const text: NoteLooks<TextNote> = {
  ...{ title: 'Words', key: 'a', icon: 'noteText' },
  help: 'Words for the workshop on a face.',
  hint: 'Click the face it is said of.',
  fields: (note) => [
    {
      ...{ kind: 'typed', id: 'words', label: 'Words', text: note.words, longest: 400 },
      take: (words) => ({ words }),
    },
  ],
}
