import type { MoveStep } from '../../../part'
import { formula, id, angleFormula } from '../../../part/fields'
import { extentOf } from '../../../section'
import { lengthText } from '../../proportion'
import { move as run } from './run'
import type { OfferedRules } from '../kind'

export const move: OfferedRules<MoveStep> = {
  name: 'move body',
  fields: {
    ...{
      body: id,
      along: formula,
      turn: angleFormula,
      beside: formula,
      towards: angleFormula,
      into: id,
    },
  },
  offer: ({ body, section, units }) => {
    const [from, to] = extentOf(section)
    const along = lengthText(to - from, units)
    return { kind: 'move', body, along, turn: '', beside: '', towards: '', into: body }
  },
  run,
}
