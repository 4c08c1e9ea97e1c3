import { landOf } from '@lathica/core/notes'
import type { KnurlNote } from '@lathica/core/part'
import { KNURLS, KNURL_FORMS, KNURL_PITCHES } from '@lathica/core/standards'
import { plain, type NoteLooks } from '../kind'

export const knurl: NoteLooks<KnurlNote> = {
  ...{ title: 'Knurl', key: 'd', icon: 'noteKnurl' },
  help: 'A knurl on a land, straight, oblique or crossed, by its form and pitch.',
  hint: 'Click the land that is knurled.',
  fields: (note) => [
    {
      ...{ kind: 'choice', id: 'form', label: 'Form', value: note.form },
      options: KNURL_FORMS.map((value) => ({ value, label: `${value}, ${KNURLS[value].words}` })),
      take: (form) => ({ form }),
    },
    {
      ...{ kind: 'choice', id: 'pitch', label: 'Pitch', value: note.pitch },
      ...{ options: plain(KNURL_PITCHES), take: (pitch) => ({ pitch }) },
    },
  ],
  figures: (note, { state }) => {
    const land = landOf(state.edges)
    if (!land) return []
    const round = (2 * Math.PI * land.radius) / Number(note.pitch)
    return [['Round it', `${round.toFixed(1)} pitches`]]
  },
}
