import type { RevolveStep } from '../../../part'
import { exactly, formula, id, text } from '../../../part/fields'
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
    turn: formula,
    turnTo: text,
    side: exactly('one', 'both', 'symmetric'),
    back: formula,
    facets: formula,
    facetTo: exactly('flats', 'corners'),
    phase: formula,
  },
  again: ['around', 'repeat', 'mirror'],
  planes: true,
  run,
}
