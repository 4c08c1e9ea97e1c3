import type { SweepStep } from '../../../part'
import { angleFormula, exactly, formula, id, text } from '../../../part/fields'
import { sweep as run } from './run'
import type { StepRules } from '../kind'

export const sweep: StepRules<SweepStep> = {
  name: 'sweep',
  fields: {
    ...{ sketch: id, body: id, effect: exactly('add', 'cut') },
    ...{ form: exactly('round', 'bar', 'sketch'), outline: text },
    ...{ width: formula, height: formula, corner: formula, plane: angleFormula },
    side: exactly('one', 'mirrored'),
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  run,
}
