import type { RepeatStep } from '@lathica/core/part'
import { length, number } from '../steps/field'
import { chosenSteps } from '../steps/chosenSteps'
import type { StepLooks } from './kind'

export const repeat: StepLooks<RepeatStep> = {
  title: () => 'Repeat',
  row: (step, { figure }) => `${figure(step.count, 'number')} × at ${figure(step.pitch)}`,
  fields: (step, context) => [
    number('Number', step.count, (count) => ({ ...step, count })),
    length('Pitch', step.pitch, (pitch) => ({ ...step, pitch })),
    ...chosenSteps(step, context.part),
  ],
}
