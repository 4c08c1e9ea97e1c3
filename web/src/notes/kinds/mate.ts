import type { MateNote } from '@lathica/core/part'
import { formatLength } from '@lathica/core/units'
import { FIT_WORDS, fitWith } from '@lathica/core/vary'
import type { NoteLooks } from '../kind'

export const mate: NoteLooks<MateNote> = {
  ...{ title: 'Mating part', key: 'z', icon: 'noteMate' },
  help: 'What fits on a land or into a bore and is no body here, such as a bearing: its play is told.',
  hint: 'Click the land or bore that something fits.',
  fields: (note) => [
    {
      ...{ kind: 'typed', id: 'mate', label: 'Fits', text: note.name, longest: 60 },
      ...{ empty: 'ball bearing', take: (name) => ({ name }) },
    },
    {
      ...{ kind: 'typed', id: 'mate-size', label: 'Its ⌀', text: note.size },
      ...{ empty: '20 H7', take: (size) => ({ size }) },
    },
  ],
  figures: (note, { part, units }) => {
    const fit = fitWith(part, { body: note.body, key: note.on }, note)
    if (!fit.ok) return []
    const mm = (value: number): string =>
      `${value < 0 ? '−' : ''}${formatLength(Math.abs(value), units)}`
    const { own, mate: other, play, kind } = fit.value
    const between = ({ low, high }: { low: number; high: number }): string =>
      `⌀${mm(low)} to ${mm(high)}`
    return [
      ['This face', between(own.diameter)],
      ['The other', between(other)],
      ['Play', `${mm(play.low)} to ${mm(play.high)} ${units.length}`],
      ['Is', FIT_WORDS[kind]],
    ]
  },
}
