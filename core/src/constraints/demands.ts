import type { Constraint, Entity, Size, SketchParallel } from '../sketch'
import {
  apart,
  besideEnd,
  separation,
  sumEquation,
  type Demand,
  type Measure,
  type Setting,
} from '../equations'
import { constraintKind, sizeKind } from './items'

/** Reads a constraint: puts on its plain ties, and returns what else it asks for. */
export const readConstraint = (setting: Setting, c: Constraint): readonly Demand[] =>
  constraintKind(c).demands(setting, c)

/** Reads a size of a given value in mm or radians. */
export const readSize = (setting: Setting, size: Size, target: number): readonly Demand[] =>
  sizeKind(size).demands(setting, size, target)

/** Both ends of an arc are as far from its centre. */
export function byNature(setting: Setting, entity: Entity): Demand[] {
  if (entity.kind === 'parallel') return besideByNature(setting, entity)
  if (entity.kind !== 'arc') return []
  const [a = 0, b = 0, centre = 0] = [entity.from, entity.to, entity.centre].map(setting.index)
  return [
    sumEquation('', [
      [1, separation(centre, a)],
      [-1, separation(centre, b)],
    ]),
  ]
}

/** What lies beside a curve ends square beside its ends, as far from one as from the other. */
function besideByNature({ index }: Setting, { along, from, to }: SketchParallel): Demand[] {
  const ends = [index(from), index(to)] as const
  const at = (end: 0 | 1, what: 'along' | 'left'): Measure =>
    besideEnd(ends[end], along, end, index, what)
  return [
    sumEquation('', [[1, at(0, 'along')]]),
    sumEquation('', [[1, at(1, 'along')]]),
    sumEquation('', [
      [1, at(0, 'left')],
      [-1, at(1, 'left')],
    ]),
  ]
}

/**
 * A sized arc: each of its ends is at the radius. This stands for the size and for what the arc is
 * by nature, since each half alone may be a mere tie.
 */
export function sizedArc(setting: Setting, owner: string, arc: Entity, radius: number): Demand[] {
  if (arc.kind !== 'arc') return []
  const centre = setting.index(arc.centre)
  return [arc.from, arc.to].map((end) => apart(setting, owner, centre, setting.index(end), radius))
}
