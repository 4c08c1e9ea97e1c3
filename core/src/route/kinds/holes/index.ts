import type { HolesStep } from '../../../part'
import {
  count,
  exactly,
  formula,
  id,
  key,
  list,
  record,
  text,
  angleFormula,
  numberFormula,
} from '../../../part/fields'
import { holeMoved } from './grips'
import { holes as run } from './run'
import type { StepRules } from '../kind'

export const holes: StepRules<HolesStep> = {
  name: 'holes',
  fields: {
    ...{
      body: id,
      way: exactly('end', 'cross'),
      on: key,
      layout: exactly('circle', 'places', 'sketch'),
    },
    sketch: text,
    ...{ circle: formula, count: numberFormula, start: angleFormula, range: angleFormula },
    skip: list(count),
    places: list(record({ diameter: formula, angle: angleFormula })),
    ...{ from: key, distance: formula, diameter: formula },
    reach: exactly('depth', 'wall', 'through', 'axis'),
    depth: formula,
    tip: exactly('flat', 'cone'),
    tipAngle: angleFormula,
    head: exactly('none', 'counterbore', 'countersink', 'spotface'),
    ...{ headDiameter: formula, headDepth: formula, headAngle: angleFormula, thread: text },
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  moved: holeMoved,
  run,
}
