import type { Problem, Result } from '../result'
import { once } from '../once'
import { closedFigures } from './closed'
import { planKey } from './content'
import type { LiftedProperties } from './lifted'
import type { SolidPlan } from './plan'
import { withTold, type SolidAsk, type SolidsTold, type SolidTold } from './told'

/** What the kernel came to for a plan: its figures, or why it could not be built. */
export type Found =
  | { readonly ok: true; readonly value: LiftedProperties }
  | { readonly ok: false; readonly problem: Problem }

/**
 * What the kernel has come to so far, by the content of plans: it holds for every evaluation of a part that comes to
 * the same plan. Never changed: what is found makes new findings.
 */
export interface Findings {
  readonly plans: ReadonlyMap<string, Found>
  /** What was measured on solids. */
  readonly told: SolidsTold
}

export const NOTHING_FOUND: Findings = { plans: new Map(), told: new Map() }

/** So many plans are remembered: far more than a part has bodies and steps. */
const MOST_FOUND = 2000

/** The findings with one more; the oldest are let go of when there are very many. */
export function withFound(findings: Findings, plan: SolidPlan, what: Found): Findings {
  const key = planKey(plan)
  const kept = [...findings.plans].filter(([k]) => k !== key).slice(1 - MOST_FOUND)
  return { ...findings, plans: new Map([...kept, [key, what]]) }
}

/** The findings with one more answer about solids. */
export const withAnswer = (
  findings: Findings,
  ask: SolidAsk,
  answer: Result<SolidTold>,
): Findings => ({ ...findings, told: withTold(findings.told, ask, answer) })

/** Figures that need no kernel, as something found; the same for the same plan. */
const closedFound = once((plan: SolidPlan): Found | undefined => {
  const value = closedFigures(plan)
  return value && { ok: true, value }
})

/** What is known of a plan: that it cannot be built, or its figures, in closed form where there is one. */
export function knownFor(findings: Findings, plan: SolidPlan): Found | undefined {
  const found = foundFor(findings, plan)
  return found?.ok === false ? found : (closedFound(plan) ?? found)
}

/** What the kernel came to for this plan; undefined while it was not asked or has not answered. */
export const foundFor = (findings: Findings, plan: SolidPlan): Found | undefined =>
  findings.plans.get(planKey(plan))
