import { sketchStates } from '../../route'
import type { Part } from '../../part'
import type { Disagreement } from '../../solver'

/** Disagreements that one sketch has in a part, as the solver names them. */
export function disagreementsOf(part: Part, sketchId: string): readonly Disagreement[] {
  return sketchStates(part).get(sketchId)?.solution.disagreements ?? []
}

/** The first disagreement that has one of some new items as a member. */
export function disagreementWith(
  part: Part,
  sketchId: string,
  ids: readonly string[],
): Disagreement | undefined {
  return disagreementsOf(part, sketchId).find((d) => d.members.some((m) => ids.includes(m)))
}
