import type { RidgesStep } from '../../../part'
import { exactly, formula, id, key, numberFormula } from '../../../part/fields'
import { RIDGE_SHAPES } from './shapes'
import { ridges as run } from './run'
import type { StepRules } from '../kind'

export const ridges: StepRules<RidgesStep> = {
  name: 'ridges',
  fields: {
    ...{ body: id, on: key, shape: exactly(...RIDGE_SHAPES), side: exactly('out', 'in') },
    ...{ by: exactly('count', 'pitch'), count: numberFormula, pitch: formula },
    ...{ height: formula, fade: formula },
  },
  run,
}
