import { EMPTY_SECTION, combine, solidProperties, unsoundness, type Section } from '../section'
import {
  NOTHING_FOUND,
  knownFor,
  turnedOps,
  type Findings,
  type Found,
  type PlacedMesh,
  type SolidPlan,
  type SolidsTold,
} from '../solid'
import { valuesOf, type Part, type Step } from '../part'
import { fail, type Problem, type Result } from '../result'
import { sketchStates } from './sketches'
import { runStep } from './runStep'
import { remembered, type Outcome } from './steps/context'
import type { BodyState, PartState, StepState } from './state'
import { lastFor, once } from '../once'

/** A part's state, and the answers of the kernel that it was made with. */
interface Remembered {
  readonly state: PartState
  readonly asked: ReadonlyMap<SolidPlan, Found | undefined>
  readonly told: SolidsTold
}

/** The last state of each part. Written and read by `evaluate` only. */
const memo = new WeakMap<Part, Remembered>()

/**
 * Runs a part's route from the first step to the last. A step that fails keeps its place and says
 * why; later steps run where they can. Unchanged sketches and steps are not computed again. Bodies
 * that are no full turn have a plan for the solid kernel.
 * @param findings what the kernel told of plans so far: figures, and steps that it could not do
 */
export function evaluate(part: Part, findings: Findings = NOTHING_FOUND): PartState {
  const known = memo.get(part)
  const holds =
    known &&
    // Of full turns nothing is asked.
    (known.asked.size === 0 || known.told === findings.told) &&
    [...known.asked].every(([plan, was]) => knownFor(findings, plan) === was)
  if (holds) return known.state
  const sketches = sketchStates(part)
  const run = new Run(part, sketches, findings)
  const steps = part.route.map((step) => run.step(step))
  const { problems } = valuesOf(part)
  const valueProblems = new Map(
    part.values.flatMap((v) => {
      const problem = problems.get(v.name)
      return problem ? [[v.name, problem] as const] : []
    }),
  )
  const state: PartState = { part, sketches, steps, bodies: run.bodies, valueProblems }
  memo.set(part, { state, asked: run.asked, told: findings.told })
  return state
}

/** The bodies of a part while its route runs. */
class Run {
  bodies: readonly BodyState[]
  /** Every plan whose answer it depends on, with the answer it went by. */
  readonly asked = new Map<SolidPlan, Found | undefined>()
  private readonly sections = new Map<string, Section>()
  private readonly plans = new Map<string, SolidPlan>()
  private readonly meshes = new Map<string, PlacedMesh>()
  private readonly outcomes = new Map<string, Outcome>()

  constructor(
    private readonly part: Part,
    private readonly sketches: PartState['sketches'],
    private readonly findings: Findings,
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
      calls: [],
      grips: [],
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
      // A full turn of a body that is none.
      if (plan && !next.has(body)) {
        next.set(body, followed(step.id, plan, sections.get(body) ?? EMPTY_SECTION, section))
      }
    }
    for (const plan of next.values()) {
      if (!plan) continue
      const found = knownFor(this.findings, plan)
      this.asked.set(plan, found)
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
      calls: value.told?.calls ?? [],
      grips: value.told?.grips ?? [],
      get massChange() {
        const [now, was] = [massOf(after), massOf(before)]
        // What only moves weighs the same, whatever its last digits.
        return Math.abs(now - was) < SAME_MASS * Math.abs(was) ? 0 : now - was
      },
    }
  }

  private foundOf(body: string): Found | undefined {
    const plan = this.plans.get(body)
    return plan && this.asked.get(plan)
  }

  private standing(): BodyState[] {
    return this.part.bodies.map(({ id }) =>
      bodyStateOf(this.part, id, {
        section: this.sections.get(id) ?? EMPTY_SECTION,
        plan: this.plans.get(id),
        found: this.foundOf(id),
        mesh: this.meshes.get(id),
        told: this.findings.told,
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

/**
 * The plan of a body that is no full turn after its section changed from one to another: the solid gains and loses
 * what the section does. The same plan for the same change, so that later steps know that nothing is new.
 */
const followed = (step: string, plan: SolidPlan, before: Section, after: Section): SolidPlan =>
  followedFrom(before)(plan)(after, step)

const followedFrom = once((before: Section) =>
  once((plan: SolidPlan) =>
    lastFor((after: Section, step: string): SolidPlan => {
      const lost = combine(before, after, 'cut') ?? EMPTY_SECTION
      const gained = combine(after, before, 'cut') ?? EMPTY_SECTION
      return { base: plan.base, ops: [...plan.ops, ...turnedOps(step, lost, gained)] }
    }),
  ),
)

const massOf = (bodies: readonly BodyState[]): number => bodies.reduce((sum, b) => sum + b.mass, 0)

const solidOf = once(solidProperties)

/** The integrals are taken when they are first asked for: a drag is painted before it is weighed. */
function bodyStateOf(
  part: Part,
  bodyId: string,
  {
    section,
    plan,
    found,
    mesh,
    told,
  }: Pick<BodyState, 'section' | 'plan' | 'mesh' | 'told'> & { readonly found: Found | undefined },
): BodyState {
  const body = part.bodies.find((b) => b.id === bodyId)
  const material = part.materials.find((m) => m.id === body?.material)
  const density = material?.density ?? 0
  return {
    bodyId,
    section,
    plan,
    mesh,
    told,
    reference: mesh !== undefined || body?.reference === true,
    get solid() {
      if (mesh) return undefined
      if (plan) return found?.ok ? found.value : undefined
      return solidOf(section)
    },
    get mass() {
      if (this.reference) return 0
      if (plan && !this.solid) return Number.NaN
      return (this.solid?.volume ?? 0) * density
    },
  }
}
