import type { AroundStep } from '@lathica/core/part'
import { number, optionalAngle, type Field, type FieldContext } from '../steps/field'
import { chosenSteps } from '../steps/chosenSteps'
import type { StepLooks } from './kind'

export const around: StepLooks<AroundStep> = {
  title: () => 'Round the axis',
  row: (step, { figure }) => `${figure(step.count, 'number')} ×`,
  fields: aroundFields,
}

function aroundFields(step: AroundStep, { part }: FieldContext): Field[] {
  return [
    number('Number', step.count, (count) => ({ ...step, count })),
    optionalAngle('Over', step.range, 'all round', (range) => ({ ...step, range })),
    ...chosenSteps(step, part),
  ]
}
