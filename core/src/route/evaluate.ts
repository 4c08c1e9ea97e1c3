import { EMPTY_SECTION, solidProperties, type Section } from '../section'
import { valuesOf, type Part } from '../part'
import { sketchStateOf } from './sketches'
import { remembered, runStep, type Outcome } from './steps'
import type { BodyState, PartState, StepState } from './state'

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
  const outcomes = new Map<string, Outcome>()
  const standing = (): BodyState[] =>
    part.bodies.map((b) => bodyStateOf(part, b.id, sections.get(b.id) ?? EMPTY_SECTION))
  let bodies = standing()
  const steps = part.route.map((step): StepState => {
    const idle = { stepId: step.id, notes: [], touched: [], bodies, tool: undefined, massChange: 0 }
    if (step.aside) return { ...idle, status: 'aside' }
    const source = { part, sections, sketches, outcomes }
    const result = remembered(step, source, (context) => runStep(step, context))
    if (!result.ok) return { ...idle, status: 'failed', problem: result.problem }
    const { value } = result
    outcomes.set(step.id, value)
    const before = bodies
    for (const [body, section] of value.sections) sections.set(body, section)
    bodies = standing()
    const after = bodies
    return {
      stepId: step.id,
      status: 'done',
      notes: value.notes,
      touched: [...value.sections.keys()],
      bodies: after,
      tool: value.tool?.section,
      get massChange() {
        return massOf(after) - massOf(before)
      },
    }
  })
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

const massOf = (bodies: readonly BodyState[]): number => bodies.reduce((sum, b) => sum + b.mass, 0)

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
