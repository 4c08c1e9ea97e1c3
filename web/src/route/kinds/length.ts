import type { LengthStep, Part } from '@lathica/core/part'
import { bodyField, choice, length } from '../steps/field'
import { endsOf } from '../steps/ends'
import type { StepLooks } from './kind'

export const lengthLooks: StepLooks<LengthStep> = {
  title: () => 'Overall length',
  row: (step, { figure, lie }) => `${figure(step.length)}, at the ${endWord(step.end, lie)} end`,
  fields: (step, context) => [
    choice('End', step.end, endsOf(context.part), (v) => ({
      ...step,
      end: v as 'left',
    })),
    length('Length', step.length, (text) => ({ ...step, length: text })),
    bodyField(step.body),
  ],
}

function endWord(end: 'left' | 'right', lie: Part['lie']): string {
  if (lie === 'lying') return end
  return end === 'left' ? 'lower' : 'upper'
}
