import type { LengthStep } from '../../../part'
import { formula, id } from '../../../part/fields'
import { extentOf } from '../../../section'
import { lengthText } from '../../proportion'
import { overallLength } from './run'
import { end } from '../fields'
import type { OfferedRules } from '../kind'

export const length: OfferedRules<LengthStep> = {
  name: 'overall length',
  fields: { body: id, end, length: formula },
  offer: ({ body, section, units }) => {
    const [from, to] = extentOf(section)
    return { kind: 'length', body, end: 'right', length: lengthText(to - from, units) }
  },
  run: overallLength,
}
