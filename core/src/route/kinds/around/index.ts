import type { AroundStep } from '../../../part'
import { id, list, angleFormula, numberFormula } from '../../../part/fields'
import { around as run } from './run'
import type { OfferedRules } from '../kind'

export const around: OfferedRules<AroundStep> = {
  name: 'repeat round the axis',
  fields: { steps: list(id), count: numberFormula, range: angleFormula },
  again: ['repeat', 'mirror'],
  mills: true,
  offer: ({ lastStep }) => ({
    ...{ kind: 'around', steps: lastStep === undefined ? [] : [lastStep], count: '3', range: '' },
  }),
  run,
}
