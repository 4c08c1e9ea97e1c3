import {
  ORIGIN,
  arc,
  cross,
  cubic,
  distance,
  dot,
  line,
  scale,
  subtract,
  vec,
  type Piece,
  type Vec,
} from '../geometry'
import { AXIS_ID, ORIGIN_ID, type Entity, type Sketch, type SketchLine } from './types'
import { once } from '../once'

/** Finds positions of points by id, in mm. */
export type Locate = (pointId: string) => Vec

/** Positions as they are stored in the sketch; ids without a point are the origin. */
export const locator = ({ points }: Pick<Sketch, 'points'>): Locate => locateIn(points)

const locateIn = once((points: Sketch['points']): Locate => {
  const places = new Map<string, Vec>(points.map((p) => [p.id, p]))
  return (id) => places.get(id) ?? ORIGIN
})

/** Entities by id. */
export type Entities = ReadonlyMap<string, Entity>

export const entityMap = ({ entities }: Sketch): Entities => byId(entities)

const byId = once(
  (entities: Sketch['entities']): Entities => new Map(entities.map((e) => [e.id, e])),
)

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
  const fields: Readonly<Record<string, unknown>> = { ...entity }
  return POINT_FIELDS[entity.kind].map((field) => fields[field] as string)
}

/** The fields of each kind of entity that name points, in the order in which they are told. */
const POINT_FIELDS: { readonly [K in Entity['kind']]: readonly PointField<K>[] } = {
  line: ['from', 'to'],
  arc: ['from', 'to', 'centre'],
  circle: ['centre', 'rim'],
  curve: ['from', 'to', 'fromHandle', 'toHandle'],
}

type PointField<K> = Exclude<keyof Extract<Entity, { kind: K }>, 'id' | 'kind' | 'role'>

/** The same entity between other points. */
export function withPoints<E extends Entity>(entity: E, rename: (pointId: string) => string): E {
  const fields: readonly string[] = POINT_FIELDS[entity.kind]
  const entries = Object.entries(entity).map(([key, value]: [string, unknown]) => [
    key,
    fields.includes(key) ? rename(value as string) : value,
  ])
  return Object.fromEntries(entries) as E
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
