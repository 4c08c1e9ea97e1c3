import { fail, succeed, type Result } from '../../../result'
import {
  asFrame,
  asThrough,
  controlOf,
  distance,
  fittedSpline,
  smoothedSpline,
  splinePieces,
  withoutPlace,
  type Fitted,
  type Vec,
} from '../../../geometry'
import {
  legAt,
  locator,
  nearestOf,
  standsOn,
  splineOf,
  type Sketch,
  type SketchSpline,
} from '../../../sketch'
import { describeItem, referencesOf } from '../../../constraints'
import { lastFor, once } from '../../../once'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import type { Command } from '../../command'
import { takeId } from '../ids'
import { without } from '../remove'
import { curveCommand, noLength, type Edited } from './command'
import { curveEnd } from './ends'
import { changed, drawnAnew, putIn, withPoint } from './points'

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
    const shared = sketch.entities.some((e) => e.id !== id && standsOn(e).includes(point))
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

/** So many places a curve is given at most by a number that is typed. */
export const MOST_PLACES = 200

/** The fewest places of a curve that is fitted anew: with fewer over a frame it would be no cubic. */
const leastPlaces = (way: SketchSpline['way']): number => (way === 'through' ? 2 : 4)

/** The curve nearest to one with so many points; undefined where there is none. */
export const refitted = (sketch: Sketch, curve: SketchSpline, count: number): Fitted | undefined =>
  fitsIn(sketch)(curve, count)

/** Shown, told and taken, it is one fit. */
const fitsIn = once((sketch: Sketch) =>
  lastFor((curve: SketchSpline, count: number) =>
    fittedSpline(splineOf(curve, locator(sketch)), count),
  ),
)

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
    return shapedAnew(sketch, curve, refitted(sketch, curve, count))
  })
}

/** The curve with its waves shorter than a length in mm smoothed out; undefined where there is none. */
export const smoothed = (sketch: Sketch, curve: SketchSpline, wave: number): Fitted | undefined =>
  smoothedIn(sketch)(curve, wave)

const smoothedIn = once((sketch: Sketch) =>
  lastFor((curve: SketchSpline, wave: number) => {
    const keeps = (point: string): boolean => curveEnd(sketch, curve, point) !== 'free'
    const spline = splineOf(curve, locator(sketch))
    return smoothedSpline(spline, wave, [keeps(curve.from), keeps(curve.to)])
  }),
)

/**
 * Smooths waves out of a curve that are shorter than a length; its ends stay, and how many points it has. How far it
 * departs is told by {@link smoothed}.
 * @param wave in mm along the curve
 */
export function smoothCurve(sketchId: string, id: string, wave: number): Command {
  return curveCommand('smooth curve', sketchId, id, (sketch, curve) => {
    if (!(wave > 0)) {
      return fail('curve.wave', 'Waves have a length.', 'Type a length greater than zero.')
    }
    return shapedAnew(sketch, curve, smoothed(sketch, curve, wave))
  })
}

/** A curve in another shape, unless something stands on its points. */
function shapedAnew(
  sketch: Sketch,
  curve: SketchSpline,
  fitted: Fitted | undefined,
): Result<Edited> {
  const legs = new Set([legAt(curve, true), legAt(curve, false)])
  const inner = new Set(curve.by.filter((p) => !legs.has(p)))
  const stands = [...sketch.constraints, ...sketch.sizes].find((item) =>
    referencesOf(item).some((r) => inner.has(r)),
  )
  const shared = sketch.entities.some(
    (e) => e.id !== curve.id && standsOn(e).some((p) => inner.has(p)),
  )
  if (stands || shared) {
    const what = stands ? describeItem(sketch, stands) : 'another piece'
    return fail(
      'curve.held',
      `Its points are held: ${what}.`,
      'Delete what stands on them first, or take single points out.',
    )
  }
  return fitted ? succeed({ sketch: drawnAnew(sketch, curve, fitted.spline), ties: [] }) : noLength
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
export function dividedAt(sketch: Sketch, curve: SketchSpline, inner: number): Edited {
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
