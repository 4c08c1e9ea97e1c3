import type { MeshStep } from '@lathica/core/part'
import { choice, length, number, optionalAngle, type Field } from '../steps/field'
import type { StepLooks } from './kind'

export const mesh: StepLooks<MeshStep> = {
  title: () => 'Mesh to go by',
  row: () => 'triangles as they came',
  fields: meshFields,
}

const LIES = { z: 'z of the file', x: 'x of the file', y: 'y of the file' }

function meshFields(step: MeshStep): Field[] {
  return [
    choice('Along the axis', step.lies, LIES, (v) => ({ ...step, lies: v as 'z' })),
    number('Scale', step.scale, (scale) => ({ ...step, scale }), { empty: '1' }),
    length('Along by', step.along, (along) => ({ ...step, along }), { empty: '0' }),
    optionalAngle('Turned by', step.turn, '0', (turn) => ({ ...step, turn })),
  ]
}
