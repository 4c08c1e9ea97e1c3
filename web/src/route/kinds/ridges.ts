import type { RidgesStep } from '@lathica/core/part'
import { choice, faces, length, number } from '../steps/field'
import { timesOf } from './words'
import type { StepLooks } from './kind'

export const ridges: StepLooks<RidgesStep> = {
  title: () => 'Ridges',
  row: (step, { figure, faceOf }) => {
    const many = step.by === 'count' ? timesOf(step.count, figure) : ''
    const apart = step.by === 'pitch' ? `, ${figure(step.pitch)} apart` : ''
    const way = step.side === 'out' ? 'high' : 'deep'
    return `${many}${step.shape}, ${figure(step.height)} ${way}${apart}, on ${faceOf(step.on)}`
  },
  fields: (step) => [
    length('Height', step.height, (height) => ({ ...step, height })),
    choice('Shape', step.shape, { round: 'round', vee: 'vee', wave: 'wave' }, (v) => ({
      ...step,
      shape: v as 'round',
    })),
    choice('Stand', step.side, { out: 'out of the face', in: 'sunk into it' }, (v) => ({
      ...step,
      side: v as 'out',
    })),
    choice('Told by', step.by, { count: 'number', pitch: 'pitch, about' }, (v) => ({
      ...step,
      by: v as 'count',
    })),
    step.by === 'count'
      ? number('Number', step.count, (count) => ({ ...step, count }))
      : length('Pitch', step.pitch, (pitch) => ({ ...step, pitch })),
    length('Fade over', step.fade, (fade) => ({ ...step, fade }), { empty: 'none' }),
    faces(
      { label: 'Face', accept: 'face', many: false, keys: [step.on], none: 'pick one' },
      ([on = step.on]) => ({ ...step, on }),
    ),
  ],
}
