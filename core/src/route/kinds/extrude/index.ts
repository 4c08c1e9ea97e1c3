import type { ExtrudeStep } from '../../../part'
import { exactly, formula, id, key, angleFormula } from '../../../part/fields'
import { extrude as run } from './run'
import { effect, regions } from '../fields'
import type { StepRules } from '../kind'

export const extrude: StepRules<ExtrudeStep> = {
  name: 'extrude',
  fields: {
    ...{ sketch: id, regions, effect, body: id, plane: angleFormula },
    ...{ side: exactly('one', 'both', 'symmetric'), length: formula, back: formula },
    ...{ on: key, offset: formula, reach: exactly('length', 'through', 'face') },
    ...{ upTo: key, draft: angleFormula },
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  planes: true,
  run,
}
