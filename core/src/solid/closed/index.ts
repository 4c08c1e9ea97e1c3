import { once } from '../../once'
import { solidProperties, type Section } from '../../section'
import type { LiftedProperties } from '../lifted'
import type { SolidPlan, SolidTool } from '../plan'
import { crossed } from './crossed'
import { drilled } from './drilled'
import { milledAlong, milledOut } from './milled'
import { pierced } from './pierced'
import { allApart, left, type Taken } from './taken'

/**
 * Figures of solids without the kernel: of a full turn that has holes along its axis or slots through it between plane
 * faces, keyways, flats and end slots over lands, and plain cross holes, none of which touches another. What each takes
 * away is integrated by itself, exactly but for rounding.
 * @returns undefined where something of it is left to the kernel
 */
export const closedFigures = once((plan: SolidPlan): LiftedProperties | undefined => {
  const { base, ops } = plan
  if (base.regions.length !== 1 || ops.length === 0) return undefined
  const whole = solidProperties(base)
  if (!whole) return undefined
  const all: (readonly Taken[])[] = []
  for (const op of ops) {
    if (op.kind !== 'combine' || op.effect !== 'cut') return undefined
    for (const tool of op.tools) {
      const taken = takenBy(tool, base)
      if (!taken) return undefined
      all.push(taken)
    }
  }
  return allApart(all) ? left(whole, all.flat()) : undefined
})

/** What a tool takes of a full turn; undefined where that is left to the kernel. */
function takenBy(tool: SolidTool, base: Section): readonly Taken[] | undefined {
  if (tool.kind === 'turned') return drilled(tool, base) ?? crossed(tool, base)
  if (tool.kind !== 'prism' || tool.draft) return undefined
  return milledOut(tool, base) ?? milledAlong(tool, base) ?? pierced(tool, base)
}
