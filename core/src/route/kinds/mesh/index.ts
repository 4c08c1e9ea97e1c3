import type { MeshStep } from '../../../part'
import { exactly, formula, id, angleFormula, numberFormula } from '../../../part/fields'
import { meshToGoBy } from './run'
import { packed } from '../fields'
import type { StepRules } from '../kind'

export const mesh: StepRules<MeshStep> = {
  name: 'mesh from a file',
  fields: {
    ...{ body: id, mesh: packed },
    ...{ lies: exactly('x', 'y', 'z'), scale: numberFormula, along: formula, turn: angleFormula },
  },
  run: meshToGoBy,
}
