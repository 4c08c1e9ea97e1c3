import type { GrooveForm, GrooveStep } from '../../../part'
import {
  exactly,
  flag,
  formula,
  id,
  key,
  optional,
  record,
  numberFormula,
  angleFormula,
} from '../../../part/fields'
import { groove as run } from './run'
import { GROOVE_FIELDS, measureOfSize } from './forms'
import type { StepRules } from '../kind'

export const groove: StepRules<GrooveStep> = {
  name: 'groove',
  fields: {
    body: id,
    on: key,
    form: exactly(...(Object.keys(GROOVE_FIELDS) as GrooveForm[])),
    place: record({
      from: key,
      second: key,
      to: exactly('near', 'middle', 'far'),
      distance: formula,
    }),
    sizes: record(
      Object.fromEntries(
        Object.values(GROOVE_FIELDS)
          .flat()
          .map((name) => [
            name,
            optional(measureOfSize(name) === 'angle' ? angleFormula : formula),
          ]),
      ),
    ),
    turned: optional(flag),
    count: numberFormula,
    pitch: formula,
  },
  again: ['repeat', 'mirror'],
  run,
}
