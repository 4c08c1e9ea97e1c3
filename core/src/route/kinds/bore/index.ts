import type { BoreStep } from '../../../part'
import { exactly, formula, id, key, list, record, angleFormula } from '../../../part/fields'
import { angleText, proportion } from '../../proportion'
import { bore as run } from './run'
import { end } from '../fields'
import type { OfferedRules } from '../kind'

export const bore: OfferedRules<BoreStep> = {
  name: 'bore',
  fields: {
    body: id,
    end,
    parts: list(record({ diameter: formula, depth: formula })),
    upTo: key,
    tip: exactly('flat', 'cone'),
    tipAngle: angleFormula,
    sinkDiameter: formula,
    sinkAngle: angleFormula,
  },
  again: ['repeat', 'mirror'],
  offer: ({ body, section, units }) => ({
    ...{ kind: 'bore', body, end: 'left', upTo: '', tip: 'cone', tipAngle: angleText(118, units) },
    parts: [{ diameter: proportion(section, 0.2, units), depth: '' }],
    ...{ sinkDiameter: '', sinkAngle: angleText(90, units) },
  }),
  run,
}
