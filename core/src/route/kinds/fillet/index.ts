import type { FilletStep } from '../../../part'
import { formula, id, list, record } from '../../../part/fields'
import { proportion } from '../../proportion'
import { fillet as run } from './run'
import { NO_CORNERS, cornerPick } from '../fields'
import type { OfferedRules } from '../kind'

export const fillet: OfferedRules<FilletStep> = {
  name: 'fillet',
  fields: { body: id, sets: list(record({ pick: cornerPick, radius: formula })) },
  offer: ({ body, section, units }) => ({
    ...{ kind: 'fillet', body },
    sets: [{ pick: NO_CORNERS, radius: proportion(section, 0.05, units) }],
  }),
  run,
}
