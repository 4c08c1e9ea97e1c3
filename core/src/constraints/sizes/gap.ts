import { distance } from '../../geometry'
import { besideBy, offLine, roundOf, type Entity, type GapSize } from '../../sketch'
import { besideEnd, besides, roundPoints, separation, sumEquation } from '../../equations'
import { span, type SizeKind } from '../kind'

export const gap: SizeKind<GapSize> = {
  fields: { item: 'id', to: 'id' },
  measures: 'length',
  sign: '',
  prefix: 'gap',
  noun: () => 'distance',
  words: (s, { name }) => `distance of ${name(s.item)} from ${name(s.to)}`,
  measure: (s, entities, locate) => {
    const beside = entities.get(s.item)
    if (beside?.kind === 'parallel') return Math.abs(besideBy(beside, locate))
    const [one, two] = [roundOf(entities.get(s.item)), roundOf(entities.get(s.to))]
    if (one && two) {
      const radius = ({ centre, rim }: typeof one): number => distance(locate(centre), locate(rim))
      return Math.abs(radius(one) - radius(two))
    }
    return Math.abs(offLine(entities, locate, locate(pointOf(s, entities.get(s.item))), s.to))
  },
  demands: (setting, s, target) => {
    const { index, entities, ties, side } = setting
    const beside = entities.get(s.item)
    if (beside?.kind === 'parallel') {
      const sign = side(s.id, besideBy(beside, setting.locate), target)
      const left = besideEnd(index(beside.from), beside.along, 0, index, 'left')
      return [sumEquation(s.id, [[sign, left]], target)]
    }
    const [one, two] = [roundPoints(setting, s.item), roundPoints(setting, s.to)]
    if (!one || !two) {
      return [besides(setting, s.id, index(pointOf(s, entities.get(s.item))), s.to, target)]
    }
    const radius = ([c, rim]: typeof one): number => span(ties.place(c), ties.place(rim))
    const sign = side(s.id, radius(one) - radius(two), target)
    const terms = [
      [sign, separation(...one)],
      [-sign, separation(...two)],
    ] as const
    return [sumEquation(s.id, terms, target)]
  },
}

/** The point whose distance a gap is: a point itself, or the start of a line. */
const pointOf = ({ item }: GapSize, entity: Entity | undefined): string =>
  entity?.kind === 'line' ? entity.from : item
