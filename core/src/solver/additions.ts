import { analyseRank } from './rank'
import { buildSystem, initialUnknowns, unmergedSystem, type SizeValues } from './system'
import { rowsAt, witnessNear } from './witness'
import type { Sketch } from '../sketch'

/**
 * Which of many constraints and sizes, taken one after another, each take a freedom that those before them leave. All
 * are judged by one elimination at a witness, not by solving: what it says is to be confirmed by a solution.
 * @param sketch with all of them in it; it holds where it stands
 * @param values driving sizes by id, those of the additions too
 * @param additions ids in the order in which they are taken
 */
export function takingFreedoms(
  sketch: Sketch,
  values: SizeValues,
  additions: readonly string[],
): readonly string[] {
  const added = new Set(additions)
  const bare = {
    ...sketch,
    constraints: sketch.constraints.filter((c) => !added.has(c.id)),
    sizes: sketch.sizes.filter((s) => !added.has(s.id)),
  }
  const base = unmergedSystem(buildSystem(bare, values))
  const coordinates = witnessNear(base, initialUnknowns(base), 0x5eed) ?? base.start
  const { equations, unknowns, unknownOf } = unmergedSystem(buildSystem(sketch, values))
  const rows = rowsAt((c) => unknownOf[c] ?? -1, equations, coordinates)
  const placeOf = new Map(additions.map((id, i) => [id, i + 1]))
  const order = [...rows.keys()].sort(
    (a, b) =>
      (placeOf.get(equations[a]?.owner ?? '') ?? 0) - (placeOf.get(equations[b]?.owner ?? '') ?? 0),
  )
  const { dependent } = analyseRank(rows, unknowns, order)
  const idle = new Set(dependent.map((d) => equations[d.row]?.owner ?? ''))
  return additions.filter((id) => !idle.has(id))
}
