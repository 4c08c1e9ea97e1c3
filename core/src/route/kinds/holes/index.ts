import type { HolesStep } from '../../../part'
import { count, exactly, formula, id, key, list, record, text } from '../../../part/fields'
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
    ...{ circle: formula, count: formula, start: formula, range: formula },
    skip: list(count),
    places: list(record({ diameter: formula, angle: formula })),
    ...{ from: key, distance: formula, diameter: formula },
    reach: exactly('depth', 'wall', 'through', 'axis'),
    depth: formula,
    tip: exactly('flat', 'cone'),
    tipAngle: formula,
    head: exactly('none', 'counterbore', 'countersink', 'spotface'),
    ...{ headDiameter: formula, headDepth: formula, headAngle: formula, thread: text },
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  run,
}
