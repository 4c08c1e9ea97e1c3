import { succeed } from '../result'
import { referencesOf, type Sketch } from '../sketch'
import { sketchCommand, type Command } from './command'

/**
 * Deletes points, lines, constraints and sizes. What stands on a deleted point or line goes with
 * it; points that no line ends at any more go too.
 */
export function removeItems(sketchId: string, ids: readonly string[]): Command {
  return sketchCommand(ids.length === 1 ? 'delete' : `delete ${ids.length}`, sketchId, (sketch) =>
    succeed(without(sketch, new Set(ids))),
  )
}

function without(sketch: Sketch, gone: ReadonlySet<string>): Sketch {
  const entities = sketch.entities.filter(
    (e) => !gone.has(e.id) && !gone.has(e.from) && !gone.has(e.to),
  )
  const lost = sketch.entities.filter((e) => !entities.includes(e))
  const held = new Set(entities.flatMap((e) => [e.from, e.to]))
  const orphans = new Set(lost.flatMap((e) => [e.from, e.to]).filter((p) => !held.has(p)))
  const points = sketch.points.filter((p) => !gone.has(p.id) && !orphans.has(p.id))
  const left = new Set([...points.map((p) => p.id), ...entities.map((e) => e.id)])
  const stands = (item: Parameters<typeof referencesOf>[0]): boolean =>
    !gone.has(item.id) && referencesOf(item).every((id) => left.has(id))
  return {
    ...sketch,
    points,
    entities,
    constraints: sketch.constraints.filter(stands),
    sizes: sketch.sizes.filter(stands),
  }
}
