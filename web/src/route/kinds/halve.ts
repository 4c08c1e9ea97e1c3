import type { HalveStep } from '@lathica/core/part'
import {
  NEW_BODY,
  bodyField,
  choice,
  length,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import type { StepLooks } from './kind'

export const halve: StepLooks<HalveStep> = {
  title: () => 'Halve',
  row: (step) => (step.into === '' ? 'one half stays' : 'two halves'),
  fields: halveFields,
}

function halveFields(step: HalveStep, { part }: FieldContext): Field[] {
  const others = part.bodies.filter((b) => b.id !== step.body)
  return [
    optionalAngle('Keeps side at', step.angle, '0', (text) => ({ ...step, angle: text })),
    length('Plane out by', step.offset, (offset) => ({ ...step, offset }), { empty: 'the axis' }),
    choice(
      'Other half',
      step.into,
      {
        '': 'goes',
        ...Object.fromEntries(others.map((b) => [b.id, `makes ${b.name}`])),
        [NEW_BODY]: 'makes a new body',
      },
      (into) => ({ ...step, into }),
    ),
    bodyField(step.body),
  ]
}
