import { once } from '../../once'
import { solidProperties } from '../../section'
import type { LiftedProperties } from '../lifted'
import type { SolidPlan } from '../plan'
import { takenApart, takenOf } from './apart'
import { left, type Reach } from './taken'

export { landOf, type Land } from './lands'
export { isUpright, sidesOf, type Side } from './milled'
export { boredIn, type Bored, type BoredAside, type BoredOutline, type BoredRound } from './bored'

/**
 * Figures of solids without the kernel: of a full turn that has holes along its axis or slots through it between plane
 * faces, keyways, flats and end slots over lands, and plain cross holes, none of which touches another. What each takes
 * away is integrated by itself, exactly but for rounding.
 * @returns undefined where something of it is left to the kernel
 */
export const closedFigures = once((plan: SolidPlan): LiftedProperties | undefined => {
  if (plan.base.regions.length !== 1 || plan.ops.length === 0) return undefined
  const whole = solidProperties(plan.base)
  const taken = takenApart(plan)
  return whole && taken && left(whole, taken)
})

/**
 * An angle about the axis at which none of some bodies has lost anything of the surfaces of its full turn: there, what
 * they are to one another is what full turns are. Undefined where there is none, or more was done than is known here.
 */
export function untouchedAngle(plans: readonly SolidPlan[]): number | undefined {
  const taken = plans.map(takenOf)
  if (taken.some((all) => all === undefined)) return undefined
  const spans = taken.flatMap((all) => (all ?? []).flat().map(({ reach }) => spanOf(reach)))
  spans.sort(([a], [b]) => a - b)
  const [first] = spans
  if (!first) return 0
  // What goes past the first turn covers its beginning.
  let end = Math.max(...spans.map(([, to]) => to - TURN), first[1])
  for (const [from, to] of [...spans.slice(1), [first[0] + TURN, Infinity] as const]) {
    if (from > end + ANGLE_APART) return (from + end) / 2
    end = Math.max(end, to)
  }
  return undefined
}

/** In radians. */
const TURN = 2 * Math.PI
const ANGLE_APART = 1e-6

/** From where to where surfaces are broken about the axis, beginning within the first turn. */
function spanOf({ angle, half, broken = half }: Reach): readonly [number, number] {
  const from = (((angle - broken) % TURN) + TURN) % TURN
  return [from, from + 2 * broken]
}
