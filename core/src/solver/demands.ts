import { AXIS_ID, signedAngle, type Constraint, type Entity, type Size } from '../sketch'
import type { Vec } from '../geometry'
import { angleEquation, arcLength, offCubic, separation, sumEquation } from './equations'
import {
  apart,
  besides,
  direction,
  equal,
  middle,
  mirror,
  onLine,
  repeated,
  roundPoints,
  type Demand,
  type Setting,
} from './relations'
import { tangent } from './tangents'

const span = (p: Vec, q: Vec): number => Math.hypot(q.x - p.x, q.y - p.y)
const x = (point: number): number => 2 * point
const y = (point: number): number => 2 * point + 1

/** Reads a constraint: puts on its plain ties, and returns what else it asks for. */
export function readConstraint(setting: Setting, c: Constraint): readonly Demand[] {
  const { index, line, ties, entities } = setting
  switch (c.kind) {
    case 'coincident': {
      const [a, b] = [index(c.a), index(c.b)]
      ties.tie(x(a), x(b), 0, c.id)
      ties.tie(y(a), y(b), 0, c.id)
      return []
    }
    case 'axial':
    case 'radial': {
      const [a, b] = line(c.line)
      if (c.kind === 'axial') ties.tie(y(a), y(b), 0, c.id)
      else ties.tie(x(a), x(b), 0, c.id)
      return []
    }
    case 'inLine': {
      const [a, b] = [index(c.a), index(c.b)]
      if (c.along === 'axial') ties.tie(y(a), y(b), 0, c.id)
      else ties.tie(x(a), x(b), 0, c.id)
      return []
    }
    case 'fixed':
    case 'linked':
      ties.hold(index(c.point), c, c.id)
      return []
    case 'pointOn': {
      const p = index(c.point)
      const curve = entities.get(c.curve)
      if (curve?.kind === 'curve') {
        const { from, fromHandle, toHandle, to } = curve
        const control = [from, fromHandle, toHandle, to].map(index)
        return [sumEquation(c.id, [[1, offCubic(p, control)]])]
      }
      const round = roundPoints(setting, c.curve)
      if (round) {
        const [centre, rim] = round
        return [
          sumEquation(c.id, [
            [1, separation(centre, p)],
            [-1, separation(centre, rim)],
          ]),
        ]
      }
      return [onLine(c.id, p, line(c.curve))]
    }
    case 'parallel':
    case 'perpendicular':
      return [direction(setting, c)]
    case 'equal':
      return [equal(setting, c)]
    case 'concentric': {
      const [a, b] = [roundPoints(setting, c.curve), roundPoints(setting, c.to)]
      if (!a || !b) return []
      ties.tie(x(a[0]), x(b[0]), 0, c.id)
      ties.tie(y(a[0]), y(b[0]), 0, c.id)
      return []
    }
    case 'tangent':
      return [tangent(setting, c)]
    case 'midpoint': {
      const [a, b] = line(c.line)
      return [x, y].map((axis) => middle(c.id, axis(index(c.point)), axis(a), axis(b)))
    }
    case 'symmetric': {
      const [a, b] = [index(c.a), index(c.b)]
      if (c.about === AXIS_ID || entities.has(c.about)) return [mirror(c.id, a, b, line(c.about))]
      const m = index(c.about)
      return [x, y].map((axis) => middle(c.id, axis(m), axis(a), axis(b)))
    }
    case 'repeat':
      return repeated(setting, c)
  }
}

/** Reads a size of a given value in mm or radians. */
export function readSize(setting: Setting, size: Size, target: number): readonly Demand[] {
  const { index, line, ties, entities, locate, side } = setting
  switch (size.kind) {
    case 'length':
      return [apart(setting, size.id, ...line(size.line), target)]
    case 'distance':
      return [apart(setting, size.id, index(size.a), index(size.b), target)]
    case 'axialDistance':
    case 'radialDistance': {
      const axis = size.kind === 'axialDistance' ? x : y
      const [a, b] = [axis(index(size.a)), axis(index(size.b))]
      ties.tie(a, b, side(size.id, ties.gap(a, b), target) * target, size.id)
      return []
    }
    case 'diameter':
      return [besides(setting, size.id, index(size.point), AXIS_ID, target / 2)]
    case 'span':
      return [besides(setting, size.id, index(size.point), size.about, target / 2)]
    case 'gap': {
      const rounds = [roundPoints(setting, size.item), roundPoints(setting, size.to)]
      const [one, two] = rounds
      if (one && two) {
        const [r, s] = [one, two].map(([c, rim]) => span(ties.place(c), ties.place(rim)))
        const sign = side(size.id, (r ?? 0) - (s ?? 0), target)
        const terms = [
          [sign, separation(...one)],
          [-sign, separation(...two)],
        ] as const
        return [sumEquation(size.id, terms, target)]
      }
      const from = entities.get(size.item)
      const point = from?.kind === 'line' ? from.from : size.item
      return [besides(setting, size.id, index(point), size.to, target)]
    }
    case 'radius':
    case 'curveDiameter': {
      const round = roundPoints(setting, size.curve)
      if (!round) return []
      return [apart(setting, size.id, ...round, size.kind === 'radius' ? target : target / 2)]
    }
    case 'arcLength': {
      const arc = entities.get(size.curve)
      if (arc?.kind !== 'arc') return []
      const points = [arc.from, arc.to, arc.centre].map(index)
      const [a = 0, b = 0, centre = 0] = points
      const measure = arcLength(a, b, centre, arc.counterClockwise)
      return [sumEquation(size.id, [[1, measure]], target)]
    }
    case 'angle': {
      const first = line(size.line)
      const now = signedAngle(size, entities, locate)
      const turned: readonly [number, number] = size.reversed ? [first[1], first[0]] : first
      const angle = side(size.id, now, target, setting.extent) * target
      return [angleEquation(size.id, turned, line(size.to), angle, setting.extent)]
    }
  }
}

/** Both ends of an arc are as far from its centre. */
export function arcByNature(setting: Setting, entity: Entity): Demand[] {
  if (entity.kind !== 'arc') return []
  const [a = 0, b = 0, centre = 0] = [entity.from, entity.to, entity.centre].map(setting.index)
  return [
    sumEquation('', [
      [1, separation(centre, a)],
      [-1, separation(centre, b)],
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
