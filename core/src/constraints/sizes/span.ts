import { offLine, type SpanSize } from '../../sketch'
import { besides } from '../../equations'
import type { SizeKind } from '../kind'

export const span: SizeKind<SpanSize> = {
  fields: { point: 'id', about: 'id' },
  measures: 'length',
  sign: '',
  prefix: 'span',
  noun: () => 'span',
  words: (s, { name }) => `span of ${name(s.point)} about ${name(s.about)}`,
  measure: (s, entities, locate) =>
    2 * Math.abs(offLine(entities, locate, locate(s.point), s.about)),
  demands: (setting, s, target) => [
    besides(setting, s.id, setting.index(s.point), s.about, target / 2),
  ],
}
