import type { FilletStep, FilletSet } from '@lathica/core/part'
import { length } from '../steps/field'
import { cornersIn, fieldsOfSets, type SizesOf } from '../steps/corners'
import type { StepLooks } from './kind'

export const fillet: StepLooks<FilletStep> = {
  title: () => 'Fillet',
  row: (step, { figure }) =>
    step.sets.map((s) => `R${figure(s.radius)} ${cornersIn(s.pick)}`).join(', '),
  fields: (step) =>
    fieldsOfSets(step, (sets) => ({ ...step, sets }), radiusFields, 'Another radius'),
}

const radiusFields: SizesOf<FilletSet> = (own, change) => [
  length('Radius', own.radius, (radius) => change({ radius }), { sign: 'R' }),
]
