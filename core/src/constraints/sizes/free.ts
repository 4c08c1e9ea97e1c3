import { bendRead, placeRead, radiusRead } from '../../geometry'
import { cubicsIn, isFree, type Entities, type FreeSize, type Locate } from '../../sketch'
import {
  onFreeCurve,
  sumEquation,
  type Demand,
  type ReadCurve,
  type Setting,
} from '../../equations'
import type { SizeKind } from '../kind'

const fields = { curve: 'id' } as const

/** What is read off a size's curve where the points stand; nought where it is no free curve. */
export function readFree(
  s: { readonly curve: string },
  entities: Entities,
  locate: Locate,
  read: ReadCurve,
): number {
  const entity = entities.get(s.curve)
  return entity && isFree(entity) ? read(cubicsIn(entity, locate)).value : 0
}

/** What is read off a free curve, times something, comes to a target. */
export function demandFree(
  { index, entities }: Setting,
  s: { readonly id: string; readonly curve: string },
  target: number,
  read: ReadCurve,
  times = 1,
): readonly Demand[] {
  const entity = entities.get(s.curve)
  if (!entity || !isFree(entity)) return []
  return [sumEquation(s.id, [[times, onFreeCurve(entity, index, read)]], target)]
}

const diameter = (which: 'greatest' | 'least', prefix: string): SizeKind<FreeSize> => {
  const read: ReadCurve = (cubics) => radiusRead(cubics, which)
  return {
    fields,
    measures: 'length',
    sign: '⌀',
    prefix,
    noun: () => `${which} diameter`,
    words: (s, { name }) => `${which} diameter of ${name(s.curve)}`,
    measure: (s, entities, locate) => 2 * Math.abs(readFree(s, entities, locate, read)),
    demands: (setting, s, target) => demandFree(setting, s, target, read, 2),
  }
}

const place = (which: 'greatest' | 'least', prefix: string): SizeKind<FreeSize> => {
  const read: ReadCurve = (cubics) => placeRead(cubics, which)
  return {
    fields,
    measures: 'length',
    sign: '',
    prefix,
    noun: () => `place of the ${which} diameter`,
    words: (s, { name }) => `place of the ${which} diameter of ${name(s.curve)}`,
    measure: (s, entities, locate) => Math.abs(readFree(s, entities, locate, read)),
    demands: (setting, s, target) => {
      const now = readFree(s, setting.entities, setting.locate, read)
      return demandFree(setting, s, setting.side(s.id, now, target) * target, read)
    },
  }
}

export const greatestDiameter = diameter('greatest', 'belly')
export const leastDiameter = diameter('least', 'waist')
export const greatestAt = place('greatest', 'bellyAt')
export const leastAt = place('least', 'waistAt')

/** The curvature is what is asked for: a straight stretch has no radius. */
export const leastRadius: SizeKind<FreeSize> = {
  fields,
  measures: 'length',
  sign: 'R',
  prefix: 'bend',
  noun: () => 'least radius of bend',
  words: (s, { name }) => `least radius of ${name(s.curve)}`,
  measure: (s, entities, locate) => {
    const bend = readFree(s, entities, locate, bendRead)
    return bend > 0 ? 1 / bend : 0
  },
  demands: (setting, s, target) => demandFree(setting, s, target, bendRead, target * target),
}
