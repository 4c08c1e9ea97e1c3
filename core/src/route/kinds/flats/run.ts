import { VERTEX_TOLERANCE } from '../../../tolerances'
import { fail, type Result } from '../../../result'
import { PART_FRAME, inFrame, place, turnedFrame, vec } from '../../../geometry'
import { extentOf, greatestRadius, materialAlong } from '../../../section'
import { prismTool, rectangleOf } from '../../../solid'
import type { FlatsStep } from '../../../part'
import {
  material,
  positive,
  told,
  wholeCount,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import { angleOr, anglePlace, lengthOr, markOf, sizesAt, tell } from '../../steps/common'
import type { StepGrip } from '../../state'

/** Cuts plane faces along the axis. */
export function flats(step: FlatsStep, context: StepContext): Result<Outcome> {
  const before = material(context, step.body)
  if (!before.ok) return before
  const section = before.value
  const count = wholeCount(context, step.count, 'number of flats')
  if (!count.ok) return count
  const [left, right] = extentOf(section)
  const distance = lengthOr(context, step.distance, 0, 'distance')
  if (!distance.ok) return distance
  const length = lengthOr(context, step.length, right - left - distance.value, 'length')
  if (!length.ok) return length
  if (length.value <= 0 || distance.value < 0 || distance.value >= right - left) {
    return fail(
      'flats.range',
      'The flats begin beyond the body.',
      `Let them begin and end within its ${told(context, right - left)}.`,
    )
  }
  const [near, way] = step.end === 'left' ? [left, 1] : [right, -1]
  const ends = [near + way * distance.value, near + way * (distance.value + length.value)]
  const [from, to] = [Math.min(...ends), Math.max(...ends)]
  const radius = greatestRadius(section, Math.max(left, from), Math.min(right, to))
  const size = positive(context, step.size, 'length', SIZE_WORDS[step.measure])
  if (!size.ok) return size
  const out = planeAt(step.measure, size.value, count.value, radius)
  if (out >= radius) {
    return fail(
      'flats.clear',
      `The flats lie outside of the body, which is ⌀${told(context, 2 * radius)} there.`,
      step.measure === 'across' ? 'Type a smaller size.' : 'Type a greater depth.',
    )
  }
  if (out <= 0 && count.value > 1) {
    return fail(
      'flats.all',
      'The flats meet in the axis: nothing would be left.',
      step.measure === 'across' ? 'Type a larger size.' : 'Type a smaller depth.',
    )
  }
  const phase = angleOr(context, step.phase, 0, 'angle')
  if (!phase.ok) return phase
  // Beyond the ends of the body nothing is left standing.
  const [low, high] = [from <= left ? from - 1 : from, to >= right ? to + 1 : to]
  const over = greatestRadius(section) + 1
  const tools = Array.from({ length: count.value }, (_, i) =>
    prismTool(
      rectangleOf(step.id, vec(out, -over), vec(over, over)),
      turnedFrame(PART_FRAME, phase.value + (2 * Math.PI * i) / count.value),
      low,
      high,
      markOf(i, count.value),
    ),
  )
  const bore = boreBehind(section, (from + to) / 2, out)
  const many = count.value === 1 ? '1 flat' : `${count.value} flats`
  const sizes = sizesAt(
    step.body,
    inFrame(turnedFrame(PART_FRAME, phase.value), place(out, 0, (from + to) / 2)),
    [
      `${many}, ${tell(context, size.value)} ${step.measure === 'across' ? 'across' : 'deep'}`,
      step.length.trim() === '' ? '' : `${tell(context, length.value)} long`,
    ],
  )
  const notes =
    bore === undefined ? [] : [`The flats open the bore of ⌀${told(context, 2 * bore)}.`]
  const op = { kind: 'combine' as const, step: step.id, effect: 'cut' as const, tools }
  const grips = tools.map(({ frame }, i): StepGrip => {
    const at = inFrame(frame, place(out, 0, (from + to) / 2))
    const words = `${tell(context, out)} from the axis at ${anglePlace(context, at)}`
    return { body: step.body, number: i + 1, at, name: `flat ${i + 1}`, words }
  })
  return worked(context, step.body, [op], { notes, told: { sizes, grips } })
}

const SIZE_WORDS = { across: 'size across the flats', depth: 'depth of the flats' }

/** How far from the axis the flats lie. */
function planeAt(
  measure: FlatsStep['measure'],
  size: number,
  count: number,
  radius: number,
): number {
  if (measure === 'depth') return radius - size
  // Of a single flat, and of an odd number of them, the size goes over to the round.
  return count % 2 === 0 ? size / 2 : size - radius
}

/** The radius of a bore that a plane at a distance from the axis would open. */
function boreBehind(
  section: Parameters<typeof materialAlong>[0],
  x: number,
  out: number,
): number | undefined {
  const [first] = materialAlong(section, vec(x, 0), vec(0, 1), greatestRadius(section) + 1)
  return first && first[0] > out && first[0] > VERTEX_TOLERANCE ? first[0] : undefined
}
