import {
  ORIGIN_ID,
  SECTION_ID,
  entityMap,
  locator,
  pointsOf,
  withPoints,
  type Entity,
  type Sketch,
} from '../../sketch'
import type { NewConstraint } from '../../constraints'
import type { Vec } from '../../geometry'
import type { Part } from '../../part'
import type { EdgeGuide } from '../../section'
import { putIn } from './curves/points'
import { takeId } from './ids'

/** Where a new point goes: a free place, or onto something that is there. */
export interface End {
  readonly at: Vec
  /** A point to share, the datum point included. */
  readonly point?: string
  /** A curve to lie on, the axis included, or two whose crossing it is. */
  readonly on?: readonly string[]
  /** A line whose middle it is. */
  readonly middle?: string
  /** A point of an earlier profile to follow, or a line or arc of one to lie on. */
  readonly link?: Link
}

/** Something of an earlier profile, or of the section as it stands. */
export interface Link {
  /** Id of the profile, or the section's. */
  readonly profile: string
  /** Id of a point, line or arc there; of the section the key of a corner, or of an edge. */
  readonly item: string
  /** Of a straight edge of the section the two corners that it runs between. */
  readonly between?: readonly [SectionCorner, SectionCorner]
  /** Of a circular edge seen from the end its middle, and the place of its rim level with that. */
  readonly ring?: { readonly middle: SectionCorner; readonly rim: SectionCorner }
  /** Of a round or a free edge of the section what it is made on. */
  readonly guide?: EdgeGuide
}

interface SectionCorner {
  readonly key: string
  readonly at: Vec
}

/** An end with its point in the sketch, and the constraints that put it where it is. */
export interface PlacedEnd {
  readonly id: string
  readonly sketch: Sketch
  readonly ties: readonly NewConstraint[]
}

/** Shares the end's point, or adds one; a link follows a point of another profile or lies on an edge. */
export function placeEnd(part: Part, sketch: Sketch, end: End): PlacedEnd {
  if (end.link) return placeLinked(part, sketch, end, end.link)
  if (end.point !== undefined && sketch.points.some((p) => p.id === end.point)) {
    return { id: end.point, sketch, ties: [] }
  }
  const { id, sketch: placed } = newPoint(sketch, end)
  const ties: NewConstraint[] = (end.on ?? [])
    .filter((curve) => !isPlaceOf(placed, curve, id))
    .map((curve) => ({ kind: 'pointOn', point: id, curve }))
  if (end.point === ORIGIN_ID) ties.push({ kind: 'coincident', a: id, b: ORIGIN_ID })
  if (end.middle !== undefined) ties.push({ kind: 'midpoint', point: id, line: end.middle })
  return { id, sketch: placed, ties }
}

/** Whether a point is one of the places that a free curve is led through. */
const isPlaceOf = (sketch: Sketch, curve: string, point: string): boolean =>
  sketch.entities.some((e) => e.id === curve && e.kind === 'spline' && pointsOf(e).includes(point))

/** A point at a place; on a free curve through many places it is one of them, and the curve keeps its shape. */
function newPoint(
  sketch: Sketch,
  { at, on }: End,
): { readonly id: string; readonly sketch: Sketch } {
  const curve = sketch.entities.find((e) => e.kind === 'spline' && on?.includes(e.id) === true)
  if (curve?.kind === 'spline' && curve.way === 'through') {
    const put = putIn(sketch, curve, at)
    if (put.ok)
      return { id: put.value.curve.by[put.value.index - 1] ?? '', sketch: put.value.sketch }
  }
  const [id, grown] = takeId(sketch, 'p')
  return { id, sketch: { ...grown, points: [...grown.points, { id, x: at.x, y: at.y }] } }
}

/** A place on another profile; where that has gone meanwhile, a free place. */
function placeLinked(part: Part, sketch: Sketch, end: End, link: Link): PlacedEnd {
  const { profile, item } = link
  const { link: _, ...free } = end
  if (profile === SECTION_ID) return placeOnSection(part, sketch, free, link)
  const source = part.sketches.find((s) => s.id === profile)
  if (!source) return placeEnd(part, sketch, free)
  if (source.points.some((p) => p.id === item)) return follow(sketch, source, item)
  const edge = entityMap(source).get(item)
  if (!edge || edge.kind === 'circle' || edge.kind === 'spline') {
    return placeEnd(part, sketch, free)
  }
  const { id: curve, sketch: grown, ties } = followEdge(sketch, source, edge)
  const placed = placeEnd(part, grown, { ...free, on: [...(free.on ?? []), curve] })
  return { ...placed, ties: [...ties, ...placed.ties] }
}

/** On a corner of the section, or on a construction line, circle, arc or curve that follows an edge. */
function placeOnSection(
  part: Part,
  sketch: Sketch,
  end: End,
  { item, between, ring, guide }: Link,
): PlacedEnd {
  if (guide) return placeOnGuide(part, sketch, end, guide)
  const ends = ring ? ([ring.middle, ring.rim] as const) : between
  if (!ends) return followCorner(sketch, { key: item, at: end.at })
  const one = followCorner(sketch, ends[0])
  const two = followCorner(one.sketch, ends[1])
  const kind = ring ? 'circle' : 'line'
  const [id, grown] = takeId(two.sketch, kind.slice(0, 1))
  const known = two.sketch.entities.find(
    (e) => e.kind === kind && pointsOf(e).includes(one.id) && pointsOf(e).includes(two.id),
  )
  const role = 'construction'
  const curve: Entity = ring
    ? { id, kind: 'circle', centre: one.id, rim: two.id, role }
    : { id, kind: 'line', from: one.id, to: two.id, role }
  const here = known ? two.sketch : { ...grown, entities: [...grown.entities, curve] }
  const placed = placeEnd(part, here, { ...end, on: [...(end.on ?? []), known?.id ?? id] })
  return { ...placed, ties: [...one.ties, ...two.ties, ...placed.ties] }
}

/** On a construction arc or curve that follows a round or a free edge of the section. */
function placeOnGuide(part: Part, sketch: Sketch, end: End, guide: EdgeGuide): PlacedEnd {
  let here = sketch
  const ties: NewConstraint[] = []
  const points = guide.places.map((place) => {
    const followed = followCorner(here, place)
    here = followed.sketch
    ties.push(...followed.ties)
    return followed.id
  })
  const [a = '', b = '', c = '', d = ''] = points
  const [id, grown] = takeId(here, guide.kind.slice(0, 1))
  const own = { id, role: 'construction' } as const
  const { counterClockwise } = guide
  const drawn: Entity =
    guide.kind === 'arc'
      ? { ...own, kind: 'arc', from: a, to: b, centre: c, counterClockwise }
      : { ...own, kind: 'curve', from: a, to: d, fromHandle: b, toHandle: c }
  const known = here.entities.find(
    (e) => e.kind === drawn.kind && pointsOf(e).join() === pointsOf(drawn).join(),
  )
  const whole = known ? here : { ...grown, entities: [...grown.entities, drawn] }
  const placed = placeEnd(part, whole, { ...end, on: [...(end.on ?? []), known?.id ?? id] })
  return { ...placed, ties: [...ties, ...placed.ties] }
}

/** A point that follows a corner of the section: the one that does so already, or a new one. */
function followCorner(sketch: Sketch, { key, at }: SectionCorner): PlacedEnd {
  const known = sketch.constraints.find(
    (c) => c.kind === 'linked' && c.profile === SECTION_ID && c.source === key,
  )
  if (known?.kind === 'linked') return { id: known.point, sketch, ties: [] }
  const { x, y } = at
  const [id, grown] = takeId(sketch, 'p')
  const tie: NewConstraint = { kind: 'linked', point: id, profile: SECTION_ID, source: key, x, y }
  return { id, sketch: { ...grown, points: [...grown.points, { id, x, y }] }, ties: [tie] }
}

/** A point that follows one of another profile: the one that does so already, or a new one. */
function follow(sketch: Sketch, source: Sketch, point: string): PlacedEnd {
  const known = sketch.constraints.find(
    (c) => c.kind === 'linked' && c.profile === source.id && c.source === point,
  )
  if (known?.kind === 'linked') return { id: known.point, sketch, ties: [] }
  const { x, y } = locator(source)(point)
  const [id, grown] = takeId(sketch, 'p')
  const tie: NewConstraint = { kind: 'linked', point: id, profile: source.id, source: point, x, y }
  return { id, sketch: { ...grown, points: [...grown.points, { id, x, y }] }, ties: [tie] }
}

/** A construction line or arc that follows an edge of another profile. */
function followEdge(sketch: Sketch, source: Sketch, edge: Entity): PlacedEnd {
  const ids = new Map<string, string>()
  const ties: NewConstraint[] = []
  let here = sketch
  for (const point of pointsOf(edge)) {
    const placed = follow(here, source, point)
    here = placed.sketch
    ties.push(...placed.ties)
    ids.set(point, placed.id)
  }
  const copy = withPoints(edge, (id) => ids.get(id) ?? id)
  const same = here.entities.find(
    (e) => e.kind === copy.kind && pointsOf(e).join() === pointsOf(copy).join(),
  )
  if (same) return { id: same.id, sketch: here, ties }
  const [id, grown] = takeId(here, edge.kind[0] ?? 'e')
  const drawn: Entity = { ...copy, id, role: 'construction' }
  return { id, sketch: { ...grown, entities: [...grown.entities, drawn] }, ties }
}
