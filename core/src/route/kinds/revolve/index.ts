import type { RevolveStep } from '../../../part'
import { exactly, id, text, angleFormula, numberFormula } from '../../../part/fields'
import { revolve as run } from './run'
import { effect, regions } from '../fields'
import type { StepRules } from '../kind'

export const revolve: StepRules<RevolveStep> = {
  name: 'revolve',
  fields: {
    sketch: id,
    regions,
    effect,
    body: id,
    axis: id,
    turn: angleFormula,
    turnTo: text,
    side: exactly('one', 'both', 'symmetric'),
    back: angleFormula,
    facets: numberFormula,
    facetTo: exactly('flats', 'corners'),
    phase: angleFormula,
  },
  again: ['around', 'repeat', 'mirror'],
  planes: true,
  run,
}
