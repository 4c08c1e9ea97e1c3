import { once } from '../../once'
import type { Section } from '../../section'
import type { SolidPlan, SolidTool } from '../plan'
import { crossed } from './crossed'
import { drilled } from './drilled'
import { milledBy } from './milled'
import { pierced } from './pierced'
import { allApart, type Taken } from './taken'

/** What each tool of a plan takes of the full turn it begins with; undefined where something of it is left to the kernel. */
export const takenOf = once(
  ({ base, ops }: SolidPlan): readonly (readonly Taken[])[] | undefined => {
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
  },
)

/** The same where nothing of what one takes touches what another takes. */
export const takenApart = once((plan: SolidPlan): readonly Taken[] | undefined => {
  const all = takenOf(plan)
  return all && allApart(all) ? all.flat() : undefined
})

/** What a tool takes of a full turn; undefined where that is left to the kernel. */
function takenBy(tool: SolidTool, base: Section): readonly Taken[] | undefined {
  if (tool.kind === 'turned') {
    return drilled(tool, base) ?? crossed(tool, base)?.map((c) => c.taken)
  }
  if (tool.kind !== 'prism' || tool.draft) return undefined
  return milledBy(tool, base) ?? pierced(tool, base)
}
