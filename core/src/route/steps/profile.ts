import { fail, succeed, type Result } from '../../result'
import { reversed } from '../../geometry'
import { combine, withLoops, type Profile, type Section, type SectionEdge } from '../../section'
import {
  chainOf,
  endsOf,
  isEndSketch,
  locator,
  piecesOf,
  type DrawnEnd,
  type DrawnHalf,
  type DrawnSketch,
} from '../../sketch'
import { faultProblem } from '../problems'
import { changed, type Outcome, type StepContext } from './context'
import type { ExtrudeStep, RevolveStep, StepEffect } from '../../part'
import { lastFor } from '../../once'

interface TurnedStep {
  readonly id: string
  readonly effect: StepEffect
  readonly body: string
}

/** The regions a step is made from, their edges named after it. */
export function chosenProfile(
  step: RevolveStep | ExtrudeStep,
  context: StepContext,
): Result<{ readonly section: Section; readonly sketch: DrawnSketch }> {
  const state = context.sketchState(step.sketch)
  const sketch = context.sketch(step.sketch)
  if (!sketch || !state) return noProfile
  const { section, faults } = state.profile
  const chosen = chosenRegions(state.profile, step.regions)
  if (chosen.regions.length > 0) {
    return succeed({ section: renamed(chosen, step.id), sketch })
  }
  if (section.regions.length > 0) {
    return fail(
      'step.regions',
      `The chosen regions of profile ${sketch.name} are gone.`,
      'Choose regions again, or turn all of them.',
    )
  }
  const [fault] = faults
  if (fault) return { ok: false, problem: faultProblem(fault, sketch, context) }
  return fail(
    'profile.empty',
    `Profile ${sketch.name} has no outline yet.`,
    'Draw its half-section.',
  )
}

export const notTurned = (sketch: DrawnEnd): Result<never> =>
  fail(
    'step.endSketch',
    `Profile ${sketch.name} lies square to the axis.`,
    'Extrude it, or let it place holes; draw a half-section for this step.',
  )

export const noProfile: Result<never> = fail(
  'step.sketch',
  'Its profile is gone.',
  'Choose another profile for this step.',
)

/** All that a profile encloses, or the areas of it that were chosen. */
function chosenRegions({ section, areas }: Profile, wanted: RevolveStep['regions']): Section {
  if (wanted === 'all') return section
  const { meant, together } = areas()
  return together(meant(wanted))
}

/** The section with its edges named after a step. */
const renamed = lastFor((section: Section, step: string): Section =>
  withLoops(section, (loop) => loop.map((e) => ({ ...e, name: { ...e.name, step } }))),
)

/** Does to its body with a turned section what the step says. */
export function applied(step: TurnedStep, context: StepContext, section: Section): Result<Outcome> {
  const meta = context.bodies.find((b) => b.id === step.body)
  if (!meta) return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  const before = context.sectionOf(step.body)
  if (before.regions.length === 0 && step.effect !== 'add') {
    return fail(
      'step.noMaterial',
      `${meta.name} has no material at this step to ${step.effect === 'cut' ? 'cut from' : 'keep a part of'}.`,
      'Let the step add, or move it behind one that makes the body.',
    )
  }
  const tool = { section, effect: step.effect, body: step.body }
  return changed(context, step.body, before, combine(before, section, step.effect), tool)
}

/** The one open chain that a step follows, end to end, and its profile. */
export function chainOfStep(
  { id, sketch: sketchId }: { readonly id: string; readonly sketch: string },
  context: StepContext,
): Result<{ readonly edges: SectionEdge[]; readonly sketch: DrawnHalf }> {
  const sketch = context.sketch(sketchId)
  if (!sketch || !context.sketchState(sketchId)) return noProfile
  if (isEndSketch(sketch)) return notTurned(sketch)
  const edges = openChain(sketch, id)
  return edges.ok ? succeed({ edges: edges.value, sketch }) : edges
}

/** The one open chain of a profile's outline, end to end. */
function openChain(sketch: DrawnHalf, step: string): Result<SectionEdge[]> {
  const outline = sketch.entities.filter((e) => e.role === 'outline')
  if (outline.length === 0) {
    return fail('profile.empty', `Profile ${sketch.name} has no outline yet.`, 'Draw a chain.')
  }
  const links = chainOf(
    sketch,
    outline.map((e) => e.id),
  )
  const first = links?.[0]?.from
  if (!links || outline.some((e) => e.kind === 'circle')) {
    return fail(
      'wall.chain',
      `The outline of profile ${sketch.name} is not one chain.`,
      'Draw lines and arcs that follow one another end to end.',
    )
  }
  if (first === links.at(-1)?.to) {
    return fail(
      'wall.closed',
      `Profile ${sketch.name} is closed.`,
      'Revolve it, or open it at one place.',
    )
  }
  const locate = locator(sketch)
  return succeed(
    links.flatMap(({ entity, from }) => {
      const pieces = piecesOf(entity, locate)
      const forward = endsOf(entity)[0] === from
      const name = { step, entity: entity.id, role: 'drawn' as const }
      const run = forward ? pieces : pieces.map(reversed).reverse()
      return run.map((piece) => ({ piece, name }))
    }),
  )
}
