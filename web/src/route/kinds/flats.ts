import type { FlatsStep } from '@lathica/core/part'
import {
  bodyField,
  choice,
  length,
  number,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import { endsOf } from '../steps/ends'
import type { StepLooks } from './kind'

export const flats: StepLooks<FlatsStep> = {
  title: () => 'Flats',
  row: (step, { figure }) => {
    const size = step.measure === 'across' ? 'across' : 'deep'
    return `${figure(step.count, 'number')}, ${figure(step.size)} ${size}`
  },
  fields: flatFields,
}

function flatFields(step: FlatsStep, { part }: FieldContext): Field[] {
  return [
    number('Number', step.count, (count) => ({ ...step, count })),
    choice('Told', step.measure, { across: 'across flats', depth: 'by depth' }, (v) => ({
      ...step,
      measure: v as 'across',
    })),
    length(step.measure === 'across' ? 'Across' : 'Depth', step.size, (size) => ({
      ...step,
      size,
    })),
    choice('From', step.end, endsOf(part), (v) => ({ ...step, end: v as 'left' })),
    length('Begin at', step.distance, (distance) => ({ ...step, distance }), { empty: 'the end' }),
    length('Length', step.length, (text) => ({ ...step, length: text }), { empty: 'to the other' }),
    optionalAngle('At angle', step.phase, '0', (phase) => ({ ...step, phase })),
    bodyField(step.body),
  ]
}
