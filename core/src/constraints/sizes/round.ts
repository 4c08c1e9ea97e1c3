import { distance, lengthOf, lengthRead } from '../../geometry'
import { isPlain, pieceOf, roundOf, type CurveSize } from '../../sketch'
import { apart, arcLength as lengthOfArc, roundPoints, sumEquation } from '../../equations'
import type { SizeKind } from '../kind'
import { demandFree, readFree } from './free'

const fields = { curve: 'id' } as const

/** A multiple of an arc's or circle's radius. */
const radii = (
  times: number,
  sign: '⌀' | 'R',
  prefix: string,
  noun: string,
): SizeKind<CurveSize> => ({
  fields,
  measures: 'length',
  sign,
  prefix,
  noun: () => noun,
  words: (s, { name }) => `${noun} of ${name(s.curve)}`,
  measure: (s, entities, locate) => {
    const round = roundOf(entities.get(s.curve))
    return round ? times * distance(locate(round.centre), locate(round.rim)) : 0
  },
  demands: (setting, s, target) => {
    const round = roundPoints(setting, s.curve)
    return round ? [apart(setting, s.id, ...round, target / times)] : []
  },
})

export const radius = radii(1, 'R', 'rad', 'radius')
export const curveDiameter = radii(2, '⌀', 'dia', 'diameter')

export const arcLength: SizeKind<CurveSize> = {
  fields,
  measures: 'length',
  sign: '⌒',
  prefix: 'arc',
  noun: () => 'length along the curve',
  words: (s, { name }) => `length of ${name(s.curve)}`,
  measure: (s, entities, locate) => {
    const entity = entities.get(s.curve)
    if (!entity) return 0
    return isPlain(entity) && entity.kind !== 'curve'
      ? lengthOf(pieceOf(entity, locate))
      : readFree(s, entities, locate, lengthRead)
  },
  demands: (setting, s, target) => {
    const { index, entities } = setting
    const arc = entities.get(s.curve)
    if (arc?.kind !== 'arc') return demandFree(setting, s, target, lengthRead)
    const [from, to, centre] = [index(arc.from), index(arc.to), index(arc.centre)]
    return [sumEquation(s.id, [[1, lengthOfArc(from, to, centre, arc.counterClockwise)]], target)]
  },
}
