import {
  ORIGIN,
  arc,
  cross,
  cubic,
  distance,
  dot,
  lengthOf,
  line,
  scale,
  subtract,
  vec,
  type Piece,
  type Vec,
} from '../geometry'
import { AXIS_ID, ORIGIN_ID, type Entity, type Size, type Sketch, type SketchLine } from './types'

/** Finds positions of points by id, in mm. */
export type Locate = (pointId: string) => Vec

/** Positions as they are stored in the sketch; ids without a point are the origin. */
export function locator({ points }: Pick<Sketch, 'points'>): Locate {
  const known = locators.get(points)
  if (known) return known
  const places = new Map<string, Vec>(points.map((p) => [p.id, p]))
  const locate: Locate = (id) => places.get(id) ?? ORIGIN
  locators.set(points, locate)
  return locate
}

/** Sketches stay as they are: what is found of one holds for good. */
const locators = new WeakMap<Sketch['points'], Locate>()
const entityMaps = new WeakMap<Sketch['entities'], Entities>()

/** Entities by id. */
export type Entities = ReadonlyMap<string, Entity>

export function entityMap({ entities }: Sketch): Entities {
  const known = entityMaps.get(entities) ?? new Map(entities.map((e) => [e.id, e]))
  entityMaps.set(entities, known)
  return known
}

/** The straight lines of a sketch. */
export function linesOf(sketch: Sketch): SketchLine[] {
  return sketch.entities.filter((e) => e.kind === 'line')
}

/** The line of an id; undefined for the axis and for curves. */
export function lineOf(sketch: Sketch, id: string | undefined): SketchLine | undefined {
  return linesOf(sketch).find((e) => e.id === id)
}

/** The points a line or arc runs between; none for a circle, which has no ends. */
export function endsOf(entity: Entity): readonly string[] {
  return entity.kind === 'circle' ? [] : [entity.from, entity.to]
}

/** Every point an entity stands on: ends, centre, rim, handles. */
export function pointsOf(entity: Entity): readonly string[] {
  switch (entity.kind) {
    case 'line':
      return [entity.from, entity.to]
    case 'arc':
      return [entity.from, entity.to, entity.centre]
    case 'circle':
      return [entity.centre, entity.rim]
    case 'curve':
      return [entity.from, entity.to, entity.fromHandle, entity.toHandle]
  }
}

/** The start and end of a line in mm; the axis runs from the origin along x. */
export function lineEnds(entities: Entities, locate: Locate, id: string): readonly [Vec, Vec] {
  const found = entities.get(id)
  return found?.kind === 'line' ? [locate(found.from), locate(found.to)] : [ORIGIN, vec(1, 0)]
}

/** An entity as a piece of geometry, where its points stand. */
export function pieceOf(entity: Entity, locate: Locate): Piece {
  switch (entity.kind) {
    case 'line':
      return line(locate(entity.from), locate(entity.to))
    case 'arc':
      return arc(
        locate(entity.from),
        locate(entity.to),
        locate(entity.centre),
        entity.counterClockwise,
      )
    case 'circle':
      return arc(locate(entity.rim), locate(entity.rim), locate(entity.centre), true)
    case 'curve':
      return cubic(
        locate(entity.from),
        locate(entity.fromHandle),
        locate(entity.toHandle),
        locate(entity.to),
      )
  }
}

/** The centre of an arc or circle and a point on it; undefined for lines. */
export function roundOf(
  entity: Entity | undefined,
): { readonly centre: string; readonly rim: string } | undefined {
  if (entity?.kind === 'arc') return { centre: entity.centre, rim: entity.from }
  return entity?.kind === 'circle' ? entity : undefined
}

/**
 * What a size measures where the points stand now, in mm or radians; never negative.
 */
export function measureSize(size: Size, entities: Entities, locate: Locate): number {
  switch (size.kind) {
    case 'length': {
      const [a, b] = lineEnds(entities, locate, size.line)
      return distance(a, b)
    }
    case 'axialDistance':
      return Math.abs(locate(size.b).x - locate(size.a).x)
    case 'radialDistance':
      return Math.abs(locate(size.b).y - locate(size.a).y)
    case 'distance':
      return distance(locate(size.a), locate(size.b))
    case 'diameter':
      return 2 * Math.abs(locate(size.point).y)
    case 'span':
      return 2 * Math.abs(offLine(entities, locate, locate(size.point), size.about))
    case 'gap': {
      const [one, two] = [roundOf(entities.get(size.item)), roundOf(entities.get(size.to))]
      if (one && two) {
        const [r, s] = [one, two].map((o) => distance(locate(o.centre), locate(o.rim)))
        return Math.abs((r ?? 0) - (s ?? 0))
      }
      return Math.abs(offLine(entities, locate, gapPoint(size, entities, locate), size.to))
    }
    case 'radius':
    case 'curveDiameter': {
      const round = roundOf(entities.get(size.curve))
      const radius = round ? distance(locate(round.centre), locate(round.rim)) : 0
      return size.kind === 'radius' ? radius : 2 * radius
    }
    case 'arcLength': {
      const entity = entities.get(size.curve)
      return entity ? lengthOf(pieceOf(entity, locate)) : 0
    }
    case 'angle':
      return Math.abs(signedAngle(size, entities, locate))
  }
}

/** The point whose distance a gap is: a point itself, or the start of a line. */
function gapPoint(size: { readonly item: string }, entities: Entities, locate: Locate): Vec {
  const entity = entities.get(size.item)
  return locate(entity?.kind === 'line' ? entity.from : size.item)
}

/** The distance of a place from a line in mm, positive on the left of its direction. */
export function offLine(entities: Entities, locate: Locate, place: Vec, lineId: string): number {
  const [a, b] = lineEnds(entities, locate, lineId)
  const length = distance(a, b)
  return length > 0 ? cross(subtract(b, a), subtract(place, a)) / length : distance(a, place)
}

/** The angle from the second line's direction to the first's, in (−π, π]. */
export function signedAngle(
  size: { readonly line: string; readonly to: string; readonly reversed: boolean },
  entities: Entities,
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
