import { fail, succeed, type Result } from '../../result'
import {
  add,
  asFrame,
  asThrough,
  controlOf,
  distance,
  evenSpline,
  fittedSpline,
  scale,
  spanCount,
  splinePieces,
  unit,
  withoutPlace,
  type Fitted,
  type Spline,
  type Vec,
} from '../../geometry'
import {
  AXIS_ID,
  directionAt,
  legAt,
  locator,
  nearestOf,
  pointsOf,
  splineOf,
  type Role,
  type Sketch,
  type SketchSpline,
} from '../../sketch'
import { describeItem, referencesOf, type NewConstraint } from '../../constraints'
import type { Part } from '../../part'
import { VERTEX_TOLERANCE } from '../../tolerances'
import { withSketch, type Command } from '../command'
import { changed, moved, putIn, withPoint } from './curvePoints'
import { placeDraft, withTiesThatFit } from './draft'
import type { End } from './ends'
import { takeId } from './ids'
import { without } from './remove'

/** An edit of a free curve of many places: the sketch changed, with ties to try. */
interface Edited {
  readonly sketch: Sketch
  readonly ties: readonly NewConstraint[]
}

function curveCommand(
  label: string,
  sketchId: string,
  id: string,
  edit: (sketch: Sketch, curve: SketchSpline) => Result<Edited>,
): Command {
  return {
    label,
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      const curve = sketch?.entities.find((e) => e.id === id)
      if (!sketch || curve?.kind !== 'spline') {
        return fail('curve.none', 'This is no free curve of many places.', 'Pick one.')
      }
      const edited = edit(sketch, curve)
      if (!edited.ok) return edited
      return succeed(
        withTiesThatFit(withSketch(part, edited.value.sketch), sketchId, edited.value.ties),
      )
    },
  }
}

/** A free curve as it is drawn: its places in order. */
export interface NewCurve {
  readonly sketch: string
  readonly way: SketchSpline['way']
  /** At least two. */
  readonly places: readonly End[]
  readonly role: Role
  /** Whether it leaves the axis squarely where it ends there, so that it turns to no tip. */
  readonly square: boolean
}

/**
 * Draws a free curve of many places. From a loose end of another one of its way it goes on as the same curve.
 */
export function drawCurve(curve: NewCurve): Command {
  const { sketch: sketchId, way, role } = curve
  return {
    label: 'draw curve',
    run: (part) => {
      const sketch = part.sketches.find((s) => s.id === sketchId)
      if (!sketch) return fail('sketch.gone', 'This profile is gone.', 'Choose another profile.')
      const places = curve.places.filter((p, i) => i === 0 || !isOne(p, curve.places[i - 1]))
      if (places.length < 2) {
        return fail('curve.short', 'A curve takes two places or more.', 'Click another one.')
      }
      const names = places.map((_, i) => `~${i}`)
      const points = Object.fromEntries(places.map((p, i) => [`~${i}`, p]))
      const entity: SketchSpline = {
        ...{ id: '~curve', kind: 'spline', way, role, fromHandle: '', toHandle: '' },
        ...{ from: '~0', to: names.at(-1) ?? '~0', by: names.slice(1, -1) },
        spans: evenSpline(
          way,
          places.map((p) => p.at),
        ).spans,
      }
      const drawn = placeDraft(part, sketchId, { points, entities: [entity] })
      if (!drawn.ok) return drawn
      const id = drawn.value.ids.get('~curve') ?? ''
      const before = looseCurve(sketch, places[0], way)
      const joined = before ? goneOn(drawn.value.part, sketchId, before, id) : drawn.value.part
      if (!curve.square) return succeed(joined)
      const own = before?.id ?? id
      const ends = [before ? undefined : places[0], places.at(-1)]
      return ends.reduce<Result<Part>>((result, end, i) => {
        if (!result.ok || !end || !isOnAxis(end)) return result
        const point = drawn.value.ids.get(i === 0 ? '~0' : (names.at(-1) ?? ''))
        return setCurveEnd(sketchId, own, point ?? '', 'square').run(result.value)
      }, succeed(joined))
    },
  }
}

/** Whether a place was put onto the axis, or onto a point there. */
const isOnAxis = ({ at, on, point }: End): boolean =>
  Math.abs(at.y) <= VERTEX_TOLERANCE && (on?.includes(AXIS_ID) === true || point !== undefined)

/** Whether two places of a new curve are one. */
const isOne = (a: End, b: End | undefined): boolean =>
  b !== undefined && distance(a.at, b.at) <= VERTEX_TOLERANCE

/** The free curve of a way that ends loosely at a place, and can go on from there. */
function looseCurve(
  sketch: Sketch,
  end: End | undefined,
  way: SketchSpline['way'],
): SketchSpline | undefined {
  const at = sketch.entities.filter((e) => pointsOf(e).includes(end?.point ?? ''))
  const [only, ...more] = at
  if (only?.kind !== 'spline' || more.length > 0 || only.way !== way) return undefined
  const handle = only.from === end?.point ? only.fromHandle : only.toHandle
  return [only.from, only.to].includes(end?.point ?? '') && handle === '' ? only : undefined
}

/** The part with two curves that share an end as one, the first going on as the second. */
function goneOn(part: Part, sketchId: string, first: SketchSpline, secondId: string): Part {
  const sketch = part.sketches.find((s) => s.id === sketchId)
  const second = sketch?.entities.find((e) => e.id === secondId)
  if (!sketch || second?.kind !== 'spline') return part
  const atEnd = first.to === second.from
  const [head, tail] = atEnd
    ? [[first.from, ...first.by, first.to], second.by]
    : [
        [second.to, ...[...second.by].reverse()],
        [first.from, ...first.by],
      ]
  const points = atEnd ? [...head, ...tail, second.to] : [...head, ...tail, first.to]
  const fresh = Array.from(
    { length: spanCount(first.way, points.length) - first.spans.length },
    () => 1,
  )
  const whole: SketchSpline = {
    ...first,
    ...{ from: points[0] ?? first.from, to: points.at(-1) ?? first.to, by: points.slice(1, -1) },
    spans: atEnd ? [...first.spans, ...fresh] : [...fresh, ...first.spans],
  }
  const entities = sketch.entities.flatMap((e) =>
    e.id === first.id ? [whole] : e.id === secondId ? [] : [e],
  )
  return withSketch(part, { ...sketch, entities })
}

/** Puts a point into a curve where it is nearest to a place; its shape stays. */
export function putPointIn(sketchId: string, id: string, place: Vec): Command {
  return curveCommand('add curve point', sketchId, id, (sketch, curve) => {
    const put = putIn(sketch, curve, place)
    return put.ok ? succeed({ sketch: put.value.sketch, ties: [] }) : put
  })
}

/** Takes a point out of a curve, which goes on through or over the others. */
export function takePointOut(sketchId: string, id: string, point: string): Command {
  return curveCommand('remove curve point', sketchId, id, (sketch, curve) => {
    const index = curve.by.indexOf(point)
    if (index < 0) {
      return fail(
        'curve.end',
        'An end of a curve is not taken out.',
        'Move it, or delete the curve.',
      )
    }
    const shared = sketch.entities.some((e) => e.id !== id && pointsOf(e).includes(point))
    if (!shared) return succeed({ sketch: without(sketch, new Set([point])), ties: [] })
    // What else stands on the point keeps it.
    const { spans } = withoutPlace(splineOf(curve, locator(sketch)), index + 1)
    const next = { ...curve, by: curve.by.filter((p) => p !== point), spans }
    return succeed({ sketch: changed(sketch, curve, next), ties: [] })
  })
}

/** Turns a curve through its points into one over a frame, or back; its shape stays. */
export function turnWay(sketchId: string, id: string): Command {
  return curveCommand('change curve points', sketchId, id, (sketch, curve) => {
    const locate = locator(sketch)
    const before = splineOf(curve, locate)
    if (splinePieces(before).length === 0) return noLength
    const spline = before.way === 'through' ? asFrame(before) : asThrough(before)
    return succeed({ sketch: drawnAnew(sketch, curve, spline), ties: [] })
  })
}

const noLength: Result<never> = fail(
  'curve.zero',
  'This curve has no length.',
  'Move its points apart.',
)

/**
 * The curve as another spline between the same ends, with inner points of its own. Points that tell its directions at
 * its ends stay what they are, so that what holds them does.
 */
function drawnAnew(sketch: Sketch, curve: SketchSpline, spline: Spline): Sketch {
  let here = sketch
  const put = (place: Vec, known: string): string => {
    if (known !== '') {
      here = moved(here, new Map([[known, place]]))
      return known
    }
    const made = withPoint(here, place)
    here = made.sketch
    return made.id
  }
  const legs = curve.way === spline.way ? [legAt(curve, true), legAt(curve, false)] : ['', '']
  const [first = '', last = ''] = legs
  const inner = spline.places.slice(1, -1)
  const isFrame = spline.way === 'frame'
  const by = inner.map((place, i) => {
    const known =
      isFrame && inner.length > 1 ? (i === 0 ? first : i === inner.length - 1 ? last : '') : ''
    return put(place, curve.by.includes(known) ? known : '')
  })
  const [start, end] = spline.ends
  const next: SketchSpline = {
    ...curve,
    ...{ way: spline.way, by, spans: spline.spans },
    fromHandle: start ? put(start, isFrame ? '' : first) : '',
    toHandle: end ? put(end, isFrame ? '' : last) : '',
  }
  return changed(here, curve, next)
}

/** So many places a curve is given at most by a number that is typed. */
export const MOST_PLACES = 200

/** The fewest places of a curve that is fitted anew: with fewer over a frame it would be no cubic. */
export const leastPlaces = (way: SketchSpline['way']): number => (way === 'through' ? 2 : 4)

/** The curve nearest to one with so many points; undefined where there is none. */
export const refitted = (sketch: Sketch, curve: SketchSpline, count: number): Fitted | undefined =>
  fittedSpline(splineOf(curve, locator(sketch)), count)

/**
 * Gives a curve as many points as one asks, and the shape that is nearest to what it had; its ends and directions there
 * stay. How far it departs is told by {@link refitted}.
 */
export function setPointCount(sketchId: string, id: string, count: number): Command {
  return curveCommand('change curve points', sketchId, id, (sketch, curve) => {
    const least = leastPlaces(curve.way)
    if (!Number.isInteger(count) || count < least || count > MOST_PLACES) {
      return fail(
        'curve.count',
        `A curve ${curve.way === 'through' ? 'through its points' : 'over their frame'} has ${least} points or more.`,
        `Type a whole number from ${least} to ${MOST_PLACES}.`,
      )
    }
    const legs = new Set([legAt(curve, true), legAt(curve, false)])
    const inner = new Set(curve.by.filter((p) => !legs.has(p)))
    const stands = [...sketch.constraints, ...sketch.sizes].find((item) =>
      referencesOf(item).some((r) => inner.has(r)),
    )
    const shared = sketch.entities.some((e) => e.id !== id && pointsOf(e).some((p) => inner.has(p)))
    if (stands || shared) {
      const what = stands ? describeItem(sketch, stands) : 'another piece'
      return fail(
        'curve.held',
        `Its points are held: ${what}.`,
        'Delete what stands on them first, or take single points out.',
      )
    }
    const fitted = refitted(sketch, curve, count)
    return fitted
      ? succeed({ sketch: drawnAnew(sketch, curve, fitted.spline), ties: [] })
      : noLength
  })
}

/** Divides a curve at a place into two that keep its shape: through places, they go on smoothly. */
export function splitSpline(sketch: Sketch, curve: SketchSpline, place: Vec): Result<Edited> {
  const locate = locator(sketch)
  if (curve.way === 'frame') {
    // Its points are moved by what divides it: as one through places it keeps them.
    const through = drawnAnew(sketch, curve, asThrough(splineOf(curve, locate)))
    const again = through.entities.find((e) => e.id === curve.id)
    return again?.kind === 'spline' ? splitSpline(through, again, place) : noLength
  }
  const near = nearestOf(curve, locate, place)
  if (!near) return noLength
  const at = curve.by.findIndex(
    (p) => distance(locate(p), place) <= VERTEX_TOLERANCE || (isAtEnd(near.t) && isSame(locate(p))),
  )
  function isSame(p: Vec): boolean {
    return near !== undefined && distance(p, near.t < 0.5 ? near.piece.from : near.piece.to) === 0
  }
  if (at >= 0) return succeed(dividedAt(sketch, curve, at))
  const put = putIn(sketch, curve, place)
  if (!put.ok) return fail('split.end', 'This is its end.', 'Click somewhere between its ends.')
  return succeed(dividedAt(put.value.sketch, put.value.curve, put.value.index - 1))
}

const isAtEnd = (t: number): boolean => t <= 1e-6 || t >= 1 - 1e-6

/** A curve through places as two that end at one of its inner points. */
function dividedAt(sketch: Sketch, curve: SketchSpline, inner: number): Edited {
  const pieces = splinePieces(splineOf(curve, locator(sketch)))
  const point = curve.by[inner] ?? ''
  const [before, behind] = [pieces[inner], pieces[inner + 1]]
  const handles = [before, behind].map((p) => (p?.kind === 'cubic' ? controlOf(p) : undefined))
  const come = withPoint(sketch, handles[0]?.[2] ?? { x: 0, y: 0 })
  const leave = withPoint(come.sketch, handles[1]?.[1] ?? { x: 0, y: 0 })
  const [second, grown] = takeId(leave.sketch, 's')
  const first: SketchSpline = {
    ...curve,
    ...{ to: point, by: curve.by.slice(0, inner), toHandle: come.id },
    spans: curve.spans.slice(0, inner + 1),
  }
  const last: SketchSpline = {
    ...curve,
    ...{ id: second, from: point, by: curve.by.slice(inner + 1), fromHandle: leave.id },
    spans: curve.spans.slice(inner + 1),
  }
  return {
    sketch: changed(grown, curve, first, last),
    ties: [{ kind: 'tangent', curve: second, to: curve.id }],
  }
}

/** What an end of a curve does: go on smoothly from what it meets there, leave the axis squarely, or as it likes. */
export type CurveEnd = 'smooth' | 'square' | 'free'

/** How a curve ends at one of its ends, as constraints have it. */
export function curveEnd(sketch: Sketch, curve: SketchSpline, point: string): CurveEnd {
  const leg = legAt(curve, point === curve.from)
  if (leg === '') return 'free'
  const ends = (id: string): boolean => {
    const found = sketch.entities.find((e) => e.id === id)
    return found !== undefined && pointsOf(found).includes(point)
  }
  for (const c of sketch.constraints) {
    const isSquare = c.kind === 'inLine' && c.along === 'radial'
    if (isSquare && [c.a, c.b].includes(point) && [c.a, c.b].includes(leg)) return 'square'
    if (c.kind !== 'tangent') continue
    if ((c.curve === curve.id && ends(c.to)) || (c.to === curve.id && ends(c.curve)))
      return 'smooth'
  }
  return 'free'
}

/**
 * Tells how a curve ends. One through places gets a handle there, which shows its direction and can be pulled; over a
 * frame the first leg tells it.
 * @param point the end
 */
export function setCurveEnd(sketchId: string, id: string, point: string, end: CurveEnd): Command {
  return curveCommand('set curve end', sketchId, id, (sketch, curve) => {
    const atStart = point === curve.from
    if (!atStart && point !== curve.to) {
      return fail('curve.noEnd', 'This is no end of the curve.', 'Pick one of its ends.')
    }
    const cleared = freed(sketch, curve, point, atStart)
    if (end === 'free') return succeed({ sketch: cleared.sketch, ties: [] })
    const held = withLeg(cleared.sketch, cleared.curve, atStart)
    if (end === 'square') {
      const tie: NewConstraint = { kind: 'inLine', a: point, b: held.leg, along: 'radial' }
      const locate = locator(held.sketch)
      const up = { x: 0, y: locate(held.leg).y < locate(point).y ? -1 : 1 }
      return succeed({ sketch: ledAlong(held.sketch, point, held.leg, up), ties: [tie] })
    }
    const next = held.sketch.entities.find(
      (e) => e.id !== id && e.kind !== 'circle' && (e.from === point || e.to === point),
    )
    if (!next) {
      return fail('curve.alone', 'Nothing else ends here.', 'Draw on from this end first.')
    }
    const locate = locator(held.sketch)
    const other = next.kind !== 'circle' && next.from === point
    const along = directionAt(next, locate, other ? 'start' : 'end') ?? { x: 1, y: 0 }
    const tie: NewConstraint = { kind: 'tangent', curve: id, to: next.id }
    // Away from what it meets: that stays, and the curve bends to it.
    const away = other ? scale(along, -1) : along
    return succeed({ sketch: ledAlong(held.sketch, point, held.leg, away), ties: [tie] })
  })
}

/** The sketch with the point that tells a curve's direction at an end in a direction from it, as far as it was. */
function ledAlong(sketch: Sketch, end: string, leg: string, along: Vec): Sketch {
  const locate = locator(sketch)
  const reach = distance(locate(end), locate(leg))
  return moved(sketch, new Map([[leg, add(locate(end), scale(along, reach))]]))
}

/** The curve free at one end: its handle is gone, and what held the direction there. */
function freed(
  sketch: Sketch,
  curve: SketchSpline,
  point: string,
  atStart: boolean,
): { readonly sketch: Sketch; readonly curve: SketchSpline } {
  const other = (id: string): boolean => {
    const found = sketch.entities.find((e) => e.id === id)
    return found !== undefined && pointsOf(found).includes(point)
  }
  const leg = curve.way === 'frame' ? (atStart ? curve.by[0] : curve.by.at(-1)) : undefined
  const constraints = sketch.constraints.filter((c) => {
    if (c.kind === 'tangent') {
      const own = c.curve === curve.id ? c.to : c.to === curve.id ? c.curve : undefined
      return own === undefined || !other(own)
    }
    return (
      c.kind !== 'inLine' ||
      leg === undefined ||
      ![c.a, c.b].includes(leg) ||
      ![c.a, c.b].includes(point)
    )
  })
  const next =
    curve.way === 'frame'
      ? curve
      : { ...curve, ...(atStart ? { fromHandle: '' } : { toHandle: '' }) }
  return { sketch: changed({ ...sketch, constraints }, curve, next), curve: next }
}

/** The curve with a point that tells its direction at an end, where it has that direction already. */
function withLeg(
  sketch: Sketch,
  curve: SketchSpline,
  atStart: boolean,
): { readonly sketch: Sketch; readonly leg: string } {
  if (curve.way === 'frame') {
    const inner = atStart ? curve.by[0] : curve.by.at(-1)
    return { sketch, leg: inner ?? (atStart ? curve.to : curve.from) }
  }
  const locate = locator(sketch)
  const [end, next] = atStart
    ? [locate(curve.from), locate(curve.by[0] ?? curve.to)]
    : [locate(curve.to), locate(curve.by.at(-1) ?? curve.from)]
  const along = directionAt(curve, locate, atStart ? 'start' : 'end') ?? { x: 1, y: 0 }
  const reach = (atStart ? 1 : -1) * (distance(end, next) / 3)
  const made = withPoint(sketch, add(end, scale(unit(along), reach)))
  const held: SketchSpline = {
    ...curve,
    ...(atStart ? { fromHandle: made.id } : { toHandle: made.id }),
  }
  return { sketch: changed(made.sketch, curve, held), leg: made.id }
}
