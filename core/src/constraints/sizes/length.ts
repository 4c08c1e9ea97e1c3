import { distance } from '../../geometry'
import { lineEnds, type LengthSize } from '../../sketch'
import { apart } from '../../equations'
import type { SizeKind } from '../kind'

export const length: SizeKind<LengthSize> = {
  fields: { line: 'id' },
  measures: 'length',
  sign: '',
  prefix: 'len',
  noun: () => 'length',
  words: (s, { name }) => `length of ${name(s.line)}`,
  measure: (s, entities, locate) => distance(...lineEnds(entities, locate, s.line)),
  demands: (setting, s, target) => [apart(setting, s.id, ...setting.line(s.line), target)],
}
