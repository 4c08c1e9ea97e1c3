import { AXIS_ID, type DiameterSize } from '../../sketch'
import { besides } from '../../equations'
import type { SizeKind } from '../kind'

export const diameter: SizeKind<DiameterSize> = {
  fields: { point: 'id' },
  measures: 'length',
  sign: '⌀',
  prefix: 'dia',
  noun: () => 'diameter',
  words: (s, { name }) => `diameter at ${name(s.point)}`,
  measure: (s, _entities, locate) => 2 * Math.abs(locate(s.point).y),
  demands: (setting, s, target) => [
    besides(setting, s.id, setting.index(s.point), AXIS_ID, target / 2),
  ],
}
