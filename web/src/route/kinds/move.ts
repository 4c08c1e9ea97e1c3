import type { MoveStep } from '@lathica/core/part'
import {
  bodyField,
  choice,
  length,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import { intoBodies } from '../steps/intoBodies'
import type { StepLooks } from './kind'

export const move: StepLooks<MoveStep> = {
  title: (step) => (step.into === step.body ? 'Move body' : 'Copy body'),
  row: (step, { figure }) => {
    const words = [
      isNought(step.along) ? '' : `${figure(step.along)} along`,
      isNought(step.turn) ? '' : figure(step.turn, 'angle'),
      isNought(step.beside) ? '' : `${figure(step.beside)} beside`,
    ]
    return words.filter((w) => w !== '').join(', ') || 'in its place'
  },
  fields: moveFields,
}

const isNought = (text: string): boolean => text.trim() === '' || Number(text) === 0

function moveFields(step: MoveStep, { part }: FieldContext): Field[] {
  return [
    length('Along by', step.along, (along) => ({ ...step, along }), { empty: '0' }),
    optionalAngle('Turned by', step.turn, '0', (turn) => ({ ...step, turn })),
    length('Beside by', step.beside, (beside) => ({ ...step, beside }), { empty: '0' }),
    ...(step.beside.trim() === ''
      ? []
      : [optionalAngle('Towards', step.towards, '0', (towards) => ({ ...step, towards }))]),
    choice('Moves', step.into, intoBodies(part, step.body, 'the body itself'), (into) => ({
      ...step,
      into,
    })),
    bodyField(step.body),
  ]
}
