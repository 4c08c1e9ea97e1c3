import type { TextNote } from '@lathica/core/part'
import type { NoteLooks } from '../kind'

export const text: NoteLooks<TextNote> = {
  ...{ title: 'Words', key: 'a', icon: 'noteText' },
  help: 'Words for the workshop on a face; long ones as a flag with a number.',
  hint: 'Click the face it is said of.',
  fields: (note) => [
    {
      ...{ kind: 'typed', id: 'words', label: 'Words', text: note.words, longest: 400 },
      take: (words) => ({ words }),
    },
    {
      ...{ kind: 'choice', id: 'flag', label: 'On the board', value: note.flag ? 'flag' : 'words' },
      options: [
        { value: 'words', label: 'the words' },
        { value: 'flag', label: 'a flag with a number' },
      ],
      take: (as) => ({ flag: as === 'flag' }),
    },
  ],
}
