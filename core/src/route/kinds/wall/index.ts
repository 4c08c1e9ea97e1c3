import type { WallStep } from '../../../part'
import { exactly, formula, id, text, angleFormula } from '../../../part/fields'
import { wall as run } from './run'
import { effect } from '../fields'
import type { StepRules } from '../kind'

export const wall: StepRules<WallStep> = {
  name: 'wall',
  fields: {
    sketch: id,
    side: exactly('outside', 'inside', 'middle', 'both'),
    thickness: formula,
    inner: formula,
    corners: exactly('sharp', 'round', 'bevelled'),
    ends: exactly('flat', 'round'),
    effect,
    body: id,
    ...{ turn: angleFormula, turnTo: text, turnSide: exactly('one', 'both', 'symmetric') },
    ...{ back: angleFormula, phase: angleFormula },
  },
  again: ['around', 'repeat', 'mirror'],
  planes: true,
  run,
}
