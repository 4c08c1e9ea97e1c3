import type { SlotStep } from '@lathica/core/part'
import { bodyField, choice, faces, length, number, optionalAngle, type Field } from '../steps/field'
import { timesOf } from './words'
import type { StepLooks } from './kind'

export const slot: StepLooks<SlotStep> = {
  title: (step) => TITLES[step.form],
  row: (step, { figure, faceOf }) =>
    `${timesOf(step.count, figure)}${figure(step.width)} wide, ${figure(step.depth)} deep, in ${faceOf(step.on)}`,
  fields: slotFields,
}

const TITLES = { keyway: 'Keyway', woodruff: 'Half-round seat', end: 'End slot' }

function slotFields(step: SlotStep): Field[] {
  const isEnd = step.form === 'end'
  return [
    faces(
      {
        label: isEnd ? 'In face' : 'In cylinder',
        accept: isEnd ? 'plane' : 'straight',
        many: false,
        keys: [step.on],
        none: 'none',
        ...(isEnd ? { solids: true as const } : {}),
      },
      ([on = '']) => ({ ...step, on }),
    ),
    ...(isEnd
      ? []
      : [
          faces(
            {
              ...{ label: 'From', accept: 'plane', many: false },
              ...{ keys: step.from ? [step.from] : [], none: 'its left end' },
            },
            ([from = '']) => ({ ...step, from }),
          ),
          length('Distance', step.distance, (distance) => ({ ...step, distance }), { empty: '0' }),
        ]),
    length('Width', step.width, (width) => ({ ...step, width })),
    length('Depth', step.depth, (depth) => ({ ...step, depth })),
    ...(step.form === 'woodruff'
      ? [length('Cutter', step.cutter, (cutter) => ({ ...step, cutter }), { sign: '⌀' })]
      : [
          length('Length', step.length, (text) => ({ ...step, length: text }), {
            ...(isEnd ? { empty: 'right across' } : {}),
          }),
        ]),
    ...(step.form === 'keyway'
      ? [
          choice('Ends', step.ends, { round: 'round', square: 'square' }, (v) => ({
            ...step,
            ends: v as 'round',
          })),
        ]
      : []),
    number('Number', step.count, (count) => ({ ...step, count })),
    optionalAngle('First at', step.phase, '0', (phase) => ({ ...step, phase })),
    bodyField(step.body),
  ]
}
