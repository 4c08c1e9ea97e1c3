import { signedAngle, type AngleSize } from '../../sketch'
import { angleEquation } from '../../equations'
import type { SizeKind } from '../kind'

export const angle: SizeKind<AngleSize> = {
  fields: { line: 'id', to: 'id', reversed: 'flag' },
  measures: 'angle',
  sign: '',
  prefix: 'ang',
  noun: () => 'angle',
  words: (s, { name }) => `angle of ${name(s.line)} to ${name(s.to)}`,
  measure: (s, entities, locate) => Math.abs(signedAngle(s, entities, locate)),
  demands: ({ line, entities, locate, side, extent }, s, target) => {
    const [from, to] = line(s.line)
    const turned = s.reversed ? ([to, from] as const) : ([from, to] as const)
    const signed = side(s.id, signedAngle(s, entities, locate), target, extent) * target
    return [angleEquation(s.id, turned, line(s.to), signed, extent)]
  },
}
