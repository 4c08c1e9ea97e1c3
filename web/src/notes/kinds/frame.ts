import { characteristicWords } from '@lathica/core/notes'
import { CHARACTERISTICS, type FrameNote } from '@lathica/core/part'
import type { NoteField, NoteLooks } from '../kind'

const projectedField = (note: FrameNote): NoteField => ({
  ...{ kind: 'typed', id: 'projected', label: 'Beyond', text: note.projected },
  ...{ empty: 'how far, as in 10', take: (projected) => ({ projected }) },
})

export const frame: NoteLooks<FrameNote> = {
  ...{ title: 'Geometric tolerance', key: 'r', icon: 'noteFrame' },
  help: 'How far a face may be off its true form, way or place.',
  hint: 'Click the face that has the tolerance.',
  fields: (note) => [
    {
      ...{ kind: 'choice', id: 'characteristic', label: 'Of', value: note.characteristic },
      options: CHARACTERISTICS.map((value) => ({ value, label: characteristicWords(value) })),
      take: (characteristic) => ({ characteristic }),
    },
    {
      ...{ kind: 'typed', id: 'zone', label: 'Zone', text: note.zone },
      take: (zone) => ({ zone }),
    },
    {
      ...{ kind: 'choice', id: 'round', label: 'Lies', value: note.round ? 'round' : 'wide' },
      options: [
        { value: 'wide', label: 'between two faces' },
        { value: 'round', label: '⌀, about an axis' },
      ],
      take: (way) => ({ round: way === 'round' }),
    },
    {
      ...{ kind: 'choice', id: 'material', label: 'Material', value: note.material },
      options: [
        { value: '', label: 'at any' },
        { value: 'M', label: 'at most material, Ⓜ' },
        { value: 'L', label: 'at least material, Ⓛ' },
        { value: 'P', label: 'at any, projected, Ⓟ' },
      ],
      take: (material) => ({ material }),
    },
    ...(note.material === 'P' ? [projectedField(note)] : []),
    {
      ...{ kind: 'typed', id: 'datums', label: 'Datums', text: note.datums },
      ...{ empty: 'none, A, A B, or A-B together', take: (datums) => ({ datums }) },
    },
  ],
}
