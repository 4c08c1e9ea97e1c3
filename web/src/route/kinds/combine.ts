import type { CombineStep } from '@lathica/core/part'
import { bodyField, choice, type Field, type FieldContext } from '../steps/field'
import type { StepLooks } from './kind'

export const combine: StepLooks<CombineStep> = {
  title: (step) => TITLES[step.effect],
  row: (step, { bodyName }) => `${bodyName(step.body)} and ${bodyName(step.other)}`,
  fields: combineFields,
}

const TITLES = { add: 'Join bodies', cut: 'Cut by a body', common: 'Common of bodies' }

const EFFECTS = { add: 'are joined', cut: 'the first is cut', common: 'what is common stays' }

function combineFields(step: CombineStep, { part }: FieldContext): Field[] {
  const others = part.bodies.filter((b) => b.id !== step.body)
  return [
    bodyField(step.body),
    choice('With', step.other, Object.fromEntries(others.map((b) => [b.id, b.name])), (other) => ({
      ...step,
      other,
    })),
    choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
    choice(
      'The second',
      step.keep ? 'yes' : 'no',
      { no: 'goes into it', yes: 'stays as well' },
      (v) => ({ ...step, keep: v === 'yes' }),
    ),
  ]
}
