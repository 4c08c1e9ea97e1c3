import { VERTEX_TOLERANCE } from '../../../tolerances'
import { fail, succeed, type Result } from '../../../result'
import { inFrame, place, scalePlace, vec } from '../../../geometry'
import { extentOf, greatestRadius, materialAlong, type Section } from '../../../section'
import { lookingAlong, lookingIn, outwards } from '../../../solid'
import { endPlane, holePlaces, isEndSketch } from '../../../sketch'
import type { HolesStep } from '../../../part'
import { positive, told, wholeCount, type StepContext } from '../../steps/context'
import {
  angleOr,
  anglesOf,
  squareFace,
  lengthOr,
  lengthwiseFace,
  placeOfEdge,
} from '../../steps/common'
import type { Site } from './words'

/** Where the holes of a step are, and what is worth saying of that. */
export interface Sites {
  readonly all: readonly Site[]
  readonly notes: readonly string[]
}

/** Beyond what it goes through, in mm. */
const CLEAR = 0.5

/** Along the axis, from a face square to it. */
export function endSites(
  step: HolesStep,
  context: StepContext,
  section: Section,
  diameter: number,
): Result<Sites> {
  const face = squareFace(context, step.body, step.on, 'The face of these holes')
  if (!face.ok) return face
  const places = placesOf(step, context)
  if (!places.ok) return places
  const { at, ring, way } = face.value
  const [from, to] = extentOf(section)
  const whole = way === 1 ? to - at : at - from
  const notes = new Set<string>()
  const all: Site[] = []
  for (const { number, radius, angle } of places.value) {
    const [low, high] = [radius - diameter / 2, radius + diameter / 2]
    if (ring && (low >= ring.outer || high <= ring.inner)) {
      return fail(
        'holes.off',
        `Hole ${number} misses the face, which goes from ⌀${told(context, 2 * ring.inner)} to ⌀${told(context, 2 * ring.outer)}.`,
        'Change its diameter of place, or pick another face.',
      )
    }
    if (ring && (high > ring.outer || low < ring.inner)) {
      notes.add('A hole runs over the edge of its face.')
    }
    const depth = depthAlong(step, context, () =>
      wallAlong(section, at, way, [low, radius, high], whole),
    )
    if (!depth.ok) return depth
    const centre = scalePlace(outwards(angle), radius)
    all.push({
      number,
      frame: lookingAlong(place(centre.x, centre.y, at), way, angle),
      depth: depth.value === 'through' ? whole + CLEAR : depth.value,
      blind: step.reach === 'depth',
      back: 0,
    })
  }
  return succeed({ all, notes: [...notes] })
}

/** How deep: a figure, or right through. */
function depthAlong(
  step: HolesStep,
  context: StepContext,
  wall: () => number,
): Result<number | 'through'> {
  switch (step.reach) {
    case 'depth':
      return positive(context, step.depth, 'length', 'depth')
    case 'wall':
      return succeed(wall() + CLEAR)
    case 'through':
    case 'axis':
      return succeed('through')
  }
}

/** How far the first wall behind a face goes, over the breadth of a hole. */
function wallAlong(
  section: Section,
  at: number,
  way: 1 | -1,
  radii: readonly number[],
  whole: number,
): number {
  const ends = radii.map((r) => {
    const [first] = materialAlong(section, vec(at, Math.abs(r)), vec(way, 0), whole + 1)
    return first?.[1] ?? 0
  })
  return Math.max(...ends)
}

interface PolarSite {
  readonly number: number
  readonly radius: number
  readonly angle: number
}

function placesOf(step: HolesStep, context: StepContext): Result<PolarSite[]> {
  if (step.layout === 'places') {
    if (step.places.length === 0) {
      return fail('holes.none', 'There is no hole yet.', 'Add a place in the step card.')
    }
    const found: PolarSite[] = []
    for (const [i, own] of step.places.entries()) {
      const diameter = context.number(own.diameter, 'length', `diameter of place ${i + 1}`)
      if (!diameter.ok) return diameter
      const angle = context.number(own.angle, 'angle', `angle of place ${i + 1}`)
      if (!angle.ok) return angle
      found.push({ number: i + 1, radius: diameter.value / 2, angle: angle.value })
    }
    return succeed(found)
  }
  if (step.layout === 'sketch') return drawnPlaces(step, context)
  const circle = positive(context, step.circle, 'length', 'pitch circle')
  if (!circle.ok) return circle
  const angles = roundOf(step, context)
  if (!angles.ok) return angles
  return succeed(angles.value.map((a) => ({ ...a, radius: circle.value / 2 })))
}

/** The places that an end sketch gives. */
function drawnPlaces(step: HolesStep, context: StepContext): Result<PolarSite[]> {
  const sketch = context.sketch(step.sketch)
  if (!sketch || !isEndSketch(sketch) || !context.sketchState(step.sketch)) {
    return fail('holes.sketch', 'The end sketch of these holes is gone.', 'Choose another one.')
  }
  const drawn = holePlaces(sketch)
  if (drawn.length === 0) {
    return fail(
      'holes.none',
      `Sketch ${sketch.name} has no free points and no circles yet.`,
      'Draw a point where a hole goes.',
    )
  }
  const plane = endPlane(context.lie, sketch.plane)
  return succeed(
    drawn.map(({ x, y }, i) => {
      const at = inFrame(plane, place(x, y, 0))
      return { number: i + 1, radius: Math.hypot(at.x, at.y), angle: Math.atan2(at.y, at.x) }
    }),
  )
}

/** The angles of holes round the axis, without those that are skipped. */
function roundOf(
  step: HolesStep,
  context: StepContext,
): Result<readonly { readonly number: number; readonly angle: number }[]> {
  const count = wholeCount(context, step.count, 'number of holes')
  if (!count.ok) return count
  const start = angleOr(context, step.start, 0, 'start angle')
  if (!start.ok) return start
  const range = step.range.trim() === '' ? undefined : context.number(step.range, 'angle', 'range')
  if (range?.ok === false) return range
  const all = anglesOf(count.value, start.value, range?.value)
    .map((angle, i) => ({ number: i + 1, angle }))
    .filter((a) => !step.skip.includes(a.number))
  return all.length > 0
    ? succeed(all)
    : fail('holes.none', 'All holes are left out.', 'Take one of them in again.')
}

/** Across the axis, from outside. */
export function crossSites(
  step: HolesStep,
  context: StepContext,
  section: Section,
  diameter: number,
): Result<Sites> {
  const [left, right] = extentOf(section)
  const host =
    step.on === '' ? undefined : lengthwiseFace(section, step.on, 'The face of these holes')
  if (host?.ok === false) return host
  const distance = lengthOr(context, step.distance, 0, 'distance')
  if (!distance.ok) return distance
  const origin =
    step.from === '' ? succeed(left) : placeOfEdge(section, step.from, host?.value.from ?? left)
  if (!origin.ok) return origin
  const at = origin.value + distance.value
  if (at + diameter / 2 <= left || at - diameter / 2 >= right) {
    return fail(
      'holes.off',
      `The holes at ${told(context, at)} miss the body, which goes from ${told(context, left)} to ${told(context, right)}.`,
      'Change their distance.',
    )
  }
  const angles = roundOf(step, context)
  if (!angles.ok) return angles
  const outside = greatestRadius(section)
  const across = (x: number): readonly (readonly [number, number])[] =>
    materialAlong(section, vec(x, outside + 1), vec(0, -1), outside + 1)
  const [first] = across(at)
  if (!first) {
    return fail(
      'holes.air',
      `There is no material at ${told(context, at)}.`,
      'Change the distance.',
    )
  }
  // Depths are told from the surface the hole begins at.
  const surface = outside + 1 - first[0]
  const behind = [at - diameter / 2, at, at + diameter / 2].map((x) => across(x)[0]?.[1] ?? 0)
  // What is solid to the axis is one wall to the other side.
  const isSolid = Math.max(...behind) >= outside + 1 - VERTEX_TOLERANCE
  const depth: Result<number | 'through'> =
    isSolid && step.reach === 'wall'
      ? succeed('through')
      : depthAlong(step, context, () => surface - outside - 1 + Math.max(...behind))
  if (!depth.ok) return depth
  const reach = step.reach === 'axis' ? surface : 2 * outside + surface
  const notes =
    at - diameter / 2 < left || at + diameter / 2 > right
      ? ['A hole runs over the end of the body.']
      : []
  return succeed({
    all: angles.value.map(({ number, angle }) => ({
      number,
      frame: lookingIn(angle, at, surface),
      depth: depth.value === 'through' ? reach : depth.value,
      blind: step.reach === 'depth',
      back: outside - surface + CLEAR,
    })),
    notes,
  })
}
