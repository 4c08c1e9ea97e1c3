import type { CombineStep } from '../../../part'
import { flag, id } from '../../../part/fields'
import { combineBodies } from './run'
import { effect } from '../fields'
import type { StepRules } from '../kind'

export const combine: StepRules<CombineStep> = {
  name: 'combine bodies',
  fields: { body: id, other: id, effect, keep: flag },
  run: combineBodies,
}
