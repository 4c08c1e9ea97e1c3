import type { ColourNote } from '@lathica/core/part'
import type { NoteLooks } from '../kind'

export const colour: NoteLooks<ColourNote> = {
  ...{ title: 'Colour', key: 'c', icon: 'noteColour' },
  help: 'Colours one face on the solid, matt or polished; no drawing shows it.',
  hint: 'Click the face that is coloured.',
  fields: (note) => [
    {
      ...{ kind: 'colour', id: 'colour', label: 'Colour', value: note.colour },
      take: (to) => ({ colour: to }),
    },
    {
      ...{ kind: 'choice', id: 'finish', label: 'Finish', value: note.finish },
      options: [
        { value: 'matt', label: 'matt' },
        { value: 'polished', label: 'polished' },
      ],
      take: (finish) => ({ finish }),
    },
  ],
  isSilent: true,
}
