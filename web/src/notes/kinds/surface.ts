import { SURFACE_VALUES } from '@lathica/core/notes'
import { SURFACE_PARAMETERS, type SurfaceNote, type SurfaceParameter } from '@lathica/core/part'
import type { NoteLooks } from '../kind'

/** ISO 21920-2:2021, clause 5. */
const PARAMETERS: Readonly<Record<SurfaceParameter, string>> = {
  Ra: 'Ra, mean',
  Rz: 'Rz, greatest height',
  Rq: 'Rq, root mean square',
  Rp: 'Rp, peak',
  Rv: 'Rv, pit',
  Rt: 'Rt, total height',
}

export const surface: NoteLooks<SurfaceNote> = {
  ...{ title: 'Surface', key: 't', icon: 'noteSurface' },
  help: 'How smooth a face is to be; from the list of notes, all others.',
  hint: 'Click the face that is to be so smooth.',
  fields: (note) => [
    {
      ...{ kind: 'choice', id: 'parameter', label: 'Parameter', value: note.parameter },
      options: SURFACE_PARAMETERS.map((value) => ({ value, label: PARAMETERS[value] })),
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
    {
      ...{ kind: 'typed', id: 'allowance', label: 'Left on', text: note.allowance },
      ...{ empty: 'nothing', take: (allowance) => ({ allowance }) },
    },
    {
      ...{ kind: 'typed', id: 'process', label: 'By', text: note.process, longest: 60 },
      ...{ empty: 'ground, honed …', take: (process) => ({ process }) },
    },
  ],
}
