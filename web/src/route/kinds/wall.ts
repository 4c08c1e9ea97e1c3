import type { WallStep } from '@lathica/core/part'
import { bodyField, choice, length, optionalAngle, EFFECTS } from '../steps/field'
import { partTurnFields } from '../steps/partTurn'
import type { StepLooks } from './kind'

export const wall: StepLooks<WallStep> = {
  title: () => 'Wall',
  row: (step, { figure }) => `${figure(step.thickness)} thick`,
  fields: (step, context) => [
    length('Thickness', step.thickness, (thickness) => ({ ...step, thickness })),
    choice('Lies', step.side, WALL_SIDES, (v) => ({ ...step, side: v as 'outside' })),
    ...(step.side === 'both'
      ? [length('Inside', step.inner, (inner) => ({ ...step, inner }))]
      : []),
    choice('Corners', step.corners, CORNERS, (v) => ({ ...step, corners: v as 'sharp' })),
    choice('Ends', step.ends, { flat: 'flat', round: 'round' }, (v) => ({
      ...step,
      ends: v as 'flat',
    })),
    choice('Effect', step.effect, EFFECTS, (v) => ({ ...step, effect: v as 'add' })),
    bodyField(step.body, true),
    ...partTurnFields(
      { ...step, side: step.turnSide },
      context.part,
      step.id,
      ({ side, ...to }) => ({ ...step, ...to, ...(side ? { turnSide: side } : {}) }),
    ),
    ...(step.turn + step.turnTo === ''
      ? []
      : [optionalAngle('At angle', step.phase, '0', (phase) => ({ ...step, phase }))]),
  ],
}

const WALL_SIDES = { outside: 'outside', inside: 'inside', middle: 'half on each', both: 'on both' }
const CORNERS = { sharp: 'sharp', round: 'round', bevelled: 'bevelled' }
