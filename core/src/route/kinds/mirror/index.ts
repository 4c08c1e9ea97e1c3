import type { MirrorStep } from '../../../part'
import { exactly, formula, id, key, list, angleFormula } from '../../../part/fields'
import { extentOf } from '../../../section'
import { lengthText } from '../../proportion'
import { mirror as run } from './run'
import type { OfferedRules } from '../kind'

export const mirror: OfferedRules<MirrorStep> = {
  name: 'mirror',
  fields: {
    ...{ body: id, way: exactly('across', 'along'), about: key, at: formula },
    ...{ angle: angleFormula, into: id, steps: list(id) },
  },
  again: ['around', 'repeat'],
  mills: true,
  offer: ({ body, section, units }) => ({
    ...{ kind: 'mirror', body, way: 'across', about: '', angle: '', into: body, steps: [] },
    at: lengthText(extentOf(section)[1], units),
  }),
  run,
}
