import type { CombineStep, MeshStep, MirrorStep, MoveStep, Part } from '@lathica/core'
import {
  NEW_BODY,
  bodyField,
  choice,
  faces,
  length,
  number,
  optionalAngle,
  type Field,
  type FieldContext,
} from './field'
import { chosenSteps } from './solidFields'

/** Which body gets what a step makes; its own, or another that has nothing yet. */
const intoBodies = (part: Part, own: string, joins: string): Record<string, string> => ({
  ...Object.fromEntries(part.bodies.map((b) => [b.id, b.id === own ? joins : `makes ${b.name}`])),
  [NEW_BODY]: 'makes a new body',
})

export function mirrorFields(step: MirrorStep, { part }: FieldContext): Field[] {
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

export function moveFields(step: MoveStep, { part }: FieldContext): Field[] {
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

const LIES = { z: 'z of the file', x: 'x of the file', y: 'y of the file' }

export function meshFields(step: MeshStep): Field[] {
  return [
    choice('Along the axis', step.lies, LIES, (v) => ({ ...step, lies: v as 'z' })),
    number('Scale', step.scale, (scale) => ({ ...step, scale }), { empty: '1' }),
    length('Along by', step.along, (along) => ({ ...step, along }), { empty: '0' }),
    optionalAngle('Turned by', step.turn, '0', (turn) => ({ ...step, turn })),
  ]
}

const EFFECTS = { add: 'are joined', cut: 'the first is cut', common: 'what is common stays' }

export function combineFields(step: CombineStep, { part }: FieldContext): Field[] {
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
