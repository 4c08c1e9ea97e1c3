import type { ImportStep } from '../../../part'
import { coordinate, count, id, list, record } from '../../../part/fields'
import { imported } from './run'
import { packed } from '../fields'
import type { StepRules } from '../kind'

export const importKind: StepRules<ImportStep> = {
  name: 'body from a file',
  fields: {
    ...{ body: id, file: packed, solid: count },
    frame: record({ at: list(coordinate), x: list(coordinate), z: list(coordinate) }),
    ...{ from: coordinate, to: coordinate, radius: coordinate, inner: coordinate },
    outline: list(list(coordinate)),
    planes: list(list(coordinate)),
  },
  again: ['around', 'repeat', 'mirror'],
  mills: true,
  run: imported,
}
