import { LENGTH_ROUNDING, VERTEX_TOLERANCE } from '../../../tolerances'
import { copyMark } from '../../../names'
import { fail, succeed, type Result } from '../../../result'
import { inFrame, line, place, scalePlace, vec } from '../../../geometry'
import { extentOf, greatestRadius, materialAlong, type Section } from '../../../section'
import {
  lookingAlong,
  lookingIn,
  outlineOf,
  outwards,
  turnedTool,
  type SolidTool,
} from '../../../solid'
import { endPlane, holePlaces, isEndSketch } from '../../../sketch'
import type { HolesStep } from '../../../part'
import {
  material,
  positive,
  told,
  wholeCount,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import {
  angleOr,
  anglesOf,
  squareFace,
  lengthOr,
  lengthwiseFace,
  placeOfEdge,
} from '../../steps/common'
import { holeGrips } from './grips'
import { holeSizes, holeThreads, type Head, type Site } from './words'

/** Drills holes along the axis beside it, or across it from outside. */
export function holes(step: HolesStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const diameter = positive(context, step.diameter, 'length', 'diameter')
  if (!diameter.ok) return diameter
  const head = headOf(step, context, diameter.value)
  if (!head.ok) return head
  const widest = Math.max(diameter.value, head.value?.diameter ?? 0)
  const sites =
    step.way === 'end'
      ? endSites(step, context, before.value, diameter.value)
      : crossSites(step, context, before.value, diameter.value)
  if (!sites.ok) return sites
  const tip = tipOf(step, context, diameter.value)
  if (!tip.ok) return tip
  const tools: SolidTool[] = []
  for (const site of sites.value.all) {
    const outline = drillOf(step, site, diameter.value / 2, head.value, tip.value)
    if (!outline.ok) return outline
    const mark = sites.value.all.length > 1 ? copyMark(site.number) : ''
    tools.push(turnedTool(outline.value, site.frame, mark))
  }
  const all = sites.value.all
  const threads = holeThreads(step, all, head.value)
  const bare = threads.some((t) => 2 * t.radius <= diameter.value)
  const notes = [
    ...sites.value.notes,
    ...overlapNotes(step, all, widest, context),
    ...(bare
      ? [
          `Holes of ⌀${told(context, diameter.value)} leave nothing to cut ${step.thread.trim()} into.`,
        ]
      : []),
  ]
  return worked(context, step.body, [{ kind: 'combine', step: step.id, effect: 'cut', tools }], {
    notes,
    told: {
      sizes: holeSizes(step, context, all, diameter.value, head.value),
      ...{ threads, grips: holeGrips(step, context, all) },
    },
  })
}

interface Sites {
  readonly all: readonly Site[]
  readonly notes: readonly string[]
}

/** Beyond what it goes through, in mm. */
const CLEAR = 0.5

function endSites(
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

function crossSites(
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

function headOf(step: HolesStep, context: StepContext, diameter: number): Result<Head | undefined> {
  if (step.head === 'none') return succeed(undefined)
  const wide = positive(context, step.headDiameter, 'length', `diameter of the ${step.head}`)
  if (!wide.ok) return wide
  if (wide.value <= diameter) {
    return fail(
      'holes.head',
      `The ${step.head} is no wider than the hole.`,
      `Type more than ${told(context, diameter)}.`,
    )
  }
  if (step.head !== 'countersink') {
    const depth = positive(context, step.headDepth, 'length', `depth of the ${step.head}`)
    return depth.ok ? succeed({ kind: step.head, diameter: wide.value, depth: depth.value }) : depth
  }
  const angle = positive(context, step.headAngle, 'angle', 'angle of the countersink')
  if (!angle.ok) return angle
  if (angle.value >= Math.PI) {
    return fail('holes.sink', 'A countersink is sharper than 180°.', 'Take a counterbore instead.')
  }
  const depth = (wide.value - diameter) / 2 / Math.tan(angle.value / 2)
  return succeed({ kind: 'countersink', diameter: wide.value, depth })
}

function tipOf(step: HolesStep, context: StepContext, diameter: number): Result<number> {
  if (step.reach !== 'depth' || step.tip === 'flat') return succeed(0)
  const angle = positive(context, step.tipAngle, 'angle', 'angle of the tip')
  if (!angle.ok) return angle
  return angle.value < Math.PI
    ? succeed(diameter / 2 / Math.tan(angle.value / 2))
    : fail('holes.tip', 'A tip is sharper than 180°.', 'Choose a flat bottom instead.')
}

/** The outline that is turned about the hole's own axis, from its mouth in. */
function drillOf(
  step: HolesStep,
  { depth, blind, back }: Site,
  radius: number,
  head: Head | undefined,
  tip: number,
): Result<Section> {
  if (head && head.depth >= depth) {
    return fail(
      'holes.headDeep',
      `The ${head.kind} is as deep as the hole.`,
      'Drill deeper, or make its head shallower.',
    )
  }
  const wide = head ? head.diameter / 2 : radius
  // What stands beside the mouth of a spot face is cleared to its whole width.
  const out = head?.kind === 'spotface' ? Math.max(back, head.diameter) : back
  const corners = [
    { at: vec(-out, 0), name: 'axis' },
    { at: vec(-out, wide), name: 'mouth' },
    ...(head
      ? [
          ...(out > 0 || head.kind !== 'countersink' ? [{ at: vec(0, wide), name: 'head' }] : []),
          ...(head.kind === 'countersink' ? [] : [{ at: vec(head.depth, wide), name: 'head' }]),
          { at: vec(head.depth, radius), name: head.kind === 'countersink' ? 'sink' : 'seat' },
        ]
      : []),
    { at: vec(depth, radius), name: 'wall' },
    { at: vec(depth + (blind ? tip : 0), 0), name: tip > 0 ? 'tip' : 'floor' },
  ]
  const distinct = corners.filter((c, i) => {
    const before = corners[i - 1]
    return !before || Math.hypot(c.at.x - before.at.x, c.at.y - before.at.y) > LENGTH_ROUNDING
  })
  // Each corner is named after the edge that leads to it; the last edge lies on the axis.
  const pieces = distinct.map((c, i) => {
    const next = distinct[(i + 1) % distinct.length] ?? c
    return { piece: line(c.at, next.at), name: next.name }
  })
  return succeed(outlineOf(step.id, [...pieces].reverse().map(backwards)))
}

/** Run the other way round: material of a tool lies left of its outline, as of a section. */
const backwards = (item: {
  readonly piece: ReturnType<typeof line>
  readonly name: string
}): typeof item => ({ ...item, piece: line(item.piece.to, item.piece.from) })

function overlapNotes(
  step: HolesStep,
  sites: readonly Site[],
  widest: number,
  context: StepContext,
): string[] {
  const near = sites.some((a, i) =>
    sites.slice(i + 1).some((b) => {
      const [p, q] = [a.frame.at, b.frame.at]
      return Math.hypot(p.x - q.x, p.y - q.y, p.z - q.z) < widest - LENGTH_ROUNDING
    }),
  )
  return near && step.way === 'end'
    ? [`The holes run into one another: they are ${told(context, widest)} wide.`]
    : []
}
