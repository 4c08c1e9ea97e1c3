import type { TreatmentNote } from '@lathica/core/part'
import type { NoteLooks } from '../kind'

export const treatment: NoteLooks<TreatmentNote> = {
  ...{ title: 'Treatment', key: 's', icon: 'noteTreatment' },
  help: 'How a face is hardened or coated, and how deep; drawn as a chain line along it.',
  hint: 'Click the face that is treated.',
  fields: (note) => [
    {
      ...{ kind: 'typed', id: 'treated', label: 'Treated', text: note.words, longest: 120 },
      ...{ empty: 'hardened 58 +4 HRC', take: (words) => ({ words }) },
    },
    {
      ...{ kind: 'typed', id: 'depth', label: 'Depth', text: note.depth },
      ...{ empty: 'not said', take: (depth) => ({ depth }) },
    },
  ],
}
