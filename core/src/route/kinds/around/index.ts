import type { AroundStep } from '../../../part'
import { formula, id, list } from '../../../part/fields'
import { around as run } from './run'
import type { OfferedRules } from '../kind'

export const around: OfferedRules<AroundStep> = {
  name: 'repeat round the axis',
  fields: { steps: list(id), count: formula, range: formula },
  again: ['repeat', 'mirror'],
  mills: true,
  offer: ({ lastStep }) => ({
    ...{ kind: 'around', steps: lastStep === undefined ? [] : [lastStep], count: '3', range: '' },
  }),
  run,
}
