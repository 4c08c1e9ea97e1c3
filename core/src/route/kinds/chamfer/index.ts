import type { ChamferStep } from '../../../part'
import { formula, id, list, record, angleFormula } from '../../../part/fields'
import { angleText, proportion } from '../../proportion'
import { chamfer as run } from './run'
import { NO_CORNERS, cornerPick } from '../fields'
import type { OfferedRules } from '../kind'

export const chamfer: OfferedRules<ChamferStep> = {
  name: 'chamfer',
  fields: {
    body: id,
    sets: list(record({ pick: cornerPick, along: formula, across: formula, angle: angleFormula })),
  },
  offer: ({ body, section, units }) => {
    const along = proportion(section, 0.05, units)
    const set = { pick: NO_CORNERS, along, across: '', angle: angleText(45, units) }
    return { kind: 'chamfer', body, sets: [set] }
  },
  run,
}
