import { EMPTY_SECTION, combine, solidProperties, unsoundness, type Section } from '../section'
import { foundCount, foundFor, turnedOps, type PlacedMesh, type SolidPlan } from '../solid'
import { valuesOf, type Part, type Step } from '../part'
import { fail, type Problem, type Result } from '../result'
import { sketchStateOf } from './sketches'
import { runStep } from './runStep'
import { remembered, type Outcome } from './steps/context'
import type { BodyState, PartState, StepState } from './state'

/** A part's state, and up to which answer of the kernel it holds; for good where none was needed. */
interface Remembered {
  readonly state: PartState
  readonly upTo: number
}

const memo = new WeakMap<Part, Remembered>()

/**
 * Runs a part's route from the first step to the last. A step that fails keeps its place and says
 * why; later steps run where they can. Unchanged sketches and steps are not computed again. Bodies
 * that are no full turn have a plan for the solid kernel; what it told of plans so far is in the state.
 */
export function evaluate(part: Part): PartState {
  const known = memo.get(part)
  if (known && known.upTo >= foundCount()) return known.state
  const sketches = new Map(part.sketches.map((s) => [s.id, sketchStateOf(s, part)]))
  const run = new Run(part, sketches)
  const steps = part.route.map((step) => run.step(step))
  const { problems } = valuesOf(part)
  const valueProblems = new Map(
    part.values.flatMap((v) => {
      const problem = problems.get(v.name)
      return problem ? [[v.name, problem] as const] : []
    }),
  )
  const state: PartState = { sketches, steps, bodies: run.bodies, valueProblems }
  memo.set(part, { state, upTo: run.asked ? foundCount() : Infinity })
  return state
}

/** The bodies of a part while its route runs. */
class Run {
  bodies: readonly BodyState[]
  /** Whether anything in it depends on what the kernel tells. */
  asked = false
  private readonly sections = new Map<string, Section>()
  private readonly plans = new Map<string, SolidPlan>()
  private readonly meshes = new Map<string, PlacedMesh>()
  private readonly outcomes = new Map<string, Outcome>()

  constructor(
    private readonly part: Part,
    private readonly sketches: PartState['sketches'],
  ) {
    this.bodies = this.standing()
  }

  step(step: Step): StepState {
    const { bodies: before, part, sections, plans, meshes, sketches, outcomes } = this
    const idle = (status: 'aside' | 'failed', problem?: Problem): StepState => ({
      stepId: step.id,
      status,
      ...(problem && { problem }),
      notes: [],
      touched: [],
      bodies: before,
      tool: undefined,
      sizes: [],
      edgeWords: NO_WORDS,
      threads: [],
      massChange: 0,
    })
    if (step.aside) return idle('aside')
    const source = { part, sections, plans, meshes, sketches, outcomes }
    let result: Result<Outcome>
    try {
      result = remembered(step, source, (context) => runStep(step, context))
    } catch (error) {
      // The step fails, the part lives.
      return idle('failed', defect(`The computation broke off: ${String(error)}`))
    }
    if (!result.ok) return idle('failed', result.problem)
    const { value } = result
    const wrong = [...value.sections.values()].map(unsoundness).find((w) => w !== undefined)
    if (wrong !== undefined) return idle('failed', defect(wrong))
    const next = new Map(value.plans)
    for (const [body, section] of value.sections) {
      const plan = plans.get(body)
      // A full turn of a body that is none: the solid gains and loses what the section does.
      if (plan && !next.has(body)) {
        next.set(body, followed(step.id, plan, sections.get(body) ?? EMPTY_SECTION, section))
      }
    }
    for (const plan of next.values()) {
      if (!plan) continue
      this.asked = true
      const found = foundFor(plan)
      if (found && !found.ok) return idle('failed', found.problem)
    }
    outcomes.set(step.id, value)
    for (const [body, section] of value.sections) sections.set(body, section)
    for (const [body, plan] of next) {
      if (plan) plans.set(body, plan)
      else plans.delete(body)
    }
    for (const [body, mesh] of value.meshes ?? []) meshes.set(body, mesh)
    const after = (this.bodies = this.standing())
    return {
      stepId: step.id,
      status: 'done',
      notes: value.notes,
      touched: [...new Set([...value.sections.keys(), ...next.keys()])],
      bodies: after,
      tool: value.tool?.section,
      sizes: value.told?.sizes ?? [],
      edgeWords: value.told?.edges ?? NO_WORDS,
      threads: value.told?.threads ?? [],
      get massChange() {
        const [now, was] = [massOf(after), massOf(before)]
        // What only moves weighs the same, whatever its last digits.
        return Math.abs(now - was) < SAME_MASS * Math.abs(was) ? 0 : now - was
      },
    }
  }

  private standing(): BodyState[] {
    return this.part.bodies.map(({ id }) =>
      bodyStateOf(this.part, id, {
        section: this.sections.get(id) ?? EMPTY_SECTION,
        plan: this.plans.get(id),
        mesh: this.meshes.get(id),
      }),
    )
  }
}

const NO_WORDS: ReadonlyMap<string, string> = new Map()

/** The code of what is Lathica's own fault: the part is worth keeping as a report of it. */
export const DEFECT_CODE = 'step.defect'

const defect = (what: string): Problem =>
  fail(
    DEFECT_CODE,
    `Lathica made a mistake here and does not use the result. ${what}`,
    'Change a value a little, and save the part as a report of this mistake.',
  ).problem

/** Masses that differ by less than this share are one. */
const SAME_MASS = 1e-12

const followedPlans = new WeakMap<Section, { readonly from: SolidPlan; readonly plan: SolidPlan }>()

function followed(step: string, plan: SolidPlan, before: Section, after: Section): SolidPlan {
  const known = followedPlans.get(after)
  if (known?.from === plan) return known.plan
  const lost = combine(before, after, 'cut') ?? EMPTY_SECTION
  const gained = combine(after, before, 'cut') ?? EMPTY_SECTION
  const next = { base: plan.base, ops: [...plan.ops, ...turnedOps(step, lost, gained)] }
  followedPlans.set(after, { from: plan, plan: next })
  return next
}

const massOf = (bodies: readonly BodyState[]): number => bodies.reduce((sum, b) => sum + b.mass, 0)

const solids = new WeakMap<Section, ReturnType<typeof solidProperties>>()

/** The integrals are taken when they are first asked for: a drag is painted before it is weighed. */
function bodyStateOf(
  part: Part,
  bodyId: string,
  { section, plan, mesh }: Pick<BodyState, 'section' | 'plan' | 'mesh'>,
): BodyState {
  const body = part.bodies.find((b) => b.id === bodyId)
  const material = part.materials.find((m) => m.id === body?.material)
  const density = material?.density ?? 0
  return {
    bodyId,
    section,
    plan,
    mesh,
    reference: mesh !== undefined || body?.reference === true,
    get solid() {
      if (mesh) return undefined
      if (plan) {
        const found = foundFor(plan)
        return found?.ok ? found.value : undefined
      }
      if (!solids.has(section)) solids.set(section, solidProperties(section))
      return solids.get(section)
    },
    get mass() {
      if (this.reference) return 0
      if (plan && !this.solid) return Number.NaN
      return (this.solid?.volume ?? 0) * density
    },
  }
}
