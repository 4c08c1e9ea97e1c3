import { crossPlaces, place, vec } from '../../geometry'
import { edgesOf, extentOf, materialAlong } from '../../section'
import type { HolesStep } from '../../part'
import type { NewStep } from '../../part'
import { lengthOf } from '../nodes'
import { drilledIn, readDrill, type Drill, type Drilled } from './drill'
import { PARALLEL, alike, figureOf, isOne, spreadsOf, wrapped } from './figures'
import { squareFaceFrom } from './hostFaces'
import type { Feature, Finder, Host } from './types'

/** The formulas of a hole's own shape. */
function shapeOf(drill: Drill, reach: HolesStep['reach'], { units }: Host) {
  const mm = (value: number): string => figureOf(value, 'length', units)
  const turn = (value: number): string => figureOf(value, 'angle', units)
  const { radius, depth, head, floor } = drill
  const isBlind = reach === 'depth'
  return {
    diameter: mm(2 * radius),
    ...{ reach, depth: mm(isBlind ? depth : 2 * radius) },
    tip: isBlind && typeof floor === 'object' ? ('cone' as const) : ('flat' as const),
    tipAngle: turn(typeof floor === 'object' ? floor.angle : (118 * Math.PI) / 180),
    head: head?.kind ?? ('none' as const),
    headDiameter: head ? mm(head.diameter) : '',
    headDepth: head?.kind === 'counterbore' ? mm(head.depth) : '',
    headAngle: turn(head?.kind === 'countersink' ? head.angle : Math.PI / 2),
    thread: '',
  }
}

/** Whether holes have one shape. */
const isOneShape = (a: Drill, b: Drill, host: Host): boolean => {
  const angleOf = ({ floor, head }: Drill): number[] => [
    typeof floor === 'object' ? floor.angle : floor === 'flat' ? 0 : -1,
    head?.kind === 'countersink' ? head.angle : head ? 0 : -1,
  ]
  return (
    isOne(a.radius, b.radius, host) &&
    (a.floor === undefined || isOne(a.depth, b.depth, host)) &&
    isOne(a.head?.diameter, b.head?.diameter, host) &&
    angleOf(a).every((angle, i) => Math.abs(angle - (angleOf(b)[i] ?? 0)) < 1e-6) &&
    (a.head?.kind !== 'counterbore' ||
      b.head?.kind !== 'counterbore' ||
      isOne(a.head.depth, b.head.depth, host))
  )
}

/** What all holes have alike before they are on a face. */
const PLAIN = {
  ...({ kind: 'holes', sketch: '', skip: [], places: [], range: '' } as const),
  ...{ circle: '', from: '', distance: '' },
}

interface EndHole {
  readonly drill: Drill
  readonly way: 1 | -1
  readonly on: string
  readonly reach: HolesStep['reach']
  readonly pitchRadius: number
  readonly angle: number
  readonly faces: readonly number[]
}

/** Holes along the axis, beside it, that begin at a turned face square to it. */
export const endHoles: Finder = (rest, host) => {
  const along = drilledIn(rest, host, ({ at, along: way }) =>
    lengthOf(crossPlaces(way, place(0, 0, 1))) < PARALLEL && Math.hypot(at.x, at.y) > host.near
      ? { at: place(at.x, at.y, 0), along: place(0, 0, 1) }
      : undefined,
  )
  const holes = along.flatMap((d) => endHoleOf(d, host) ?? [])
  const kinds = alike(
    holes,
    (a, b) =>
      a.on === b.on && a.way === b.way && a.reach === b.reach && isOneShape(a.drill, b.drill, host),
  )
  return kinds.flatMap((kind) => stepsOf(kind, host))
}

function endHoleOf(drilled: Drilled, host: Host): EndHole | undefined {
  const { at } = drilled.line
  const pitchRadius = Math.hypot(at.x, at.y)
  for (const way of [1, -1] as const) {
    const first = readDrill(drilled, way, host)
    if (!first) continue
    const wide = first.head ? first.head.diameter / 2 : first.radius
    const reached = way * first.mouth + first.depth
    const face = squareFaceFrom(host, first.mouth, way, reached, [
      pitchRadius - wide,
      pitchRadius + wide,
    ])
    // Beside its face it may go up a rounding: depths are told from the face.
    const drill = face && readDrill(drilled, way, host, face.at)
    if (!drill || drill.depth <= host.near) continue
    const on = face.key
    const reach = drill.floor ? 'depth' : throughOf(drilled, drill, way, pitchRadius, host)
    const angle = wrapped(Math.atan2(at.y, at.x))
    return { drill, way, on, reach, pitchRadius, angle, faces: drilled.faces }
  }
  return undefined
}

/** Through the first wall behind its mouth, where there are more of which it has no faces; else through all. */
function throughOf(
  { walls }: Drilled,
  drill: Drill,
  way: 1 | -1,
  radius: number,
  { section, near }: Host,
): 'through' | 'wall' {
  const [from, to] = extentOf(section)
  const stretches = materialAlong(
    section,
    vec(drill.mouth - way * near, radius),
    vec(way, 0),
    to - from,
  )
  const reached = Math.max(...walls.map((w) => (way === 1 ? w.to : -w.from))) - way * drill.mouth
  return stretches.some(([begin]) => begin > reached + near) ? 'wall' : 'through'
}

/** So many, evenly on a pitch circle, are a step for that circle; what is left over is one step with places of its own. */
const FEW_EVEN = 2

function stepsOf(holes: readonly EndHole[], host: Host): Feature[] {
  const circles = alike(holes, (a, b) => isOne(a.pitchRadius, b.pitchRadius, host))
  const even: Feature[] = []
  const single: EndHole[] = []
  for (const circle of circles) {
    for (const spread of spreadsOf(circle)) {
      if (spread.items.length < FEW_EVEN && circle.length > 1) single.push(...spread.items)
      else even.push(featureOf(spread.items, onCircle(spread, host), host))
    }
  }
  if (single.length === 0) return even
  const places = single.map((h) => ({
    diameter: figureOf(2 * h.pitchRadius, 'length', host.units),
    angle: figureOf(h.angle, 'angle', host.units),
  }))
  const placed = { layout: 'places' as const, places, count: '1', start: '' }
  return [...even, featureOf(single, placed, host)]
}

function onCircle(spread: ReturnType<typeof spreadsOf<EndHole>>[number], { units }: Host) {
  const [first] = spread.items
  const turn = (angle: number): string => figureOf(angle, 'angle', units)
  return {
    layout: 'circle' as const,
    circle: figureOf(2 * (first?.pitchRadius ?? 0), 'length', units),
    count: String(spread.items.length),
    start: spread.start === 0 ? '' : turn(spread.start),
    range: spread.range === undefined ? '' : turn(spread.range),
  }
}

function featureOf(
  holes: readonly EndHole[],
  layout: Partial<HolesStep> & Pick<HolesStep, 'layout' | 'count' | 'start'>,
  host: Host,
): Feature {
  const [first] = holes
  if (!first) throw new Error('there is no hole')
  const step: NewStep = {
    ...PLAIN,
    body: host.body,
    ...{ way: 'end', on: first.on },
    ...shapeOf(first.drill, first.reach, host),
    ...layout,
  }
  return {
    ...{ kind: 'hole', count: holes.length, step },
    faces: holes.flatMap((h) => h.faces),
  }
}

interface CrossHole {
  readonly drill: Drill
  readonly at: number
  readonly angle: number
  readonly reach: HolesStep['reach']
  readonly faces: readonly number[]
}

/** Holes square to the axis and towards it, from outside. */
export const crossHoles: Finder = (rest, host) => {
  const across = drilledIn(rest, host, ({ at, along }) => {
    if (Math.abs(along.z) > PARALLEL) return undefined
    const off = Math.abs(at.x * along.y - at.y * along.x)
    // One line for both ways round: it looks to the first half of the turn.
    const way = along.y < -PARALLEL || (Math.abs(along.y) <= PARALLEL && along.x < 0) ? -1 : 1
    return off <= host.near
      ? { at: place(0, 0, at.z), along: place(way * along.x, way * along.y, 0) }
      : undefined
  })
  const holes = across.flatMap((d) => crossHolesOf(d, host))
  const kinds = alike(
    holes,
    (a, b) => a.reach === b.reach && isOne(a.at, b.at, host) && isOneShape(a.drill, b.drill, host),
  )
  return kinds.flatMap((kind) =>
    spreadsOf(kind, kind[0]?.reach === 'through' ? Math.PI : undefined).map((s) => {
      const isHalf = kind[0]?.reach === 'through' && s.items.length > 1 && s.range === undefined
      // Right through, holes evenly over half a turn are told by the angle from the first to the last.
      const range = isHalf ? (Math.PI * (s.items.length - 1)) / s.items.length : s.range
      return crossFeature(s.items, s.start, range, host)
    }),
  )
}

/** The one or two holes that have their axis in common: one side's, the other's, or right through. */
function crossHolesOf(drilled: Drilled, host: Host): CrossHole[] {
  const { at, along } = drilled.line
  const angle = Math.atan2(along.y, along.x)
  const sides = ([1, -1] as const).map((side): Drilled | undefined => {
    const walls = drilled.walls.filter((w) => side * (w.from + w.to) > host.near)
    const isOwn = (s: number): boolean => side * s >= -host.near
    return walls.length === 0
      ? undefined
      : {
          ...drilled,
          walls,
          cones: drilled.cones.filter((c) => isOwn(c.from.x + c.to.x)),
          rings: drilled.rings.filter((r) => isOwn(r.at)),
        }
  })
  const surface = surfaceAt(at.z, host)
  if (surface === undefined) return []
  const goesOver = drilled.walls.some((w) => w.from < -host.near && w.to > host.near)
  const [one, other] = sides
  const read = (side: Drilled | undefined, way: 1 | -1): Drill | undefined =>
    side && readDrill(side, way === 1 ? -1 : 1, host, way * surface)
  const whole = { angle, at: at.z, faces: drilled.faces }
  if (goesOver) {
    const drill = read(drilled, 1)
    if (drill) return [{ ...whole, drill, reach: drill.floor ? 'depth' : 'through' }]
    const back = read(drilled, -1)
    return back
      ? [{ ...whole, angle: angle + Math.PI, drill: back, reach: back.floor ? 'depth' : 'through' }]
      : []
  }
  const [front, back] = [read(one, 1), read(other, -1)]
  if (front && back && !front.floor && !back.floor && isOneShape(front, back, host)) {
    return [{ ...whole, drill: front, reach: 'through' }]
  }
  return [
    ...(front ? [{ ...whole, drill: front, ...oneSided(front, one) }] : []),
    ...(back ? [{ ...whole, angle: angle + Math.PI, drill: back, ...oneSided(back, other) }] : []),
  ]
}

/** How far a hole of one side goes, and the faces it has. */
const oneSided = (drill: Drill, side: Drilled | undefined) => ({
  reach: drill.floor ? ('depth' as const) : ('wall' as const),
  faces: side?.faces ?? [],
})

/** How far out the body goes at a place along the axis. */
function surfaceAt(x: number, { section }: Host): number | undefined {
  const far = 1 + Math.max(...edgesOf(section).flatMap((e) => [e.piece.from.y, e.piece.to.y]))
  const [first] = materialAlong(section, vec(x, far), vec(0, -1), far)
  return first && far - first[0]
}

function crossFeature(
  holes: readonly CrossHole[],
  start: number,
  range: number | undefined,
  host: Host,
): Feature {
  const [first] = holes
  if (!first) throw new Error('there is no hole')
  const { units, section, body } = host
  const turn = (angle: number): string => figureOf(angle, 'angle', units)
  const step: NewStep = {
    ...PLAIN,
    ...{ body, way: 'cross', on: '', layout: 'circle', count: String(holes.length) },
    start: start === 0 ? '' : turn(start),
    range: range === undefined ? '' : turn(range),
    distance: figureOf(first.at - extentOf(section)[0], 'length', units),
    ...shapeOf(first.drill, first.reach, host),
  }
  return { kind: 'cross hole', count: holes.length, step, faces: holes.flatMap((h) => h.faces) }
}
