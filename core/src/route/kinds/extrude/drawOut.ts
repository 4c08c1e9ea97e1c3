import { LENGTH_ROUNDING } from '../../../tolerances'
import { fail, succeed, type Result } from '../../../result'
import { inFrame, place, type Frame } from '../../../geometry'
import { edgesOf, extentOf, greatestRadius, type Section } from '../../../section'
import { endPlane } from '../../../sketch'
import { halfPlane, rectangleOf, type SolidTool } from '../../../solid'
import type { ExtrudeStep } from '../../../part'
import { isAcross, type EndPlane, type SketchPlane } from '../../../sketch'
import { positive, type Outcome, type StepContext } from '../../steps/context'
import { angleOr, lengthOr, levelFace, sizesAt, tell, type LevelFace } from '../../steps/common'
import { combinedWith, highest } from '../../steps/turning'

/** Draws a profile out square to its plane: a half-section across the axis, an end sketch along it. */
export function drawOut(
  step: ExtrudeStep,
  context: StepContext,
  outline: Section,
  plane: SketchPlane,
): Result<Outcome> {
  const body = context.sectionOf(step.body)
  const stand = isAcross(plane)
    ? endStand(step, context, body, plane)
    : halfStand(step, context, body)
  if (!stand.ok) return stand
  const ends = endsOf(step, context, stand.value)
  if (!ends.ok) return ends
  const draft = angleOr(context, step.draft, 0, 'draft')
  if (!draft.ok) return draft
  if (Math.abs(draft.value) >= Math.PI / 2) {
    return fail('extrude.draft', 'A draft is less than 90°.', 'Type a few degrees.')
  }
  const { frame, at } = stand.value
  const [from, to] = ends.value
  if (draft.value !== 0 && from < at - LENGTH_ROUNDING && to > at + LENGTH_ROUNDING) {
    return fail(
      'extrude.draftBoth',
      'With a draft it goes to one side only.',
      'Let it go to one side, and extrude again to the other.',
    )
  }
  // Away from the sketch the sides lean in, whichever way that is.
  const lean = to > at + LENGTH_ROUNDING ? draft.value : -draft.value
  const tool: SolidTool = {
    ...{ kind: 'prism', outline, frame, from, to, mark: '' },
    ...(lean === 0 ? {} : { draft: { angle: lean, at } }),
  }
  const has = body.regions.length > 0
  // What it would be as a full turn, for a body that begins with it.
  const round = has
    ? undefined
    : isAcross(plane)
      ? reachOf(step.id, outline, ...sorted(from * frame.z.z, to * frame.z.z))
      : outline
  const top = highest(outline)
  const sizes = sizesAt(step.body, inFrame(frame, place(top.x, top.y, to)), [
    thicknessWords(step, context, from, to),
  ])
  return combinedWith(step, context, tool, round, sizes)
}

/** The plane it begins in: where along the frame's third direction, and which way it goes. */
interface Stand {
  readonly frame: Frame
  readonly at: number
  readonly way: 1 | -1
  /** Beyond all of the body, both ways. */
  readonly far: readonly [number, number]
  /** Where a face lies that it goes up to. */
  readonly faceAt: () => Result<number>
}

function halfStand(step: ExtrudeStep, context: StepContext, body: Section): Result<Stand> {
  const plane = angleOr(context, step.plane, 0, 'angle of the plane')
  if (!plane.ok) return plane
  const offset = lengthOr(context, step.offset, 0, 'offset')
  if (!offset.ok) return offset
  const far = greatestRadius(body) + 1
  const frame = halfPlane(plane.value)
  return succeed({
    ...{ frame, at: offset.value, way: 1 },
    far: [-far, far],
    faceAt: () => targetOf(step, context, frame),
  })
}

function endStand(
  step: ExtrudeStep,
  context: StepContext,
  body: Section,
  plane: EndPlane,
): Result<Stand> {
  const frame = endPlane(context.lie, plane)
  // Seen from the lesser end the axis runs the other way.
  const sign = frame.z.z > 0 ? 1 : -1
  const face =
    step.on === ''
      ? succeed<LevelFace>({ at: 0, way: sign })
      : levelFace(context, step.body, step.on, frame, 'The face of this sketch')
  if (!face.ok) return face
  const offset = lengthOr(context, step.offset, 0, 'offset')
  if (!offset.ok) return offset
  const into = face.value.way
  const [left, right] = body.regions.length > 0 ? extentOf(body) : [0, 0]
  return succeed({
    ...{ frame, at: face.value.at - into * offset.value },
    // Material is added out of the face, and taken from behind it.
    way: step.effect === 'add' && step.on !== '' ? (into === 1 ? -1 : 1) : into,
    far: sorted(sign * (left - 1), sign * (right + 1)),
    faceAt: () => targetOf(step, context, frame),
  })
}

/** Where the face lies that it goes up to. */
function targetOf(step: ExtrudeStep, context: StepContext, frame: Frame): Result<number> {
  if (step.upTo === '') {
    return fail('extrude.upTo', 'The face it goes up to is missing.', 'Pick it in the card.')
  }
  const target = levelFace(context, step.body, step.upTo, frame, 'The face it goes up to')
  return target.ok ? succeed(target.value.at) : target
}

/** From where to where it goes along the frame's third direction. */
function endsOf(
  step: ExtrudeStep,
  context: StepContext,
  { at, way, far, faceAt }: Stand,
): Result<readonly [number, number]> {
  if (step.reach === 'face') {
    const target = faceAt()
    if (!target.ok) return target
    if (Math.abs(target.value - at) < LENGTH_ROUNDING) {
      return fail('extrude.flat', 'It begins on the face it goes up to.', 'Pick another face.')
    }
    return succeed(sorted(at, target.value))
  }
  if (step.reach === 'through') {
    if (step.side !== 'one') return succeed(far)
    return succeed(
      way === 1 ? sorted(at, Math.max(far[1], at + 1)) : sorted(Math.min(far[0], at - 1), at),
    )
  }
  const length =
    step.side === 'one'
      ? context.number(step.length, 'length', 'length')
      : positive(context, step.length, 'length', 'length')
  if (!length.ok) return length
  if (length.value === 0) {
    return fail('extrude.flat', 'The length is nought.', 'Type one; negative goes the other way.')
  }
  if (step.side === 'symmetric') return succeed([at - length.value / 2, at + length.value / 2])
  const back =
    step.side === 'both'
      ? positive(context, step.back, 'length', 'length the other way')
      : succeed(0)
  if (!back.ok) return back
  return succeed(sorted(at - way * back.value, at + way * length.value))
}

const sorted = (a: number, b: number): readonly [number, number] => [Math.min(a, b), Math.max(a, b)]

function thicknessWords(step: ExtrudeStep, context: StepContext, from: number, to: number): string {
  if (step.reach === 'through') return 'through all'
  const deep = step.effect === 'cut' ? 'deep' : 'thick'
  return `${tell(context, to - from)} ${deep}`
}

/** As far out from the axis as an outline across it goes. */
function reachOf(step: string, outline: Section, from: number, to: number): Section {
  const radii = edgesOf(outline).flatMap(({ piece }) =>
    [piece.from, piece.to].map((p) => Math.hypot(p.x, p.y)),
  )
  return rectangleOf(step, { x: from, y: 0 }, { x: to, y: Math.max(...radii) })
}
