import { analyseRank } from './rank'
import { createRandom } from './random'
import { buildSystem, initialUnknowns, writeCoordinates, type SizeValues } from './system'
import { rowsAt } from './witness'
import type { Sketch } from '../sketch'
import type { Vec } from '../geometry'

/**
 * How the sketch can still move: for each point the direction in which one motion takes it, the
 * longest being of length 1. The motion mixes all freedoms, so that whatever can move does.
 */
export function freeMotion(sketch: Sketch, values: SizeValues): ReadonlyMap<string, Vec> {
  const system = buildSystem(sketch, values)
  const here = new Float64Array(system.start.length)
  writeCoordinates(system, initialUnknowns(system), here)
  const rows = rowsAt((c) => system.unknownOf[c] ?? -1, system.equations, here)
  const report = analyseRank(rows, system.unknowns)
  const random = createRandom(0x70e)
  const motion = report.nullVector(() => random() - 0.5)
  const at = (coordinate: number): number => {
    const unknown = system.unknownOf[coordinate] ?? -1
    return unknown < 0 ? 0 : (motion[unknown] ?? 0)
  }
  const moves = system.pointIds.map((id, i) => [id, { x: at(2 * i), y: at(2 * i + 1) }] as const)
  const longest = Math.max(0, ...moves.map(([, v]) => Math.hypot(v.x, v.y)))
  if (longest === 0) return new Map()
  return new Map(
    moves.flatMap(([id, v]) => {
      const share = Math.hypot(v.x, v.y) / longest
      return share < 1e-6 ? [] : [[id, { x: v.x / longest, y: v.y / longest }] as const]
    }),
  )
}
