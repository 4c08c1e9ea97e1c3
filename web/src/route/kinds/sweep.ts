import { isEndSketch } from '@lathica/core/sketch'
import type { SweepStep } from '@lathica/core/part'
import {
  EFFECTS,
  bodyField,
  choice,
  length,
  optionalAngle,
  type Field,
  type FieldContext,
} from '../steps/field'
import type { StepLooks } from './kind'

export const sweep: StepLooks<SweepStep> = {
  title: () => 'Sweep',
  row: (step, { figure }) => `${step.form === 'round' ? '⌀' : ''}${figure(step.width)}`,
  fields: sweepFields,
}

const RODS = { round: 'round rod', bar: 'bar', sketch: 'as an end sketch shows' }

function sweepFields(step: SweepStep, { part }: FieldContext): Field[] {
  const isBar = step.form === 'bar'
  const drawn = part.sketches.filter((s) => isEndSketch(s))
  return [
    choice('Form', step.form, RODS, (v) => ({
      ...step,
      form: v as 'round',
      height: step.height === '' ? step.width : step.height,
      outline: step.outline === '' ? (drawn[0]?.id ?? '') : step.outline,
    })),
    ...(step.form === 'sketch'
      ? [
          choice(
            'Outline',
            step.outline,
            Object.fromEntries([
              ...(drawn.length === 0 ? [['', 'no end sketch yet']] : []),
              ...drawn.map((s) => [s.id, `end sketch ${s.name}`]),
            ]),
            (outline) => ({ ...step, outline }),
          ),
        ]
      : [
          length(isBar ? 'Width' : 'Diameter', step.width, (width) => ({ ...step, width }), {
            ...(isBar ? {} : { sign: '⌀' }),
          }),
        ]),
    ...(isBar
      ? [
          length('Height', step.height, (height) => ({ ...step, height })),
          length('Corners', step.corner, (corner) => ({ ...step, corner }), { empty: 'sharp' }),
        ]
      : []),
    choice('Stands', step.side, { one: 'on one side', mirrored: 'on both sides' }, (v) => ({
      ...step,
      side: v as 'one',
    })),
    choice('Effect', step.effect, { add: EFFECTS.add, cut: EFFECTS.cut }, (v) => ({
      ...step,
      effect: v as 'add',
    })),
    optionalAngle('Plane at', step.plane, '0', (plane) => ({ ...step, plane })),
    bodyField(step.body),
  ]
}
