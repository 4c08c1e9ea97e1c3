import type { BoreStep, Step } from '@lathica/core/part'
import { angle, bodyField, choice, faces, length, type Field } from '../steps/field'
import { endsOf } from '../steps/ends'
import type { StepLooks } from './kind'

export const bore: StepLooks<BoreStep> = {
  title: () => 'Bore',
  row: (step, { figure }) =>
    step.parts
      .map(({ diameter, depth }) => {
        if (depth !== '') return `⌀${figure(diameter)} × ${figure(depth)}`
        return `⌀${figure(diameter)}${step.upTo ? '' : ' through'}`
      })
      .join(', '),
  fields: (step, context) => [
    choice('From', step.end, endsOf(context.part), (v) => ({
      ...step,
      end: v as 'left',
    })),
    ...step.parts.flatMap((own, i): Field[] => {
      const isLast = i === step.parts.length - 1
      const change = (to: Partial<typeof own>): Step => ({
        ...step,
        parts: step.parts.map((p, k) => (k === i ? { ...p, ...to } : p)),
      })
      const without = { ...step, parts: step.parts.filter((_, k) => k !== i) }
      return [
        ...(step.parts.length > 1
          ? [{ kind: 'heading' as const, label: `Diameter ${i + 1}`, remove: without }]
          : []),
        length('Diameter', own.diameter, (diameter) => change({ diameter }), { sign: '⌀' }),
        ...(isLast && step.upTo !== ''
          ? []
          : [
              length('Depth', own.depth, (depth) => change({ depth }), {
                ...(isLast ? { empty: 'through' } : {}),
              }),
            ]),
      ]
    }),
    faces(
      {
        label: 'Up to',
        accept: 'plane',
        many: false,
        keys: step.upTo === '' ? [] : [step.upTo],
        none: 'its depth',
      },
      ([upTo = '']) => ({ ...step, upTo }),
    ),
    ...(isThrough(step) ? [] : tipFields(step)),
    length('Countersink', step.sinkDiameter, (sinkDiameter) => ({ ...step, sinkDiameter }), {
      sign: '⌀',
      empty: 'none',
    }),
    ...(step.sinkDiameter === ''
      ? []
      : [angle('Sink angle', step.sinkAngle, (sinkAngle) => ({ ...step, sinkAngle }))]),
    {
      kind: 'more',
      label: 'Another diameter',
      step: {
        ...step,
        parts: [{ diameter: `2*(${step.parts[0]?.diameter ?? '10'})`, depth: '1' }, ...step.parts],
      },
    },
    bodyField(step.body),
  ],
}

const isThrough = (step: BoreStep): boolean => step.upTo === '' && step.parts.at(-1)?.depth === ''

function tipFields(step: BoreStep): Field[] {
  return [
    choice('Tip', step.tip, { cone: 'cone', flat: 'flat' }, (v) => ({
      ...step,
      tip: v as 'cone',
    })),
    ...(step.tip === 'cone'
      ? [angle('Tip angle', step.tipAngle, (tipAngle) => ({ ...step, tipAngle }))]
      : []),
  ]
}
