import { once } from '../../once'
import { solidProperties, type Section } from '../../section'
import type { LiftedProperties } from '../lifted'
import type { SolidPlan, SolidTool } from '../plan'
import { crossed } from './crossed'
import { drilled } from './drilled'
import { milledAlong, milledOut } from './milled'
import { pierced } from './pierced'
import { allApart, left, type Reach, type Taken } from './taken'

/** What each tool of a plan takes of the full turn it begins with; undefined where something of it is left to the kernel. */
const takenOf = once(({ base, ops }: SolidPlan): readonly (readonly Taken[])[] | undefined => {
  const all: (readonly Taken[])[] = []
  for (const op of ops) {
    if (op.kind !== 'combine' || op.effect !== 'cut') return undefined
    for (const tool of op.tools) {
      const taken = takenBy(tool, base)
      if (!taken) return undefined
      all.push(taken)
    }
  }
  return all
})

/**
 * Figures of solids without the kernel: of a full turn that has holes along its axis or slots through it between plane
 * faces, keyways, flats and end slots over lands, and plain cross holes, none of which touches another. What each takes
 * away is integrated by itself, exactly but for rounding.
 * @returns undefined where something of it is left to the kernel
 */
export const closedFigures = once((plan: SolidPlan): LiftedProperties | undefined => {
  if (plan.base.regions.length !== 1 || plan.ops.length === 0) return undefined
  const whole = solidProperties(plan.base)
  const all = takenOf(plan)
  return whole && all && allApart(all) ? left(whole, all.flat()) : undefined
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

/** What a tool takes of a full turn; undefined where that is left to the kernel. */
function takenBy(tool: SolidTool, base: Section): readonly Taken[] | undefined {
  if (tool.kind === 'turned') return drilled(tool, base) ?? crossed(tool, base)
  if (tool.kind !== 'prism' || tool.draft) return undefined
  return milledOut(tool, base) ?? milledAlong(tool, base) ?? pierced(tool, base)
}
