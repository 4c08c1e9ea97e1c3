import type { FlatsStep } from '../../../part'
import { exactly, formula, id, angleFormula, numberFormula } from '../../../part/fields'
import { extentOf, greatestRadius } from '../../../section'
import { lengthText, twoDigits } from '../../proportion'
import { flatMoved } from './grips'
import { flats as run } from './run'
import { end } from '../fields'
import type { OfferedRules } from '../kind'

export const flats: OfferedRules<FlatsStep> = {
  name: 'flats',
  fields: {
    ...{ body: id, count: numberFormula, measure: exactly('across', 'depth'), size: formula, end },
    ...{ distance: formula, length: formula, phase: angleFormula },
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  planes: true,
  offer: ({ body, section, units }) => {
    // Two of them at the right end.
    const [from, to] = extentOf(section)
    const length = twoDigits((to - from) / 6)
    const radius = greatestRadius(section, to - length, to)
    return {
      ...{ kind: 'flats', body, count: '2', measure: 'across', end: 'right' },
      ...{ distance: '', phase: '', size: lengthText(twoDigits(1.7 * radius), units) },
      length: lengthText(length, units),
    }
  },
  moved: flatMoved,
  run,
}
