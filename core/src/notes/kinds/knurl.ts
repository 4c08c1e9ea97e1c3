import type { KnurlNote } from '../../part'
import { exactly } from '../../part/fields'
import { fail } from '../../result'
import { KNURL_FORMS, KNURL_PITCHES } from '../../standards'
import { landOf } from '../faces'
import type { NoteRules } from '../kind'

/** As a drawing calls it out (ISO 13444). */
const plain = ({ form, pitch }: KnurlNote): string => `ISO 13444 - ${form} ${pitch}`

export const knurl: NoteRules<KnurlNote> = {
  name: 'knurl',
  fields: { form: exactly(...KNURL_FORMS), pitch: exactly(...KNURL_PITCHES) },
  offer: ({ edges }) => {
    const land = landOf(edges)
    const pitch = !land || land.radius < 8 ? '0.6' : land.radius < 25 ? '0.8' : '1'
    return { kind: 'knurl', form: 'RGE', pitch }
  },
  twice: 'Two knurls are on one land.',
  plain,
  requires: () => ({ what: 'knurl', instrument: 'by eye, rule' }),
  tell: (note, { edges }) => {
    const words = plain(note)
    const land = landOf(edges)
    if (land?.side !== 'outside') {
      const mend = 'Pick a face that runs along the axis, on the outside.'
      return {
        words,
        problem: fail('knurl.land', 'A knurl is rolled onto a cylinder.', mend).problem,
      }
    }
    if (land.to - land.from < 2 * Number(note.pitch)) {
      const mend = 'Take a wider one, or a smaller pitch.'
      return {
        words,
        problem: fail('knurl.narrow', 'This land is too narrow for its knurl.', mend).problem,
      }
    }
    return { words }
  },
}
