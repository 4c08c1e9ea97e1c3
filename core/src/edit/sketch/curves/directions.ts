import { fail, succeed, type Result } from '../../../result'
import { asThrough, cubicsOf, distance, joinedCubics, type Cubic } from '../../../geometry'
import {
  isFree,
  locator,
  pointsOf,
  splineOf,
  standsOn,
  type Entity,
  type FreeCurve,
  type Sketch,
  type SketchSpline,
} from '../../../sketch'
import { describeItem, referencesOf, renamed } from '../../../constraints'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import { sketchCommand, type Command } from '../../command'
import { curveCommand, noLength } from './command'
import { without } from '../remove'
import { drawnAnew } from './points'
import { dividedAt } from './shape'

/**
 * Gives a curve a direction of its own at one of its inner places: it is parted there into two that go on smoothly from
 * one another, with a handle on either side. Its shape stays until one of them is pulled.
 * @param point one of the places it passes
 */
export function giveDirection(sketchId: string, id: string, point: string): Command {
  return curveCommand('give direction', sketchId, id, (sketch, curve) => {
    const index = curve.by.indexOf(point)
    if (index < 0) {
      return fail(
        'curve.inner',
        'This is no place between the ends of the curve.',
        'Pick one between them.',
      )
    }
    if (curve.way === 'frame') {
      return fail(
        'curve.pulls',
        'The curve does not pass this point: it is only pulled by it.',
        'Turn it through its points first.',
      )
    }
    const pieces = cubicsOf(splineOf(curve, locator(sketch)))
    return pieces.length === curve.by.length + 1
      ? succeed(dividedAt(sketch, curve, index))
      : noLength
  })
}

/** The two free curves that end at a point where nothing else does; undefined where there are none. */
export function joinedAt(
  sketch: Sketch,
  point: string,
): readonly [FreeCurve, FreeCurve] | undefined {
  const [first, second, ...more] = sketch.entities.filter((e) => standsOn(e).includes(point))
  if (!first || !second || more.length > 0 || !isFree(first) || !isFree(second)) return undefined
  const ends = (e: FreeCurve): boolean => (e.from === point) !== (e.to === point)
  return ends(first) && ends(second) ? [first, second] : undefined
}

/**
 * Makes two free curves that end at a point one curve through all their places, which goes on there in direction and
 * curvature. Where they did already, their shape stays.
 */
export function joinCurves(sketchId: string, point: string): Command {
  return sketchCommand('join curves', sketchId, (sketch): Result<Sketch> => {
    const pair = joinedAt(sketch, point)
    if (!pair) {
      return fail(
        'join.none',
        'No two free curves end here by themselves.',
        'Pick the point where two meet.',
      )
    }
    const ids = pair.map((e) => e.id)
    const held = heldWhole(sketch, ids)
    if (held !== undefined) {
      return fail('join.held', `They are held each by itself: ${held}.`, 'Delete that first.')
    }
    const led = pair.reduce(throughPlaces, sketch)
    const [one, two] = ids.map((id) => led.entities.find((e) => e.id === id))
    if (one?.kind !== 'spline' || two?.kind !== 'spline') return noLength
    const first = one.to === point ? one : turnedRound(one)
    const second = two.from === point ? two : turnedRound(two)
    const joined = endToEnd(led, first, second)
    return joined ? succeed(asOne(led, one, two, joined)) : noLength
  })
}

/** What holds one of some curves as a whole, in words: neither its ends, nor a place on it. */
function heldWhole(sketch: Sketch, ids: readonly string[]): string | undefined {
  const beside = sketch.entities.find((e) => e.kind === 'parallel' && ids.includes(e.of))
  if (beside) return 'something follows beside one of them'
  const goesOn = new Set<string>(['tangent', 'curvature', 'pointOn'])
  const item = [...sketch.constraints, ...sketch.sizes].find(
    (i) => !goesOn.has(i.kind) && referencesOf(i).some((r) => ids.includes(r)),
  )
  return item && describeItem(sketch, item)
}

/** The sketch with a free curve as one through places, of the same shape. */
function throughPlaces(sketch: Sketch, curve: FreeCurve): Sketch {
  if (curve.kind === 'spline') {
    if (curve.way === 'through') return sketch
    return drawnAnew(sketch, curve, asThrough(splineOf(curve, locator(sketch))))
  }
  const { id, from, to, fromHandle, toHandle, role } = curve
  const spline: SketchSpline = {
    ...{ id, kind: 'spline', way: 'through', from, to, by: [], fromHandle, toHandle, role },
    spans: [1],
  }
  return { ...sketch, entities: sketch.entities.map((e): Entity => (e === curve ? spline : e)) }
}

const turnedRound = (curve: SketchSpline): SketchSpline => ({
  ...curve,
  ...{ from: curve.to, to: curve.from },
  ...{ fromHandle: curve.toHandle, toHandle: curve.fromHandle },
  by: [...curve.by].reverse(),
  spans: [...curve.spans].reverse(),
})

/** Two curves of which the second begins where the first ends as one; undefined where one has no length. */
function endToEnd(
  sketch: Sketch,
  first: SketchSpline,
  second: SketchSpline,
): SketchSpline | undefined {
  const locate = locator(sketch)
  const [one, two] = [first, second].map((e) => cubicsOf(splineOf(e, locate)))
  const [comes, leaves] = [one?.at(-1), two?.[0]]
  if (!comes || !leaves) return undefined
  // Where the curvature goes on, the parameter of the second runs so that the speed does too: then the shape stays.
  const runs = (curve: SketchSpline, cubic: Cubic, i: number): number =>
    (curve.spans.at(i) ?? 1) * Math.sqrt(distance(cubic[0], cubic[3]))
  const speeds = distance(leaves[0], leaves[1]) / distance(comes[2], comes[3])
  const isSmooth = joinedCubics([comes, leaves], VERTEX_TOLERANCE).length === 1
  const factor = (runs(first, comes, -1) * speeds) / runs(second, leaves, 0)
  const share = isSmooth && Number.isFinite(factor) && factor > 0 ? factor : 1
  return {
    ...first,
    to: second.to,
    by: [...first.by, first.to, ...second.by],
    toHandle: second.toHandle,
    spans: [...first.spans, ...second.spans.map((s) => s * share)],
  }
}

/** The sketch with one curve in the place of two; what held an end of the second holds that of the one. */
function asOne(sketch: Sketch, one: SketchSpline, two: SketchSpline, joined: SketchSpline): Sketch {
  const rename = (id: string): string => (id === two.id ? one.id : id)
  const constraints = sketch.constraints
    .map((c) => renamed(c, rename))
    .filter((c) => !('curve' in c && 'to' in c && c.curve === c.to))
  const single = {
    ...sketch,
    constraints,
    entities: sketch.entities.flatMap((e): readonly Entity[] =>
      e.id === two.id ? [] : e.id === one.id ? [joined] : [e],
    ),
  }
  // Handles on either side of the place go with what held them.
  const kept = new Set(pointsOf(joined))
  return without(single, new Set([one, two].flatMap(pointsOf).filter((p) => !kept.has(p))))
}
