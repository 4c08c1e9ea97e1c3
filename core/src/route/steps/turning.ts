import { isFaceName, pointCalled, stepOfFace } from '../../names'
import { fail, succeed, type Result } from '../../result'
import {
  PART_FRAME,
  cross,
  dot,
  inFrame,
  line,
  place,
  pointAt,
  subtract,
  turnedFrame,
  unit,
  vec,
  type Frame,
  type Vec,
  mapped,
} from '../../geometry'
import { combine, edgesOf, withLoops, type Section } from '../../section'
import { isEndSketch, locator, type DrawnSketch } from '../../sketch'
import { endPlane } from '../../sketch'
import { anglesThrough, planeCalled, type SolidTool } from '../../solid'
import { ANGLE_TOLERANCE, VERTEX_TOLERANCE } from '../../tolerances'
import type { RevolveStep, StepEffect } from '../../part'
import type { SizeAt } from '../state'
import { notSound, positive, worked, type Outcome, type StepContext } from './context'
import { angleOr, sizesAt, tell, tellAngle } from './common'

/** What a turn of a profile or of a wall is told by. */
export type Turning = Omit<RevolveStep, 'kind' | 'number' | 'aside' | 'sketch' | 'regions'>

/** Whether a turn takes the solid kernel. */
export const isSolidTurn = (step: Turning): boolean =>
  step.axis !== 'axis' || step.turn.trim() !== '' || step.turnTo !== '' || step.facets.trim() !== ''

/** A part turn, a turn about another axis, or a polygon. */
export function solidTurn(
  step: Turning,
  context: StepContext,
  section: Section,
  sketch: DrawnSketch,
): Result<Outcome> {
  const phase = angleOr(context, step.phase, 0, 'angle')
  if (!phase.ok) return phase
  if (step.facets.trim() !== '') return facets(step, context, section, phase.value)
  const axis = step.axis === 'axis' ? succeed(undefined) : foreignAxis(step, section, sketch)
  if (!axis.ok) return axis
  const turn = turnOf(step, context, phase.value)
  if (!turn.ok) return turn
  const { frame, section: own } = axis.value ?? { frame: PART_FRAME, section }
  const tool: SolidTool = {
    ...{ kind: 'turned', section: own, frame: turnedFrame(frame, phase.value), mark: '' },
    ...(turn.value ? { turn: turn.value } : {}),
  }
  const middle = turn.value ? turn.value.from + turn.value.by / 2 : 0
  const top = highest(own)
  const sizes = sizesAt(
    step.body,
    inFrame(turnedFrame(tool.frame, middle), place(top.y, 0, top.x)),
    [turn.value ? `turned by ${tellAngle(context, turn.value.by)}` : ''],
  )
  return combinedWith(step, context, tool, axis.value ? undefined : section, sizes)
}

/** From which angle on and by how much; undefined for a full turn. */
function turnOf(
  step: Turning,
  context: StepContext,
  phase: number,
): Result<{ readonly from: number; readonly by: number } | undefined> {
  if (step.turnTo !== '') {
    const target = anglesOfTarget(step.turnTo, context)
    if (!target.ok) return target
    const round = 2 * Math.PI
    // A plane through the axis is come to on one side or the other: on the nearer one.
    const turns = target.value.map((angle) => (((angle - phase) % round) + round) % round)
    const by = Math.min(
      ...turns.filter((t) => t > ANGLE_TOLERANCE && t < round - ANGLE_TOLERANCE),
      round,
    )
    return by < round - ANGLE_TOLERANCE
      ? succeed({ from: 0, by })
      : fail(
          'turn.nothing',
          'It begins in the plane that it goes up to.',
          'Begin at another angle.',
        )
  }
  if (step.turn.trim() === '') return succeed(undefined)
  const turn = positive(context, step.turn, 'angle', 'turn')
  if (!turn.ok) return turn
  const back =
    step.side === 'both' ? positive(context, step.back, 'angle', 'turn the other way') : succeed(0)
  if (!back.ok) return back
  const by = turn.value + back.value
  if (by > 2 * Math.PI + ANGLE_TOLERANCE) {
    return fail('turn.much', 'That is more than a full turn.', 'Type at most 360° together.')
  }
  if (by > 2 * Math.PI - ANGLE_TOLERANCE) return succeed(undefined)
  return succeed({ from: step.side === 'symmetric' ? -by / 2 : -back.value, by })
}

/** The angles of a plane through the axis: of a plane face, or through a point. */
function anglesOfTarget(text: string, context: StepContext): Result<readonly number[]> {
  if (isFaceName(text)) return anglesOfFace(text, context)
  const called = pointCalled(text)
  const found = context.sketch(called.sketch)
  const sketch = found && isEndSketch(found) ? found : undefined
  const point = sketch?.points.find((p) => p.id === called.point)
  if (sketch && point && context.sketchState(called.sketch)) {
    const at = inFrame(endPlane(context.lie, sketch.plane), place(point.x, point.y, 0))
    if (Math.hypot(at.x, at.y) > VERTEX_TOLERANCE) return succeed([Math.atan2(at.y, at.x)])
  }
  return targetGone(text)
}

function anglesOfFace(name: string, context: StepContext): Result<readonly number[]> {
  for (const { id } of context.bodies) {
    const plan = context.planOf(id)
    const plane = plan && planeCalled(plan, name)
    if (!plane) continue
    const angles = anglesThrough(plane)
    if (angles.length > 0) return succeed(angles)
    return fail(
      'turn.beside',
      'The face it turns up to does not lie in a plane through the axis.',
      'Pick the end of a part turn, or another face through the axis.',
    )
  }
  return targetGone(name)
}

const targetGone = (text: string): Result<never> =>
  fail(
    'turn.to',
    'What it turns up to is gone.',
    'Choose another end of an earlier part turn, or a point of an end sketch.',
    { involves: [stepOfFace(text)] },
  )

/** A line of the sketch as an axis: its frame, and the section as it is seen from there. */
function foreignAxis(
  step: Turning,
  section: Section,
  sketch: DrawnSketch,
): Result<{ readonly frame: Frame; readonly section: Section }> {
  const entity = sketch.entities.find((e) => e.id === step.axis)
  if (entity?.kind !== 'line') {
    return fail('turn.axis', 'The line to turn about is gone.', 'Choose another axis.')
  }
  const locate = locator(sketch)
  const [start, end] = [locate(entity.from), locate(entity.to)]
  const along = unit(subtract(end, start))
  const heights = edgesOf(section).flatMap(({ piece }) =>
    [piece.from, piece.to].map((p) => cross(along, subtract(p, start))),
  )
  const [low, high] = [Math.min(...heights), Math.max(...heights)]
  if (low < -VERTEX_TOLERANCE && high > VERTEX_TOLERANCE) {
    return fail(
      'turn.across',
      'The profile lies on both sides of the line it turns about.',
      'Move it to one side, or choose another axis.',
    )
  }
  const side = high > VERTEX_TOLERANCE ? 1 : -1
  const out = vec(-side * along.y, side * along.x)
  const seen = (p: Vec): Vec => {
    const from = subtract(p, start)
    return vec(dot(from, along), dot(from, out))
  }
  const frame = {
    at: place(start.y, 0, start.x),
    x: place(out.y, 0, out.x),
    z: place(along.y, 0, along.x),
  }
  const moved = withLoops(section, (loop) =>
    loop.map((e) => ({ ...e, piece: mapped(e.piece, seen, side !== 1) })),
  )
  return succeed({ frame, section: moved })
}

function facets(
  step: Turning,
  context: StepContext,
  section: Section,
  phase: number,
): Result<Outcome> {
  const sides = context.number(step.facets, 'number', 'number of sides')
  if (!sides.ok) return sides
  if (!Number.isInteger(sides.value) || sides.value < 3 || sides.value > 60) {
    return fail('facets.sides', 'A polygon has from 3 to 60 sides.', 'Type a whole number.')
  }
  if (step.turn.trim() !== '' || step.turnTo !== '' || step.axis !== 'axis') {
    return fail(
      'facets.turn',
      'A polygon goes right round the part’s axis.',
      'Take out the turn, or the number of sides.',
    )
  }
  const share = Math.cos(Math.PI / sides.value)
  const straight = edgesOf(section).every((e) => e.piece.kind === 'line')
  if (step.facetTo === 'corners' && !straight) {
    return fail(
      'facets.round',
      'Rounds in the profile keep their shape only when its radii are those of the flats.',
      'Choose “to the flats”, or draw it with straight lines.',
    )
  }
  const flats = step.facetTo === 'corners' ? scaledOut(section, share) : section
  // What it would be as a full turn reaches to the corners, so that later turns take them in.
  const round =
    step.facetTo === 'corners' ? section : straight ? scaledOut(section, 1 / share) : section
  const tool: SolidTool = { kind: 'facets', section: flats, sides: sides.value, phase, mark: '' }
  const top = highest(flats)
  const at = inFrame(turnedFrame(PART_FRAME, phase), place(top.y, 0, top.x))
  const across = 2 * (step.facetTo === 'corners' ? top.y / share : top.y)
  const sizes = sizesAt(step.body, at, [
    `${sides.value} sides, ${tell(context, across)} ${step.facetTo === 'corners' ? 'over corners' : 'across flats'}`,
  ])
  return combinedWith(step, context, tool, round, sizes)
}

/** The place of a section that lies farthest out: the middle of its outermost edge. */
export function highest(section: Section): Vec {
  const middles = edgesOf(section).map(({ piece }) => pointAt(piece, 0.5))
  return middles.reduce((a, b) => (b.y > a.y ? b : a), middles[0] ?? vec(0, 0))
}

/** Radii in another proportion; of straight outlines only. */
function scaledOut(section: Section, share: number): Section {
  const at = (p: Vec): Vec => vec(p.x, p.y * share)
  return withLoops(section, (loop) =>
    loop.map((e) => ({ ...e, piece: line(at(e.piece.from), at(e.piece.to)) })),
  )
}

interface Combining {
  readonly id: string
  readonly effect: StepEffect
  readonly body: string
}

/** Does to its body with a tool what the step says. */
export function combinedWith(
  step: Combining,
  context: StepContext,
  tool: SolidTool,
  round: Section | undefined,
  sizes: readonly SizeAt[],
): Result<Outcome> {
  const meta = context.bodies.find((b) => b.id === step.body)
  if (!meta) return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  const before = context.sectionOf(step.body)
  if (before.regions.length === 0 && step.effect !== 'add') {
    return fail(
      'step.noMaterial',
      `${meta.name} has no material at this step.`,
      'Let the step add, or move it behind one that makes the body.',
    )
  }
  // As a full turn the body has at most what it has and gains; what is cut stays elsewhere round it.
  const after = !round || step.effect === 'cut' ? before : combine(before, round, step.effect)
  if (!after) return notSound
  const ops = [{ kind: 'combine' as const, step: step.id, effect: step.effect, tools: [tool] }]
  return worked(context, step.body, ops, { turned: after, told: { sizes } })
}
