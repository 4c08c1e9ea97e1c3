import type { RepeatStep } from '../../../part'
import { formula, id, list, numberFormula } from '../../../part/fields'
import { proportion } from '../../proportion'
import { repeat as run } from './run'
import type { OfferedRules } from '../kind'

export const repeat: OfferedRules<RepeatStep> = {
  name: 'repeat steps',
  fields: { steps: list(id), count: numberFormula, pitch: formula },
  offer: ({ lastStep, section, units }) => ({
    ...{ kind: 'repeat', steps: lastStep === undefined ? [] : [lastStep], count: '2' },
    pitch: proportion(section, 0.2, units),
  }),
  run,
}
