import { analyseSystem, blocksOf } from './analysis'
import { prepareBlock, type BlockSolver } from './leastChange'
import { buildSystem, initialUnknowns, writeCoordinates, type SizeValues } from './system'
import { endsOfHandles, type Sketch } from '../sketch'
import type { Vec } from '../geometry'

/** How much more a dragged coordinate resists being moved than the rest. */
const GRIP = 1e4

/** How much more the end resists that a dragged handle belongs to. */
const FIRM = 1e8

export interface DragSession {
  /**
   * Where the points stand when the dragged ones are pulled by a vector in mm from where the drag
   * began. Constraints and sizes hold; what need not move does not.
   */
  readonly move: (by: Vec) => ReadonlyMap<string, Vec>
  /** False when none of the dragged points can move. */
  readonly movable: boolean
}

/**
 * Begins to drag points. Merging, ranking and ordering are done here once; a move then only solves
 * the blocks the dragged points belong to, always from where the drag began, so that going back
 * leads back.
 * @param alongIds points that go along where nothing holds them
 */
export function startDrag(
  sketch: Sketch,
  values: SizeValues,
  draggedIds: readonly string[],
  alongIds: readonly string[] = [],
): DragSession {
  const system = buildSystem(sketch, values)
  const analysis = analyseSystem(system)
  const coordinates = new Float64Array(system.start.length)
  const base = initialUnknowns(system)
  writeCoordinates(system, base, coordinates)
  const blocks = blocksOf(system, analysis.independent)
  const solverOf = (block: (typeof blocks)[number]): BlockSolver =>
    prepareBlock(
      system,
      block.equations.flatMap((e) => analysis.independent[e] ?? []),
      block.unknowns,
      coordinates,
    )
  for (const block of blocks) {
    if (block.determined) solverOf(block).solve(base)
  }
  const free = blocks.filter((b) => !b.determined)
  const freeUnknowns = new Set(free.flatMap((b) => b.unknowns))

  const unknownsOf = (ids: readonly string[]): Map<number, 'x' | 'y'> => {
    const found = new Map<number, 'x' | 'y'>()
    for (const id of ids) {
      const i = system.pointIds.indexOf(id)
      if (i < 0) continue
      for (const axis of ['x', 'y'] as const) {
        const u = system.unknownOf[2 * i + (axis === 'x' ? 0 : 1)] ?? -1
        if (freeUnknowns.has(u)) found.set(u, axis)
      }
    }
    return found
  }
  const pulls = unknownsOf(draggedIds)
  const along = unknownsOf(alongIds)
  const stiffness = new Float64Array(system.unknowns).fill(1)
  // A handle is turned about the end it belongs to.
  const firm = unknownsOf(endsOfHandles(sketch, draggedIds))
  for (const u of pulls.keys()) stiffness[u] = GRIP
  for (const u of firm.keys()) stiffness[u] = FIRM
  const touched = free.filter((b) => b.equations.length > 0 && b.unknowns.some((u) => pulls.has(u)))
  const solvers = touched.map(solverOf)
  let last = base

  const positionsAt = (unknowns: Float64Array): ReadonlyMap<string, Vec> => {
    writeCoordinates(system, unknowns, coordinates)
    return new Map(
      system.pointIds.map((id, i) => [
        id,
        { x: coordinates[2 * i] ?? 0, y: coordinates[2 * i + 1] ?? 0 },
      ]),
    )
  }

  const move = (by: Vec): ReadonlyMap<string, Vec> => {
    const next = base.slice()
    for (const [u, axis] of [...along, ...pulls]) next[u] = (base[u] ?? 0) + by[axis]
    writeCoordinates(system, next, coordinates)
    if (solvers.every((solver) => solver.solve(next, stiffness))) last = next
    return positionsAt(last)
  }

  return { move, movable: pulls.size > 0 }
}
