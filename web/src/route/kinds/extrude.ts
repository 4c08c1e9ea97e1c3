import { isEndSketch } from '@lathica/core/sketch'
import type { ExtrudeStep } from '@lathica/core/part'
import {
  EFFECTS,
  bodyField,
  choice,
  faces,
  length,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import { SIDES } from '../steps/partTurn'
import type { StepLooks } from './kind'

export const extrude: StepLooks<ExtrudeStep> = {
  title: (step) => (step.effect === 'cut' ? 'Extrude cut' : 'Extrude'),
  row: ({ reach, length: text, effect }, { figure }) => {
    if (reach === 'through') return 'through all'
    if (reach === 'face') return 'up to a face'
    return `${figure(text)} ${effect === 'cut' ? 'deep' : 'long'}`
  },
  fields: extrudeFields,
}

const REACHES = { length: 'by a length', through: 'through all', face: 'up to a face' }

function extrudeFields(step: ExtrudeStep, { part }: FieldContext): Field[] {
  const drawn = part.sketches.find((s) => s.id === step.sketch)
  const isEnd = drawn !== undefined && isEndSketch(drawn)
  return [
    choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
    bodyField(step.body, true),
    { kind: 'regions', label: 'Regions' },
    choice('Goes', step.reach, REACHES, (v) => ({
      ...step,
      reach: v as 'length',
    })),
    ...(step.reach === 'face'
      ? [
          faces(
            {
              ...{ label: 'Up to', accept: 'plane', many: false, solids: true },
              ...{ keys: step.upTo === '' ? [] : [step.upTo], none: 'none' },
            },
            ([upTo = '']) => ({ ...step, upTo }),
          ),
        ]
      : [choice('To', step.side, SIDES, (v) => ({ ...step, side: v as 'one' }))]),
    ...(step.reach === 'length'
      ? [
          length('Length', step.length, (text) => ({ ...step, length: text })),
          ...(step.side === 'both'
            ? [length('Other side', step.back, (back) => ({ ...step, back }))]
            : []),
        ]
      : []),
    ...(isEnd
      ? [
          faces(
            {
              ...{ label: 'On face', accept: 'plane', many: false, solids: true },
              ...{ keys: step.on === '' ? [] : [step.on], none: 'the plane at 0' },
            },
            ([on = '']) => ({ ...step, on }),
          ),
        ]
      : [optionalAngle('Plane at', step.plane, '0', (plane) => ({ ...step, plane }))]),
    length('Off it by', step.offset, (offset) => ({ ...step, offset }), { empty: '0' }),
    optionalAngle('Draft', step.draft, 'none', (draft) => ({ ...step, draft })),
  ]
}
