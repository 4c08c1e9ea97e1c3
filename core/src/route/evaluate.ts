import { fail, succeed, type Result } from '../result'
import { EMPTY_SECTION, solidProperties, type Loop, type Section } from '../section'
import { valuesOf, type Part, type RevolveStep } from '../part'
import { faultProblem } from './problems'
import { sketchStateOf } from './sketches'
import type { BodyState, PartState, SketchState, StepState } from './state'

const memo = new WeakMap<Part, PartState>()

/**
 * Runs a part's route from the first step to the last. A step that fails keeps its place and says
 * why; later steps run where they can. Unchanged sketches and steps are not computed again.
 */
export function evaluate(part: Part): PartState {
  const known = memo.get(part)
  if (known) return known
  const sketches = new Map(part.sketches.map((s) => [s.id, sketchStateOf(s, part)]))
  const sections = new Map<string, Section>()
  const steps: StepState[] = part.route.map((step) => {
    if (step.aside) return { stepId: step.id, status: 'aside', massChange: 0 }
    const result: Result<Section> =
      step.kind === 'revolve'
        ? revolve(step, part, sketches, sections)
        : unknownStep(String(step.kept['kind']))
    if (!result.ok)
      return { stepId: step.id, status: 'failed', problem: result.problem, massChange: 0 }
    const body = step.kind === 'revolve' ? step.body : ''
    sections.set(body, result.value)
    const made = bodyStateOf(part, body, result.value)
    return {
      stepId: step.id,
      status: 'done',
      get massChange() {
        return made.mass
      },
    }
  })
  const bodies = part.bodies.map((b) =>
    bodyStateOf(part, b.id, sections.get(b.id) ?? EMPTY_SECTION),
  )
  const { problems } = valuesOf(part)
  const valueProblems = new Map(
    part.values.flatMap((v) => {
      const problem = problems.get(v.name)
      return problem ? [[v.name, problem] as const] : []
    }),
  )
  const state: PartState = { sketches, steps, bodies, valueProblems }
  memo.set(part, state)
  return state
}

function unknownStep(kind: string): Result<never> {
  return fail(
    'step.unknown',
    `This version does not know the step “${kind}”.`,
    'It is kept as it is; open the part with the version that made it.',
  )
}

function revolve(
  step: RevolveStep,
  part: Part,
  sketches: ReadonlyMap<string, SketchState>,
  sections: ReadonlyMap<string, Section>,
): Result<Section> {
  const sketch = part.sketches.find((s) => s.id === step.sketch)
  const state = sketches.get(step.sketch)
  if (!sketch || !state) {
    return fail('step.sketch', 'Its profile is gone.', 'Choose another profile for this step.')
  }
  if (!part.bodies.some((b) => b.id === step.body)) {
    return fail('step.body', 'Its body is gone.', 'Choose another body for this step.')
  }
  if (sections.has(step.body)) {
    return fail(
      'step.join',
      'This body has material already, and joining to it is not possible yet.',
      'Turn this profile into a body of its own, or draw it as part of the first.',
    )
  }
  const { section, faults } = state.profile
  if (section.regions.length > 0) return succeed(renamed(section, step.id))
  const [fault] = faults
  if (!fault) {
    return fail(
      'profile.empty',
      `Profile ${sketch.name} has no outline yet.`,
      'Draw its half-section.',
    )
  }
  return { ok: false, problem: faultProblem(fault, sketch, part) }
}

const renamedSections = new WeakMap<Section, { readonly step: string; readonly section: Section }>()

/** The section with its edges named after a step. */
function renamed(section: Section, step: string): Section {
  const known = renamedSections.get(section)
  if (known?.step === step) return known.section
  const rename = (loop: Loop): Loop => loop.map((e) => ({ ...e, name: { ...e.name, step } }))
  const result = {
    regions: section.regions.map((r) => ({ outer: rename(r.outer), holes: r.holes.map(rename) })),
  }
  renamedSections.set(section, { step, section: result })
  return result
}

const solids = new WeakMap<Section, ReturnType<typeof solidProperties>>()

/** The integrals are taken when they are first asked for: a drag is painted before it is weighed. */
function bodyStateOf(part: Part, bodyId: string, section: Section): BodyState {
  const body = part.bodies.find((b) => b.id === bodyId)
  const density = part.materials.find((m) => m.id === body?.material)?.density ?? 0
  return {
    bodyId,
    section,
    get solid() {
      if (!solids.has(section)) solids.set(section, solidProperties(section))
      return solids.get(section)
    },
    get mass() {
      return (this.solid?.volume ?? 0) * density
    },
  }
}
