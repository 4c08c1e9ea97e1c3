import { cross, dot, scale, subtract, vec, ORIGIN, type Vec } from '../geometry'
import { AXIS_ID, ORIGIN_ID, type Entity, type Size, type Sketch } from './types'

/** Finds positions of points by id, in mm. */
export type Locate = (pointId: string) => Vec

/** Positions as they are stored in the sketch; ids without a point are the origin. */
export function locator(sketch: Sketch): Locate {
  const points = new Map<string, Vec>(sketch.points.map((p) => [p.id, p]))
  return (id) => points.get(id) ?? ORIGIN
}

/** The start and end of a line in mm; the axis runs from the origin along x. */
export function lineEnds(
  entities: ReadonlyMap<string, Entity>,
  locate: Locate,
  id: string,
): readonly [Vec, Vec] {
  const line = entities.get(id)
  return line ? [locate(line.from), locate(line.to)] : [ORIGIN, vec(1, 0)]
}

export function entityMap(sketch: Sketch): ReadonlyMap<string, Entity> {
  return new Map(sketch.entities.map((e) => [e.id, e]))
}

/**
 * What a size measures where the points stand now, in mm or radians; never negative.
 */
export function measureSize(
  size: Size,
  entities: ReadonlyMap<string, Entity>,
  locate: Locate,
): number {
  switch (size.kind) {
    case 'length': {
      const [a, b] = lineEnds(entities, locate, size.line)
      return Math.hypot(b.x - a.x, b.y - a.y)
    }
    case 'axialDistance':
      return Math.abs(locate(size.b).x - locate(size.a).x)
    case 'diameter':
      return 2 * Math.abs(locate(size.point).y)
    case 'angle':
      return Math.abs(signedAngle(size, entities, locate))
  }
}

/** The angle from the second line's direction to the first's, in (−π, π]. */
export function signedAngle(
  size: { readonly line: string; readonly to: string; readonly reversed: boolean },
  entities: ReadonlyMap<string, Entity>,
  locate: Locate,
): number {
  const [a, b] = lineEnds(entities, locate, size.line)
  const [c, d] = lineEnds(entities, locate, size.to)
  const v = scale(subtract(b, a), size.reversed ? -1 : 1)
  const u = subtract(d, c)
  return Math.atan2(cross(u, v), dot(u, v))
}

/** True for ids every sketch has without drawing them. */
export function isGiven(id: string): boolean {
  return id === AXIS_ID || id === ORIGIN_ID
}
