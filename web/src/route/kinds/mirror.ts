import type { MirrorStep } from '@lathica/core/part'
import {
  bodyField,
  choice,
  faces,
  length,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import { chosenSteps } from '../steps/chosenSteps'
import { intoBodies } from '../steps/intoBodies'
import type { StepLooks } from './kind'

export const mirror: StepLooks<MirrorStep> = {
  title: () => 'Mirror',
  row: (step, { figure, faceOf }) => {
    if (step.way === 'along') return `about the plane at ${figure(step.angle || '0', 'angle')}`
    return `about ${step.about === '' ? `the plane at ${figure(step.at)}` : faceOf(step.about)}`
  },
  fields: mirrorFields,
}

function mirrorFields(step: MirrorStep, { part }: FieldContext): Field[] {
  return [
    choice('Plane', step.way, { across: 'square to the axis', along: 'through the axis' }, (v) => ({
      ...step,
      way: v as 'across',
    })),
    ...(step.way === 'along'
      ? [optionalAngle('At angle', step.angle, '0', (angle) => ({ ...step, angle }))]
      : [
          faces(
            {
              ...{ label: 'About', accept: 'plane', many: false, none: 'a typed place' },
              keys: step.about === '' ? [] : [step.about],
            },
            ([about = '']) => ({ ...step, about }),
          ),
          ...(step.about === '' ? [length('Plane at', step.at, (at) => ({ ...step, at }))] : []),
        ]),
    ...(step.steps.length > 0
      ? []
      : [
          choice('Image', step.into, intoBodies(part, step.body, 'joins the body'), (into) => ({
            ...step,
            into,
          })),
        ]),
    bodyField(step.body),
    { kind: 'heading', label: step.steps.length > 0 ? 'Only of' : 'Of all; or only of' },
    ...chosenSteps(step, part),
  ]
}
