import type { SlotStep } from '../../../part'
import { exactly, formula, id, key, angleFormula, numberFormula } from '../../../part/fields'
import { slotMoved } from './grips'
import { slot as run } from './run'
import type { StepRules } from '../kind'

export const slot: StepRules<SlotStep> = {
  name: 'slot',
  fields: {
    ...{ body: id, form: exactly('keyway', 'woodruff', 'end'), on: key, from: key },
    ...{ distance: formula, width: formula, depth: formula, length: formula },
    ...{
      ends: exactly('round', 'square'),
      cutter: formula,
      count: numberFormula,
      phase: angleFormula,
    },
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  planes: true,
  moved: slotMoved,
  run,
}
