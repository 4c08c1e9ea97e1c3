import type { HalveStep } from '../../../part'
import { formula, id, text, angleFormula } from '../../../part/fields'
import { angleText } from '../../proportion'
import { halve as run } from './run'
import type { OfferedRules } from '../kind'

export const halve: OfferedRules<HalveStep> = {
  name: 'halve',
  fields: { body: id, angle: angleFormula, offset: formula, into: text },
  planes: true,
  offer: ({ body, units }) => ({
    ...{ kind: 'halve', body, angle: angleText(90, units), offset: '', into: '' },
  }),
  run,
}
