import type { ChamferStep, ChamferSet } from '@lathica/core/part'
import { angle, length } from '../steps/field'
import { cornersIn, fieldsOfSets, type SizesOf } from '../steps/corners'
import type { StepLooks } from './kind'

export const chamfer: StepLooks<ChamferStep> = {
  title: () => 'Chamfer',
  row: (step, { figure }) =>
    step.sets
      .map(({ along, across, angle: by, pick }) => {
        const other = across === '' ? figure(by, 'angle') : figure(across)
        return `${figure(along)} × ${other} ${cornersIn(pick)}`
      })
      .join(', '),
  fields: (step) => fieldsOfSets(step, (sets) => ({ ...step, sets }), legFields, 'Another size'),
}

const legFields: SizesOf<ChamferSet> = (own, change) => [
  length('Leg', own.along, (along) => change({ along })),
  length('Other leg', own.across, (across) => change({ across }), { empty: 'by angle' }),
  ...(own.across === '' ? [angle('Angle', own.angle, (text) => change({ angle: text }))] : []),
]
