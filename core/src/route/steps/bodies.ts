import { fail, succeed, type Result } from '../../result'
import {
  PART_FRAME,
  arc,
  line,
  place,
  turnedFrame,
  turned,
  vec,
  type Frame,
  type Place,
  cubic,
  simplePieces,
  type Piece,
} from '../../geometry'
import {
  EMPTY_SECTION,
  combine as combinedSections,
  extentOf,
  greatestRadius,
  mirroredSection,
  movedAlong,
  profileOf,
  type Section,
  type SectionEdge,
} from '../../section'
import {
  mirroredOp,
  outwards,
  rectangleOf,
  turnedTool,
  type MirrorPlane,
  type SolidOp,
  type SolidPlan,
  type SolidTool,
} from '../../solid'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { CombineStep, ImportStep, MirrorStep, MoveStep } from '../../part'
import {
  changed,
  edgesNamed,
  lost,
  material,
  notSound,
  planSoFar,
  worked,
  type Outcome,
  type StepContext,
} from './context'
import { repeatedSteps } from './repeated'
import { angleOr, lengthOr, sizesAt, tell, tellAngle } from './solid/common'

/** Mirrors a body about a plane. */
export function mirror(step: MirrorStep, context: StepContext): Result<Outcome> {
  if (step.steps.length > 0) return mirrorSteps(step, context)
  const source = material(context, step.body)
  if (!source.ok) return source
  if (!hasBody(context, step.into)) {
    return fail('step.body', 'Its body is gone.', 'Choose another body for the image.')
  }
  if (step.way === 'along') return mirrorAlong(step, context, source.value)
  const at = planeOf(step, context, source.value)
  if (!at.ok) return at
  const image = mirroredSection(source.value, at.value, step.id)
  const before = context.sectionOf(step.into)
  const joined = combinedSections(before, image, 'add')
  const tool = { section: image, effect: 'add' as const, body: step.into }
  if (!context.planOf(step.body)) return changed(context, step.into, before, joined, tool)
  if (!joined) return notSound
  const about = { at: place(0, 0, at.value), normal: place(0, 0, 1) }
  return worked(context, step.into, [imageOp(step, context, about)], { turned: joined })
}

/** About a plane through the axis only what is no full turn has another image. */
function mirrorAlong(step: MirrorStep, context: StepContext, section: Section): Result<Outcome> {
  const angle = angleOr(context, step.angle, 0, 'angle of the plane')
  if (!angle.ok) return angle
  if (step.into === step.body) {
    return fail(
      'mirror.itself',
      'About a plane through the axis the image falls into the body itself.',
      'Let it make a body of its own, or repeat steps round the axis instead.',
    )
  }
  const notes = context.planOf(step.body)
    ? []
    : ['A full turn is its own image about a plane through the axis.']
  const about = { at: place(0, 0, 0), normal: turned(place(0, 1, 0), angle.value) }
  const joined = combinedSections(context.sectionOf(step.into), section, 'add')
  if (!joined) return notSound
  return worked(context, step.into, [imageOp(step, context, about)], { notes, turned: joined })
}

/** What earlier steps did, once more as its mirror image, each in its own body. */
function mirrorSteps(step: MirrorStep, context: StepContext): Result<Outcome> {
  const source = material(context, step.body)
  if (!source.ok) return source
  const across = step.way === 'across'
  const where = across
    ? planeOf(step, context, source.value)
    : angleOr(context, step.angle, 0, 'angle of the plane')
  if (!where.ok) return where
  const plane: MirrorPlane = across
    ? { at: place(0, 0, where.value), normal: place(0, 0, 1) }
    : { at: place(0, 0, 0), normal: turned(place(0, 1, 0), where.value) }
  const sections = new Map<string, Section>()
  const plans = new Map<string, SolidPlan>()
  let last: Outcome['work']
  const { ids, sources } = repeatedSteps(step.steps, context)
  const again = { step: step.id, mark: `@${step.id}`, sources }
  for (const id of ids) {
    const { tool, work } = context.outcomeOf(id) ?? {}
    if (work) {
      const ops = work.ops.map((op) => mirroredOp(op, again, plane))
      const known = ops.filter((op) => op !== undefined)
      if (known.length < ops.length) return notMirrored(id)
      const plan = plans.get(work.body) ?? planSoFar(context, work.body)
      plans.set(work.body, { base: plan.base, ops: [...plan.ops, ...known] })
      last = { ops: known, body: work.body }
      continue
    }
    if (!tool) return notMirrored(id)
    if (!across) {
      return fail(
        'mirror.turned',
        'A full turn is its own image about a plane through the axis.',
        'Leave that step out, or mirror about a plane square to the axis.',
        { involves: [id] },
      )
    }
    const here = sections.get(tool.body) ?? context.sectionOf(tool.body)
    const image = mirroredSection(tool.section, where.value, step.id)
    const next = combinedSections(here, image, tool.effect)
    if (!next) return notSound
    sections.set(tool.body, next)
  }
  const notes = [...sections].flatMap(([body, after]) => {
    const done = changed(context, body, context.sectionOf(body), after)
    return done.ok ? done.value.notes : []
  })
  return succeed({ sections, notes, plans, ...(last ? { work: last } : {}) })
}

const notMirrored = (id: string): Result<never> =>
  fail(
    'mirror.step',
    'A step to mirror is gone, failed, or does nothing that can be mirrored.',
    'Choose profiles, walls, grooves, bores, holes, flats, slots or extrusions before this step, and with solid ones the rounds and bevels of their edges.',
    { involves: [id] },
  )

const imageOp = (
  step: MirrorStep,
  context: StepContext,
  about: { readonly at: Place; readonly normal: Place },
): SolidOp => ({
  ...{ kind: 'combine', step: step.id, effect: 'add' },
  tools: [
    {
      ...{ kind: 'body', plan: planSoFar(context, step.body), mirror: about, frame: PART_FRAME },
      mark: `@${step.id}`,
    },
  ],
})

function planeOf(step: MirrorStep, context: StepContext, section: Section): Result<number> {
  if (step.about === '') return context.number(step.at, 'length', 'place of the plane')
  const edges = edgesNamed(section, step.about)
  if (edges.length === 0) return lost('The face to mirror about', step.about)
  const xs = edges.flatMap(({ piece }) => [piece.from.x, piece.to.x])
  const [low, high] = [Math.min(...xs), Math.max(...xs)]
  if (high - low <= VERTEX_TOLERANCE) return succeed(low)
  return fail(
    'mirror.plane',
    'The face to mirror about is not square to the axis.',
    'Pick a radial face, or type the place of the plane.',
  )
}

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

/** Joins two bodies, cuts one from the other, or keeps what they have in common. */
export function combineBodies(step: CombineStep, context: StepContext): Result<Outcome> {
  const own = material(context, step.body)
  if (!own.ok) return own
  if (step.other === step.body) {
    return fail('combine.same', 'A body is combined with another one.', 'Choose a second body.')
  }
  const other = material(context, step.other)
  if (!other.ok) return other
  const plans = [context.planOf(step.body), context.planOf(step.other)]
  const sections = combinedSections(own.value, other.value, step.effect)
  if (!sections) return notSound
  const isTurned = plans.every((p) => p === undefined)
  // What is cut by a body that is no full turn stays elsewhere round the axis.
  const turnedSection = step.effect === 'cut' && plans[1] ? own.value : sections
  const emptied: readonly (readonly [string, Section])[] = step.keep
    ? []
    : [[step.other, EMPTY_SECTION]]
  if (isTurned) {
    const done = changed(context, step.body, own.value, sections)
    if (!done.ok) return done
    const all = new Map([...done.value.sections, ...emptied])
    return succeed({ ...done.value, sections: all })
  }
  const tool: SolidTool = plans[1]
    ? { kind: 'body', plan: plans[1], frame: PART_FRAME, mark: '' }
    : turnedTool(other.value, PART_FRAME)
  const op: SolidOp = { kind: 'combine', step: step.id, effect: step.effect, tools: [tool] }
  const done = worked(context, step.body, [op], { turned: turnedSection })
  if (!done.ok) return done
  return succeed({
    ...done.value,
    sections: new Map([...done.value.sections, ...emptied]),
    plans: new Map([
      ...(done.value.plans ?? []),
      ...(step.keep ? [] : [[step.other, undefined] as const]),
    ]),
  })
}

/** A solid as it came in a file. */
export function imported(step: ImportStep, context: StepContext): Result<Outcome> {
  if (!hasBody(context, step.body)) {
    return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  }
  const [at, x, z] = [step.frame.at, step.frame.x, step.frame.z].map(([a = 0, b = 0, c = 0]) =>
    place(a, b, c),
  )
  if (!at || !x || !z) throw new Error('a frame has three parts')
  const tool: SolidTool = {
    ...{ kind: 'file', file: step.file, solid: step.solid, planes: step.planes },
    ...{ frame: { at, x, z }, mark: '' },
  }
  const before = context.sectionOf(step.body)
  const section = combinedSections(before, turnedImage(step), 'add')
  if (!section) return notSound
  return worked(
    context,
    step.body,
    [{ kind: 'combine', step: step.id, effect: 'add', tools: [tool] }],
    {
      turned: section,
    },
  )
}

/** What it would be as a full turn: its own half-section, or as far as it goes. */
function turnedImage(step: ImportStep): Section {
  const edges = step.outline.flatMap((numbers, i): SectionEdge[] => {
    const name = { step: step.id, entity: `o${i + 1}`, role: 'drawn' } as const
    return simplePieces(pieceFrom(numbers)).map((piece) => ({ piece, name }))
  })
  const { section } = profileOf(edges, step.id)
  return section.regions.length > 0
    ? section
    : rectangleOf(step.id, vec(step.from, step.inner), vec(step.to, step.radius))
}

/** A piece by its numbers, as an import step keeps it. */
function pieceFrom([ax = 0, ay = 0, bx = 0, by = 0, ...more]: readonly number[]): Piece {
  const [from, to] = [vec(ax, ay), vec(bx, by)]
  const [cx, cy = 0, third = 0, dy] = more
  if (cx === undefined) return line(from, to)
  if (dy !== undefined) return cubic(from, vec(cx, cy), vec(third, dy), to)
  return arc(from, to, vec(cx, cy), third === 1)
}

const hasBody = (context: StepContext, id: string): boolean =>
  context.bodies.some((b) => b.id === id)
