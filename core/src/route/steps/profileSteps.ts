import { fail, succeed, type Result } from '../../result'
import { leftNormal, lengthOf, reversed, type Piece } from '../../geometry'
import {
  combine,
  wallOf,
  withLoops,
  type Profile,
  type Section,
  type SectionEdge,
} from '../../section'
import { chainOf, endsOf, isAcross, locator, pieceOf, type DrawnSketch } from '../../sketch'
import { faultProblem } from '../problems'
import { changed, inProportion, positive, type Outcome, type StepContext } from './context'
import type { ExtrudeStep, RevolveStep, StepEffect, SweepStep, WallStep } from '../../part'
import { drawOut } from './solid/extrude'
import { carried } from './solid/sweep'
import { isSolidTurn, solidTurn } from './solid/turning'

interface TurnedStep {
  readonly id: string
  readonly effect: StepEffect
  readonly body: string
}

/** Turns closed regions of a profile, about the axis fully or as the step says. */
export function revolve(step: RevolveStep, context: StepContext): Result<Outcome> {
  const profile = chosenProfile(step, context)
  if (!profile.ok) return profile
  const { section, sketch } = profile.value
  if (isAcross(sketch.plane)) return notTurned(sketch)
  return isSolidTurn(step)
    ? solidTurn(step, context, section, sketch)
    : applied(step, context, section)
}

/** Draws closed regions of a profile out square to its plane. */
export function extrude(step: ExtrudeStep, context: StepContext): Result<Outcome> {
  const profile = chosenProfile(step, context)
  if (!profile.ok) return profile
  const { section, sketch } = profile.value
  return drawOut(step, context, section, sketch.plane)
}

/** Carries a small section along an open chain. */
export function sweep(step: SweepStep, context: StepContext): Result<Outcome> {
  const sketch = context.sketch(step.sketch)
  if (!sketch || !context.sketchState(step.sketch)) return noProfile
  const chain = openChain(sketch, step.id)
  if (!chain.ok) return chain
  return carried(
    step,
    context,
    chain.value.map((e) => e.piece),
  )
}

/** The regions a step is made from, their edges named after it. */
function chosenProfile(
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

const notTurned = (sketch: DrawnSketch): Result<never> =>
  fail(
    'step.endSketch',
    `Profile ${sketch.name} lies square to the axis.`,
    'Extrude it, or let it place holes; draw a half-section for this step.',
  )

const noProfile: Result<never> = fail(
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

const renamedSections = new WeakMap<Section, { readonly step: string; readonly section: Section }>()

/** The section with its edges named after a step. */
function renamed(section: Section, step: string): Section {
  const known = renamedSections.get(section)
  if (known?.step === step) return known.section
  const result = withLoops(section, (loop) =>
    loop.map((e) => ({ ...e, name: { ...e.name, step } })),
  )
  renamedSections.set(section, { step, section: result })
  return result
}

/** Does to its body with a turned section what the step says. */
function applied(step: TurnedStep, context: StepContext, section: Section): Result<Outcome> {
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

/** Turns an open chain, thickened to a wall. */
export function wall(step: WallStep, context: StepContext): Result<Outcome> {
  const sketch = context.sketch(step.sketch)
  if (!sketch || !context.sketchState(step.sketch)) return noProfile
  const chain = openChain(sketch, step.id)
  if (!chain.ok) return chain
  const thickness = positive(context, step.thickness, 'length', 'thickness')
  if (!thickness.ok) return thickness
  const inner =
    step.side === 'both' ? positive(context, step.inner, 'length', 'thickness inside') : thickness
  if (!inner.ok) return inner
  const fits = inProportion(Math.max(thickness.value, inner.value), chain.value)
  if (!fits.ok) return fits
  const [outside, inside] = shares(step.side, thickness.value, inner.value)
  const leftIsOutside = facesOut(chain.value.map((e) => e.piece))
  const made = wallOf(chain.value, {
    step: step.id,
    left: leftIsOutside ? outside : inside,
    right: leftIsOutside ? inside : outside,
    corners: step.corners,
    ends: step.ends,
  })
  if (!made || made.regions.length === 0) {
    return fail(
      'wall.none',
      'A wall of this thickness does not come about here.',
      'Type a smaller thickness, or let it lie on the other side.',
    )
  }
  const { id, effect, body, turn, turnTo, turnSide, back, phase } = step
  const turning = {
    ...{ id, effect, body, axis: 'axis', turn, turnTo, side: turnSide, back, phase },
    ...({ facets: '', facetTo: 'flats' } as const),
  }
  return isSolidTurn(turning)
    ? solidTurn(turning, context, made, sketch)
    : applied(step, context, made)
}

function shares(side: WallStep['side'], t: number, inner: number): readonly [number, number] {
  switch (side) {
    case 'outside':
      return [t, 0]
    case 'inside':
      return [0, t]
    case 'middle':
      return [t / 2, t / 2]
    case 'both':
      return [t, inner]
  }
}

/** Whether the left of a chain is its side away from the axis; of radial lines, the left end's side. */
function facesOut(pieces: readonly Piece[]): boolean {
  const sum = pieces.reduce(
    (total, piece) => {
      const normal = leftNormal(piece, 0.5)
      const length = lengthOf(piece)
      return { x: total.x + normal.x * length, y: total.y + normal.y * length }
    },
    { x: 0, y: 0 },
  )
  return Math.abs(sum.y) > 1e-9 ? sum.y > 0 : sum.x < 0
}

/** The one open chain of a profile's outline, end to end. */
function openChain(sketch: DrawnSketch, step: string): Result<SectionEdge[]> {
  if (isAcross(sketch.plane)) return notTurned(sketch)
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
    links.map(({ entity, from }) => {
      const piece = pieceOf(entity, locate)
      const forward = endsOf(entity)[0] === from
      return {
        piece: forward ? piece : reversed(piece),
        name: { step, entity: entity.id, role: 'drawn' as const },
      }
    }),
  )
}
