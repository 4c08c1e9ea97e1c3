import {
  ORIGIN,
  arc,
  cross,
  cubic,
  cubicsOf,
  distance,
  dot,
  lengthOf,
  line,
  nearestOn,
  parallelRun,
  pointAt,
  scale,
  splinePieces,
  subtract,
  tangentAt,
  vec,
  type Cubic,
  type Piece,
  type Spline,
  type Vec,
} from '../geometry'
import {
  AXIS_ID,
  ORIGIN_ID,
  type Entity,
  type PlainEntity,
  type Sketch,
  type SketchCurve,
  type SketchLine,
  type SketchParallel,
  type SketchSpline,
} from './types'
import { once } from '../once'
import { VERTEX_TOLERANCE } from '../tolerances'

/** Finds positions of points by id, in mm. */
export type Locate = (pointId: string) => Vec

/** Positions as they are stored in the sketch; ids without a point are the origin. */
export const locator = ({ points }: Pick<Sketch, 'points'>): Locate => locateIn(points)

const locateIn = once((points: Sketch['points']): Locate => {
  const places = new Map<string, Vec>(points.map((p) => [p.id, p]))
  return (id) => places.get(id) ?? ORIGIN
})

/** Where points came to rest; as they are drawn where they have not. */
export const restLocator = (
  sketch: Pick<Sketch, 'points'>,
  rest: ReadonlyMap<string, Vec>,
): Locate => {
  const drawn = locator(sketch)
  return (id) => rest.get(id) ?? drawn(id)
}

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

/** Every point an entity stands on: ends, centre, rim, handles, places between. */
export function pointsOf(entity: Entity): readonly string[] {
  if (entity.kind === 'parallel') {
    return [entity.from, entity.to, ...pointsOf(entity.along)]
  }
  const fields: Readonly<Record<string, unknown>> = { ...entity }
  return POINT_FIELDS[entity.kind]
    .flatMap((field) => fields[field] as string | readonly string[])
    .filter((id) => id !== '')
}

/** The points that a piece cannot do without: what lies beside a curve goes with that, not with its points. */
export const standsOn = (entity: Entity): readonly string[] =>
  entity.kind === 'parallel' ? [entity.from, entity.to] : pointsOf(entity)

/** The fields of each kind of entity that name points, in the order in which they are told. */
const POINT_FIELDS: { readonly [K in Drawn]: readonly PointField<K>[] } = {
  line: ['from', 'to'],
  arc: ['from', 'to', 'centre'],
  circle: ['centre', 'rim'],
  curve: ['from', 'to', 'fromHandle', 'toHandle'],
  spline: ['from', 'to', 'by', 'fromHandle', 'toHandle'],
}

/** Kinds of entities that stand on their own. */
type Drawn = Exclude<Entity['kind'], 'parallel'>

type PointField<K> = Exclude<
  keyof Extract<Entity, { kind: K }>,
  'id' | 'kind' | 'role' | 'way' | 'spans'
>

/** The same entity between other points, and beside another curve. */
export function withPoints<E extends Entity>(entity: E, rename: (id: string) => string): E {
  if (entity.kind === 'parallel') {
    const { of, along, from, to } = entity
    const own = { ...withPoints(along, rename), id: rename(of) }
    return { ...entity, of: rename(of), along: own, from: rename(from), to: rename(to) }
  }
  const fields: readonly string[] = POINT_FIELDS[entity.kind]
  const named = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map((id) => rename(id as string))
    return value === '' ? value : rename(value as string)
  }
  const entries = Object.entries(entity).map(([key, value]: [string, unknown]) => [
    key,
    fields.includes(key) ? named(value) : value,
  ])
  return Object.fromEntries(entries) as E
}

/** The start and end of a line in mm; the axis runs from the origin along x. */
export function lineEnds(entities: Entities, locate: Locate, id: string): readonly [Vec, Vec] {
  const found = entities.get(id)
  return found?.kind === 'line' ? [locate(found.from), locate(found.to)] : [ORIGIN, vec(1, 0)]
}

/** A free curve, of two places or of many. */
export type FreeCurve = SketchCurve | SketchSpline

/** The point that tells a free curve's direction at its start or end; empty where it is free there. */
export function legAt(curve: FreeCurve, atStart: boolean): string {
  if (curve.kind === 'spline' && curve.way === 'frame') {
    const inner = atStart ? curve.by[0] : curve.by.at(-1)
    return inner ?? (atStart ? curve.to : curve.from)
  }
  return atStart ? curve.fromHandle : curve.toHandle
}

/** What tells how a free curve bends at one of its ends. */
export interface Bend {
  /** The point that tells its direction there. */
  readonly leg: string
  /** The point beyond that: the curvature is the share, times its distance from the leg, by the square of the leg's length. */
  readonly next: string
  readonly share: number
}

/** How a free curve bends at its start or end, where that is told by two of its points; else undefined. */
export function bendOf(curve: FreeCurve, atStart: boolean): Bend | undefined {
  const leg = legAt(curve, atStart)
  if (curve.kind === 'curve' || curve.way === 'through') {
    const next = legAt(curve, !atStart)
    const isCubic = curve.kind === 'curve' || curve.by.length === 0
    return isCubic && leg !== '' && next !== '' ? { leg, next, share: 2 / 3 } : undefined
  }
  // The second point from the end pulls at the first and second cubics: how much, their spans tell.
  const inner = atStart ? curve.by : [...curve.by].reverse()
  const next = inner[1] ?? (atStart ? curve.to : curve.from)
  const [first = 1, second = 0] = atStart ? curve.spans : [...curve.spans].reverse()
  if (inner.length < 2) return inner.length === 1 ? { leg, next, share: 1 / 2 } : undefined
  return { leg, next, share: (2 / 3) * (first / (first + second)) }
}

/** The handles that go along when ends of free curves are moved: those at points of some ids, but these themselves. */
export function handlesAt(sketch: Sketch, ids: Iterable<string>): readonly string[] {
  const moved = new Set(ids)
  const handles = sketch.entities.flatMap((e) => {
    if (!isFree(e)) return []
    const ends = [
      [e.from, e.fromHandle],
      [e.to, e.toHandle],
    ] as const
    return ends.flatMap(([end, handle]) => (moved.has(end) && handle !== '' ? [handle] : []))
  })
  return handles.filter((h) => !moved.has(h))
}

/** The ends that free curves leave towards handles of some ids, but those among these ids. */
export function endsOfHandles(sketch: Sketch, ids: Iterable<string>): readonly string[] {
  const handles = new Set(ids)
  const ends = sketch.entities.flatMap((e) => {
    if (!isFree(e)) return []
    return [handles.has(e.fromHandle) ? [e.from] : [], handles.has(e.toHandle) ? [e.to] : []].flat()
  })
  return ends.filter((p) => !handles.has(p))
}

/** The straight lines that show how a free curve is led: from its ends to its handles, or along its frame. */
export function legsOf(curve: FreeCurve): (readonly [string, string])[] {
  if (curve.kind === 'spline' && curve.way === 'frame') {
    const places = [curve.from, ...curve.by, curve.to]
    return places.slice(1).map((p, i) => [places[i] ?? p, p] as const)
  }
  const legs = [
    [curve.from, curve.fromHandle],
    [curve.to, curve.toHandle],
  ] as const
  return legs.filter(([, handle]) => handle !== '')
}

export const isFree = (entity: Entity): entity is FreeCurve =>
  entity.kind === 'curve' || entity.kind === 'spline'

/** Whether an entity is one piece of geometry, not several. */
export const isPlain = (entity: Entity): entity is PlainEntity =>
  entity.kind !== 'spline' && entity.kind !== 'parallel'

/** A free curve of many places as geometry, where its points stand. */
export const splineOf = (entity: SketchSpline, locate: Locate): Spline => ({
  ...{ way: entity.way, spans: entity.spans },
  places: [entity.from, ...entity.by, entity.to].map(locate),
  ends: [
    entity.fromHandle === '' ? undefined : locate(entity.fromHandle),
    entity.toHandle === '' ? undefined : locate(entity.toHandle),
  ],
})

/** The points of a free curve in order: its places from end to end, then its handles. */
export const curvePoints = (curve: FreeCurve): readonly string[] => {
  const places = curve.kind === 'curve' ? [] : curve.by
  const handles = [curve.fromHandle, curve.toHandle].filter((id) => id !== '')
  return [curve.from, ...places, curve.to, ...handles]
}

/** A free curve as cubics, where its points stand; none where its places are one. */
export const cubicsIn = (curve: FreeCurve, locate: Locate): readonly Cubic[] =>
  curve.kind === 'spline'
    ? cubicsOf(splineOf(curve, locate))
    : [[curve.from, curve.fromHandle, curve.toHandle, curve.to].map(locate) as unknown as Cubic]

/** An entity as pieces of geometry, end to end, where its points stand; none for a curve whose places are one. */
export const piecesOf = (entity: Entity, locate: Locate): readonly Piece[] =>
  isPlain(entity) ? [pieceOf(entity, locate)] : splinesIn(locate)(entity)

/** Asked for at every move of the pointer, by painting, picking and snapping. */
const splinesIn = once((locate: Locate) =>
  once((entity: SketchSpline | SketchParallel): readonly Piece[] =>
    entity.kind === 'spline'
      ? splinePieces(splineOf(entity, locate))
      : besidePieces(entity, locate),
  ),
)

function besidePieces(entity: SketchParallel, locate: Locate): readonly Piece[] {
  const [own, by] = [piecesOf(entity.along, locate), besideBy(entity, locate)]
  return Math.abs(by) <= VERTEX_TOLERANCE ? own : parallelRun(own, by)
}

/** How far to the left of its curve a parallel lies, in mm. */
export function besideBy({ along, from }: SketchParallel, locate: Locate): number {
  const [first] = piecesOf(along, locate)
  if (!first) return 0
  return cross(tangentAt(first, 0), subtract(locate(from), first.from))
}

/** An entity as a piece of geometry, where its points stand. */
export function pieceOf(entity: PlainEntity, locate: Locate): Piece {
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

/** A place on an entity, and how far it is in mm from the one it was asked for. */
export interface Nearest {
  readonly distance: number
  /** Which of the entity's pieces it is on, and where on that. */
  readonly index: number
  readonly piece: Piece
  readonly t: number
}

/** The place of an entity that is nearest to one; undefined for a curve whose places are one. */
export function nearestOf(entity: Entity, locate: Locate, place: Vec): Nearest | undefined {
  let best: Nearest | undefined
  piecesOf(entity, locate).forEach((piece, index) => {
    const found = nearestOn(piece, place)
    if (!best || found.distance < best.distance) best = { ...found, index, piece }
  })
  return best
}

/** The direction in which an entity is run through at its start or end; undefined where it has none. */
export function directionAt(entity: Entity, locate: Locate, end: 'start' | 'end'): Vec | undefined {
  const pieces = piecesOf(entity, locate)
  const piece = end === 'start' ? pieces[0] : pieces.at(-1)
  return piece && tangentAt(piece, end === 'start' ? 0 : 1)
}

/** The middle of an entity along its pieces. */
export function middleOf(entity: Entity, locate: Locate): Vec {
  const pieces = piecesOf(entity, locate)
  const whole = pieces.reduce((sum, p) => sum + lengthOf(p), 0)
  let left = whole / 2
  for (const piece of pieces) {
    const length = lengthOf(piece)
    if (length >= left) return pointAt(piece, pieces.length === 1 ? 0.5 : left / length)
    left -= length
  }
  return ORIGIN
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
