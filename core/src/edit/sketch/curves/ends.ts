import { fail, succeed } from '../../../result'
import {
  add,
  asFrame,
  curvatureAt,
  distance,
  dot,
  lengthOf,
  pointAt,
  scale,
  splinePieces,
  subtract,
  unit,
  type Vec,
} from '../../../geometry'
import {
  bendOf,
  directionAt,
  isFree,
  legAt,
  locator,
  piecesOf,
  pointsOf,
  splineOf,
  type Entity,
  type Sketch,
  type SketchSpline,
} from '../../../sketch'
import type { NewConstraint } from '../../../constraints'
import type { Command } from '../../command'
import { curveCommand, noLength } from './command'
import { changed, drawnAnew, moved, putIn, withPoint } from './points'

/**
 * What an end of a curve does: go on smoothly from what it meets there, bend on as that does too, leave the axis
 * squarely, or as it likes.
 */
export type CurveEnd = 'smooth' | 'bend' | 'square' | 'free'

/** How a curve ends at one of its ends, as constraints have it. */
export function curveEnd(sketch: Sketch, curve: SketchSpline, point: string): CurveEnd {
  const leg = legAt(curve, point === curve.from)
  if (leg === '') return 'free'
  const ends = (id: string): boolean => {
    const found = sketch.entities.find((e) => e.id === id)
    return found !== undefined && pointsOf(found).includes(point)
  }
  const held = sketch.constraints.flatMap((c): CurveEnd[] => {
    const isSquare = c.kind === 'inLine' && c.along === 'radial'
    if (isSquare && [c.a, c.b].includes(point) && [c.a, c.b].includes(leg)) return ['square']
    if (c.kind !== 'tangent' && c.kind !== 'curvature') return []
    const isHere = (c.curve === curve.id && ends(c.to)) || (c.to === curve.id && ends(c.curve))
    return isHere ? [c.kind === 'tangent' ? 'smooth' : 'bend'] : []
  })
  return held.includes('bend') ? 'bend' : (held[0] ?? 'free')
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
    const bending = end === 'bend' ? bendable(cleared.sketch, cleared.curve, atStart) : cleared
    if (!bending) return noLength
    const held = withLeg(bending.sketch, bending.curve, atStart)
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
    const ties: NewConstraint[] = [{ kind: 'tangent', curve: id, to: next.id }]
    if (end === 'bend') {
      if (isFree(next) && !bendOf(next, other)) {
        const mend = 'Turn that over its frame first, or let this end go on smoothly.'
        return fail('curve.bend', 'Nothing tells how the curve it meets bends there.', mend)
      }
      ties.push({ kind: 'curvature', curve: id, to: next.id })
    }
    // Away from what it meets: that stays, and the curve bends to it.
    const away = other ? scale(along, -1) : along
    const led = ledAlong(held.sketch, point, held.leg, away)
    return succeed({ sketch: end === 'bend' ? bentLike(led, id, point, next, other) : led, ties })
  })
}

/** The sketch with the point that tells how a curve bends at an end where it bends as what it meets there. */
function bentLike(
  sketch: Sketch,
  id: string,
  end: string,
  next: Entity,
  nextStarts: boolean,
): Sketch {
  const locate = locator(sketch)
  const curve = sketch.entities.find((e) => e.id === id)
  const bend = curve?.kind === 'spline' ? bendOf(curve, curve.from === end) : undefined
  const pieces = piecesOf(next, locate)
  const piece = nextStarts ? pieces[0] : pieces.at(-1)
  if (!bend || !piece) return sketch
  const leg = subtract(locate(bend.leg), locate(end))
  const left = unit({ x: -leg.y, y: leg.x })
  // The curve runs on from the piece, or against it.
  const curvature = curvatureAt(piece, nextStarts ? 0 : 1) * (nextStarts ? -1 : 1)
  const beside = (curvature * dot(leg, leg)) / bend.share
  const now = dot(left, subtract(locate(bend.next), locate(end)))
  return moved(sketch, new Map([[bend.next, add(locate(bend.next), scale(left, beside - now))]]))
}

/** Between its ends so many points of a frame leave a curve a shape of its own when both ends bend as they are told. */
const ROOM_TO_BEND = 4

/**
 * The curve as one whose bend at an end is told by two of its points: over a frame, with points between its ends;
 * its shape stays. Undefined for a curve without length.
 */
function bendable(
  sketch: Sketch,
  curve: SketchSpline,
  atStart: boolean,
): { readonly sketch: Sketch; readonly curve: SketchSpline } | undefined {
  const isShort = curve.by.length < ROOM_TO_BEND
  if (bendOf(curve, atStart) && !isShort) return { sketch, curve }
  const locate = locator(sketch)
  const spline = splineOf(curve, locate)
  if (splinePieces(spline).length === 0) return undefined
  const framed = curve.way === 'frame' ? sketch : drawnAnew(sketch, curve, asFrame(spline))
  const own = framed.entities.find((e) => e.id === curve.id)
  if (own?.kind !== 'spline') return undefined
  if (own.by.length >= ROOM_TO_BEND) return { sketch: framed, curve: own }
  // In the middle of its longest cubic one more.
  const pieces = piecesOf(own, locator(framed))
  const longest = pieces.reduce((a, b) => (lengthOf(b) > lengthOf(a) ? b : a))
  const put = putIn(framed, own, pointAt(longest, 0.5))
  return put.ok ? bendable(put.value.sketch, put.value.curve, atStart) : undefined
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
  const leg = legAt(curve, atStart)
  const constraints = sketch.constraints.filter((c) => {
    if (c.kind === 'tangent' || c.kind === 'curvature') {
      const own = c.curve === curve.id ? c.to : c.to === curve.id ? c.curve : undefined
      return own === undefined || !other(own)
    }
    return c.kind !== 'inLine' || ![c.a, c.b].includes(leg) || ![c.a, c.b].includes(point)
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
  if (curve.way === 'frame') return { sketch, leg: legAt(curve, atStart) }
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
