import type { Place } from '../geometry'
import type { Problem } from '../result'
import type { SolidProperties } from '../section'
import { planKey } from './content'
import type { SolidPlan } from './plan'

/** Figures of a body that is no full turn, for a density of 1. */
export interface LiftedProperties extends SolidProperties {
  /** The centre of volume in mm; it may lie off the axis. */
  readonly centre: Place
  /** How many pieces it is in. */
  readonly pieces: number
}

/** What the kernel came to for a plan: its figures, or why it could not be built. */
export type Found =
  | { readonly ok: true; readonly value: LiftedProperties }
  | { readonly ok: false; readonly problem: Problem }

/** So many plans are remembered: far more than a part has bodies and steps. */
const MOST_FOUND = 2000

const found = new Map<string, Found>()
let count = 0

/**
 * Notes what the kernel came to. Plans are compared by content, so that what was found holds for
 * every evaluation of the part that comes to the same.
 */
export function noteFound(plan: SolidPlan, what: Found): void {
  const key = planKey(plan)
  found.delete(key)
  found.set(key, what)
  count += 1
  if (found.size > MOST_FOUND) for (const oldest of found.keys()) return void found.delete(oldest)
}

/** What the kernel came to for this plan; undefined while it was not asked or has not answered. */
export const foundFor = (plan: SolidPlan): Found | undefined => found.get(planKey(plan))

/** Grows with everything that is noted: what was reckoned from figures before may have changed. */
export const foundCount = (): number => count
