import type { SolidOp } from '../../solid'
import type { StepContext } from './context'

/** The steps that are done again in the order of the route, and what the solid ones of them do. */
export function repeatedSteps(
  chosen: readonly string[],
  context: StepContext,
): { readonly ids: readonly string[]; readonly sources: ReadonlyMap<string, readonly SolidOp[]> } {
  const place = new Map(chosen.map((id) => [id, context.placeOf(id) ?? 0]))
  const ids = [...chosen].sort((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0))
  const sources = ids.map((id) => [id, context.outcomeOf(id)?.work?.ops ?? []] as const)
  return { ids, sources: new Map(sources) }
}
