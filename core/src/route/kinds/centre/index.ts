import type { CentreStep } from '../../../part'
import { exactly, id } from '../../../part/fields'
import { CENTRE_PILOTS, CENTRE_TYPES, centreHole } from '../../../standards'
import { endRadius } from '../../steps/ends'
import { end } from '../fields'
import type { OfferedRules } from '../kind'
import { centre as run } from './run'

/** What a centre hole may take of its end: about a third of the diameter. */
const SHARE = 0.35

export const centre: OfferedRules<CentreStep> = {
  name: 'centre hole',
  fields: {
    body: id,
    end,
    type: exactly(...CENTRE_TYPES),
    pilot: exactly(...CENTRE_PILOTS.map(String)),
    remains: exactly('stays', 'may', 'goes'),
  },
  again: ['mirror'],
  offer: ({ body, section }) => {
    const room = 2 * SHARE * endRadius(section, 'left')
    const fits = CENTRE_PILOTS.filter((p) => (centreHole(p)?.guard ?? Infinity) <= room)
    const pilot = String(fits.at(-1) ?? CENTRE_PILOTS[0])
    return { ...{ kind: 'centre', body, end: 'left', type: 'B', pilot }, remains: 'stays' }
  },
  run,
}
