import { fail, succeed, type Result } from '../../../result'
import { distance, withPlace, type PutIn, type Spline, type Vec } from '../../../geometry'
import {
  legAt,
  locator,
  nearestOf,
  pointsOf,
  splineOf,
  type Entity,
  type Sketch,
  type SketchPoint,
  type SketchSpline,
} from '../../../sketch'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import { takeId } from '../ids'
import { without } from '../remove'

/** A new point at a place. */
export function withPoint(
  sketch: Sketch,
  { x, y }: Vec,
): { readonly sketch: Sketch; readonly id: string } {
  const [id, grown] = takeId(sketch, 'p')
  return { id, sketch: { ...grown, points: [...grown.points, { id, x, y }] } }
}

export const moved = (sketch: Sketch, places: ReadonlyMap<string, Vec>): Sketch => ({
  ...sketch,
  points: sketch.points.map((p): SketchPoint => {
    const to = places.get(p.id)
    return to ? { ...p, x: to.x, y: to.y } : p
  }),
})

/** The sketch with a curve in place of one of the same id; points that nothing stands on any more go. */
export function changed(
  sketch: Sketch,
  before: SketchSpline,
  ...after: readonly SketchSpline[]
): Sketch {
  const entities = sketch.entities.flatMap((e): readonly Entity[] =>
    e.id === before.id ? after : [e],
  )
  const held = new Set(entities.flatMap(pointsOf))
  const lost = pointsOf(before).filter((p) => !held.has(p))
  return without({ ...sketch, entities }, new Set(lost))
}

/** The curve with a point more, and the number of that point among its places. */
export function putIn(
  sketch: Sketch,
  curve: SketchSpline,
  place: Vec,
): Result<{ readonly sketch: Sketch; readonly curve: SketchSpline; readonly index: number }> {
  const locate = locator(sketch)
  const spline = splineOf(curve, locate)
  const [first, ...rest] = spline.places
  if (rest.some((p, i) => distance(p, spline.places[i] ?? p) <= VERTEX_TOLERANCE) || !first) {
    return fail('curve.together', 'Two of its points lie on one another.', 'Move them apart first.')
  }
  const near = nearestOf(curve, locate, place)
  const inside = near && near.t > 1e-6 && near.t < 1 - 1e-6
  const put = inside ? withPlace(spline, near.index, near.t) : undefined
  if (!put) {
    return fail('curve.place', 'There is a point already.', 'Click somewhere between its points.')
  }
  const next = taking(sketch, curve, put)
  return succeed({ ...next, index: put.index })
}

/** Takes in what a point that was put in made of the places: those around it move over a frame. */
function taking(
  sketch: Sketch,
  curve: SketchSpline,
  { spline, index, instead }: PutIn,
): { readonly sketch: Sketch; readonly curve: SketchSpline } {
  const ids = [curve.from, ...curve.by, curve.to]
  const fresh = withPoint(sketch, spline.places[index + instead] ?? { x: 0, y: 0 })
  const order = [...ids.slice(0, index + instead), fresh.id, ...ids.slice(index + instead)]
  const places = new Map(order.map((p, i) => [p, spline.places[i] ?? { x: 0, y: 0 }]))
  spline.ends.forEach((end, i) => {
    const handle = i === 0 ? curve.fromHandle : curve.toHandle
    if (end && handle !== '') places.set(handle, end)
  })
  const next: SketchSpline = { ...curve, by: order.slice(1, -1), spans: spline.spans }
  return { sketch: changed(moved(fresh.sketch, places), curve, next), curve: next }
}

/**
 * The curve as another spline between the same ends, with inner points of its own. Points that tell its directions at
 * its ends stay what they are, so that what holds them does.
 */
export function drawnAnew(sketch: Sketch, curve: SketchSpline, spline: Spline): Sketch {
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
  // A handle and the first point of a frame are one and the same.
  const legs = [legAt(curve, true), legAt(curve, false)]
  const isOwn = legs[0] !== legs[1] && legs.every((p) => p !== curve.from && p !== curve.to)
  const [first = '', last = ''] = isOwn ? legs : []
  const inner = spline.places.slice(1, -1)
  const isFrame = spline.way === 'frame'
  const by = inner.map((place, i) => {
    const known = i === 0 ? first : i === inner.length - 1 ? last : ''
    return put(place, isFrame && inner.length > 1 ? known : '')
  })
  const [start, end] = spline.ends
  const next: SketchSpline = {
    ...curve,
    ...{ way: spline.way, by, spans: spline.spans },
    fromHandle: start ? put(start, isFrame ? '' : first) : '',
    toHandle: end ? put(end, isFrame ? '' : last) : '',
  }
  const drawn = changed(here, curve, next)
  if (isFrame || by.length === 0) return drawn
  // Through places no two points tell how it bends at its ends.
  const constraints = drawn.constraints.filter(
    (c) => c.kind !== 'curvature' || (c.curve !== curve.id && c.to !== curve.id),
  )
  return { ...drawn, constraints }
}
