import { fail, succeed, type Result } from '../../../result'
import { PART_FRAME, place, turnedFrame, vec, type Frame } from '../../../geometry'
import { EMPTY_SECTION, extentOf, greatestRadius, movedAlong, type Section } from '../../../section'
import { outwards, rectangleOf, type SolidOp, type SolidTool } from '../../../solid'
import type { MoveStep } from '../../../part'
import { hasBody, material, planSoFar, type Outcome, type StepContext } from '../../steps/context'
import { angleOr, lengthOr, sizesAt, tell, tellAngle } from '../../steps/common'

/** Moves and turns a body, or puts a copy of it there. */
export function move(step: MoveStep, context: StepContext): Result<Outcome> {
  const source = material(context, step.body)
  if (!source.ok) return source
  const along = lengthOr(context, step.along, 0, 'way along the axis')
  if (!along.ok) return along
  const turn = angleOr(context, step.turn, 0, 'turn')
  if (!turn.ok) return turn
  const beside = lengthOr(context, step.beside, 0, 'way off the axis')
  if (!beside.ok) return beside
  const towards = angleOr(context, step.towards, 0, 'angle')
  if (!towards.ok) return towards
  if (!hasBody(context, step.into)) {
    return fail('step.body', 'The body for the copy is gone.', 'Choose another one.')
  }
  const isCopy = step.into !== step.body
  if (isCopy && context.sectionOf(step.into).regions.length > 0) {
    return fail(
      'move.taken',
      'The body for the copy has material of its own.',
      'Choose a new body; the two can be joined afterwards.',
    )
  }
  const stays = along.value === 0 && beside.value === 0
  if (stays && turn.value === 0 && !isCopy) {
    return fail(
      'move.nothing',
      'This moves nothing.',
      'Type how far it goes, or by how much it turns.',
    )
  }
  const alongAxis = movedAlong(source.value, along.value, (name) => name)
  const section =
    beside.value === 0 ? alongAxis : ringAround(alongAxis, Math.abs(beside.value), step.id)
  const plan = context.planOf(step.body)
  if (!plan && beside.value === 0) {
    const notes =
      turn.value === 0 ? [] : ['A full turn looks the same however it is turned about the axis.']
    return succeed({ sections: new Map([[step.into, section]]), notes })
  }
  const out = outwards(towards.value)
  const frame: Frame = {
    ...turnedFrame(PART_FRAME, turn.value),
    at: place(out.x * beside.value, out.y * beside.value, along.value),
  }
  const tool: SolidTool = {
    ...{ kind: 'body', plan: planSoFar(context, step.body), frame, mark: '' },
  }
  const op: SolidOp = { kind: 'combine', step: step.id, effect: 'add', tools: [tool] }
  const words = [
    along.value === 0 ? '' : `${tell(context, along.value)} along`,
    turn.value === 0 ? '' : `turned by ${tellAngle(context, turn.value)}`,
    beside.value === 0 ? '' : `${tell(context, beside.value)} beside the axis`,
  ]
  return succeed({
    sections: new Map([[step.into, section]]),
    plans: new Map([[step.into, { base: EMPTY_SECTION, ops: [op] }]]),
    notes:
      beside.value === 0
        ? []
        : [
            'It stands beside the axis now, on the half-section as the ring it takes up; later turned steps still go about the axis.',
          ],
    told: { sizes: sizesAt(step.into, frame.at, words) },
  })
}

/** As a full turn, what stands beside the axis is a ring as near to that and as far out as it goes. */
function ringAround(section: Section, beside: number, step: string): Section {
  const [from, to] = extentOf(section)
  const reach = greatestRadius(section)
  return rectangleOf(step, vec(from, Math.max(0, beside - reach)), vec(to, beside + reach))
}
