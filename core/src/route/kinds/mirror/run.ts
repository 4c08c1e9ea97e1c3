import { copyMark } from '../../../names'
import { fail, succeed, type Result } from '../../../result'
import { PART_FRAME, place, turned, type Place } from '../../../geometry'
import { combine as combinedSections, mirroredSection, type Section } from '../../../section'
import { mirroredOp, type MirrorPlane, type SolidOp, type SolidPlan } from '../../../solid'
import { VERTEX_TOLERANCE } from '../../../tolerances'
import type { MirrorStep } from '../../../part'
import {
  changed,
  edgesNamed,
  hasBody,
  lost,
  material,
  notSound,
  planSoFar,
  worked,
  type Outcome,
  type StepContext,
} from '../../steps/context'
import { repeatedSteps } from '../../steps/repeated'
import { angleOr } from '../../steps/common'

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
  const again = { step: step.id, mark: copyMark(step.id), sources }
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
      mark: copyMark(step.id),
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
