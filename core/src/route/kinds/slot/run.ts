import { DIRECTION_TOLERANCE, LENGTH_ROUNDING, VERTEX_TOLERANCE } from '../../../tolerances'
import { fail, succeed, type Result } from '../../../result'
import {
  PART_FRAME,
  addPlaces,
  place,
  scalePlace,
  turnedFrame,
  vec,
  type Place,
} from '../../../geometry'
import { greatestRadius, type Section } from '../../../section'
import {
  halfPlane,
  lookingOut,
  outwards,
  prismTool,
  rectangleOf,
  slotOf,
  turnedTool,
  type SolidTool,
} from '../../../solid'
import type { SlotStep } from '../../../part'
import {
  material,
  positive,
  told,
  wholeCount,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import { hostOf } from '../groove/run'
import { slotGrips } from './grips'
import {
  angleOr,
  anglesOf,
  squareFace,
  lengthOr,
  lengthwiseFace,
  markOf,
  placeOfEdge,
  sizesAt,
  tell,
  times,
} from '../../steps/common'

/** Mills a keyway, a seat for a half-round key, or slots across an end face. */
export function slot(step: SlotStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const width = positive(context, step.width, 'length', 'width')
  if (!width.ok) return width
  const depth = positive(context, step.depth, 'length', 'depth')
  if (!depth.ok) return depth
  const count = wholeCount(context, step.count, 'number')
  if (!count.ok) return count
  const phase = angleOr(context, step.phase, 0, 'angle')
  if (!phase.ok) return phase
  // Right across, two opposite slots are one.
  const range = step.form === 'end' && step.length.trim() === '' ? Math.PI : 2 * Math.PI
  const angles = anglesOf(count.value, phase.value, undefined).map(
    (a) => phase.value + ((a - phase.value) * range) / (2 * Math.PI),
  )
  const sizes = { width: width.value, depth: depth.value }
  const made =
    step.form === 'end'
      ? endSlots(step, context, before.value, sizes, angles)
      : alongSlots(step, context, before.value, sizes, angles)
  if (!made.ok) return made
  return worked(
    context,
    step.body,
    [{ kind: 'combine', step: step.id, effect: 'cut', tools: made.value.tools }],
    {
      notes: made.value.notes,
      told: {
        sizes: sizesAt(step.body, made.value.at, [made.value.words]),
        grips: slotGrips(step, context, made.value.at, angles),
      },
    },
  )
}

interface Sizes {
  readonly width: number
  readonly depth: number
}

interface Made {
  readonly tools: readonly SolidTool[]
  /** The middle of the first, on the surface, and its size in words. */
  readonly at: Place
  readonly words: string
  readonly notes: readonly string[]
}

function endSlots(
  step: SlotStep,
  context: StepContext,
  section: Section,
  { width, depth }: Sizes,
  angles: readonly number[],
): Result<Made> {
  const face = squareFace(context, step.body, step.on, 'The face of this slot')
  if (!face.ok) return face
  const { at, way, ring } = face.value
  const outer = ring?.outer ?? greatestRadius(section)
  const length = lengthOr(context, step.length, 0, 'length')
  if (!length.ok) return length
  if (width >= 2 * outer) {
    return fail(
      'slot.wide',
      'The slot is as wide as the face.',
      `Type less than ${told(context, 2 * outer)}.`,
    )
  }
  const over = greatestRadius(section) + 1
  const from = step.length.trim() === '' ? -over : outer - length.value
  const outline = rectangleOf(step.id, vec(from, -width / 2), vec(over, width / 2))
  // From before the face, so that what stands beside it does not hide it.
  const ends = [at - way * 0.5, at + way * depth]
  return succeed({
    tools: angles.map((angle, i) =>
      prismTool(
        outline,
        turnedFrame(PART_FRAME, angle),
        Math.min(...ends),
        Math.max(...ends),
        markOf(i, angles.length),
      ),
    ),
    at: addPlaces(scalePlace(outwards(angles[0] ?? 0), 0.7 * outer), place(0, 0, at)),
    words: `${times(angles.length)}slot ${tell(context, width)} × ${tell(context, depth)}`,
    notes: [],
  })
}

function alongSlots(
  step: SlotStep,
  context: StepContext,
  section: Section,
  { width, depth }: Sizes,
  angles: readonly number[],
): Result<Made> {
  const face = lengthwiseFace(section, step.on, 'The cylinder of this slot')
  if (!face.ok) return face
  const { edges, from, to } = face.value
  const host = hostOf(edges)
  const radius = host?.origin.y ?? 0
  if (!host || Math.abs(host.along.y) > DIRECTION_TOLERANCE || host.into.y > 0) {
    return fail('slot.cylinder', 'It goes into an outer cylinder.', 'Pick one.')
  }
  const origin = step.from === '' ? succeed(from) : placeOfEdge(section, step.from, from)
  if (!origin.ok) return origin
  const distance = lengthOr(context, step.distance, 0, 'distance')
  if (!distance.ok) return distance
  if (depth >= radius) {
    return fail(
      'slot.deep',
      `It is as deep as the axis, ${told(context, radius)} in.`,
      'Type a smaller depth.',
    )
  }
  if (width >= 2 * radius) {
    return fail(
      'slot.wide',
      'It is as wide as the cylinder.',
      `Type less than ${told(context, 2 * radius)}.`,
    )
  }
  const cylinder: Cylinder = {
    ...{ from, to, radius, distance: distance.value, origin: origin.value },
    // From an edge to the right of the cylinder the distance goes back to the left.
    way: origin.value >= to - LENGTH_ROUNDING && step.from !== '' ? -1 : 1,
  }
  const cut = step.form === 'keyway' ? keyways : woodruff
  return cut(step, context, cylinder, { width, depth }, angles)
}

/** The cylinder a slot goes into, and from where on and which way its distance is told. */
interface Cylinder {
  readonly from: number
  readonly to: number
  readonly radius: number
  readonly origin: number
  readonly distance: number
  readonly way: 1 | -1
}

const off = (context: StepContext, { from, to }: Cylinder): Result<never> =>
  fail(
    'slot.off',
    `It lies off its cylinder, which goes from ${told(context, from)} to ${told(context, to)}.`,
    'Change the distance.',
  )

function keyways(
  step: SlotStep,
  context: StepContext,
  cylinder: Cylinder,
  { width, depth }: Sizes,
  angles: readonly number[],
): Result<Made> {
  const length = positive(context, step.length, 'length', 'length')
  if (!length.ok) return length
  if (step.ends === 'round' && length.value <= width) {
    return fail(
      'slot.short',
      'With round ends it is longer than wide.',
      `Type more than ${told(context, width)}, or choose square ends.`,
    )
  }
  const { from, to, radius, origin, distance, way } = cylinder
  const near = origin + way * distance
  const start = way === 1 ? near : near - length.value
  const end = start + length.value
  if (end <= from || start >= to) return off(context, cylinder)
  const outline =
    step.ends === 'round'
      ? slotOf(step.id, start, end, width)
      : rectangleOf(step.id, vec(start, -width / 2), vec(end, width / 2))
  const over = radius + Math.max(0.5, depth / 2)
  return succeed({
    tools: angles.map((angle, i) =>
      prismTool(outline, lookingOut(angle), radius - depth, over, markOf(i, angles.length)),
    ),
    at: addPlaces(scalePlace(outwards(angles[0] ?? 0), radius), place(0, 0, (start + end) / 2)),
    words: `${times(angles.length)}keyway ${tell(context, width)} × ${tell(context, length.value)}, ${tell(context, depth)} deep`,
    notes:
      end > to + VERTEX_TOLERANCE || start < from - VERTEX_TOLERANCE
        ? ['It runs over the end of its cylinder.']
        : [],
  })
}

function woodruff(
  step: SlotStep,
  context: StepContext,
  cylinder: Cylinder,
  { width, depth }: Sizes,
  angles: readonly number[],
): Result<Made> {
  const cutter = positive(context, step.cutter, 'length', 'diameter of the cutter')
  if (!cutter.ok) return cutter
  if (depth > cutter.value / 2) {
    return fail(
      'slot.cutter',
      'The seat is deeper than half its cutter.',
      `Type at most ${told(context, cutter.value / 2)}.`,
    )
  }
  const { from, to, radius, origin, distance, way } = cylinder
  const at = origin + way * distance
  if (at < from || at > to) return off(context, cylinder)
  const disc = rectangleOf(step.id, vec(-width / 2, 0), vec(width / 2, cutter.value / 2))
  return succeed({
    tools: angles.map((angle, i) => {
      const out = outwards(angle)
      const middle = addPlaces(scalePlace(out, radius - depth + cutter.value / 2), place(0, 0, at))
      const frame = { at: middle, x: out, z: halfPlane(angle).z }
      return turnedTool(disc, frame, markOf(i, angles.length))
    }),
    at: addPlaces(scalePlace(outwards(angles[0] ?? 0), radius), place(0, 0, at)),
    words: `${times(angles.length)}seat ${tell(context, width)} × ⌀${tell(context, cutter.value)}, ${tell(context, depth)} deep`,
    notes: [],
  })
}
