import { valuesOf, type Part } from '../part'
import { profileOf, type SectionEdge } from '../section'
import { entityMap, locator, measureSize, pieceOf, type Sketch } from '../sketch'
import { solve, withPositions, type Solution, type SizeValues } from '../solver'
import type { Problem } from '../result'
import type { Vec } from '../geometry'
import type { SketchState } from './state'

interface Remembered {
  /** The values the solution was found for. */
  readonly key: string
  readonly solution: Solution
}

const solutions = new WeakMap<Sketch, Remembered>()
const states = new WeakMap<Sketch, { readonly key: string; readonly state: SketchState }>()

/** The driving sizes of one sketch that have a value. */
function valuesFor(sketch: Sketch, part: Part): SizeValues {
  const { sizes } = valuesOf(part)
  return new Map(
    sketch.sizes.flatMap((s) => (sizes.has(s.id) ? [[s.id, sizes.get(s.id) ?? 0]] : [])),
  )
}

function keyOf(values: SizeValues): string {
  return [...values].map(([id, value]) => `${id}=${value}`).join(';')
}

function solutionOf(sketch: Sketch, values: SizeValues): Solution {
  const key = keyOf(values)
  const known = solutions.get(sketch)
  if (known?.key === key) return known.solution
  const solution = solve(sketch, values)
  solutions.set(sketch, { key, solution })
  return solution
}

/**
 * Solves every sketch and stores where its points come to stand. A sketch that cannot be solved
 * keeps the positions it has. Sketches that stand already stay the same objects.
 */
export function settle(part: Part): Part {
  const sketches = part.sketches.map((sketch) => {
    const values = valuesFor(sketch, part)
    const solution = solutionOf(sketch, values)
    if (!solution.solved) return sketch
    const settled = withPositions(sketch, solution.positions)
    solutions.set(settled, { key: keyOf(values), solution })
    return settled
  })
  return sketches.every((s, i) => s === part.sketches[i]) ? part : { ...part, sketches }
}

/**
 * The part with one sketch's points moved to where a drag holds them. The drag keeps constraints
 * and sizes, so what was known of freedoms still holds and nothing is solved again.
 */
export function withDragged(
  part: Part,
  sketchId: string,
  positions: ReadonlyMap<string, Vec>,
): Part {
  const sketches = part.sketches.map((sketch) => {
    if (sketch.id !== sketchId) return sketch
    const values = valuesFor(sketch, part)
    const before = solutionOf(sketch, values)
    const moved = withPositions(sketch, positions)
    solutions.set(moved, { key: keyOf(values), solution: { ...before, positions } })
    return moved
  })
  return { ...part, sketches }
}

/** What one sketch of a part comes to. */
export function sketchStateOf(sketch: Sketch, part: Part): SketchState {
  const values = valuesFor(sketch, part)
  const { problems } = valuesOf(part)
  const sizeProblems = new Map<string, Problem>()
  for (const size of sketch.sizes) {
    const problem = problems.get(size.id)
    if (problem) sizeProblems.set(size.id, problem)
  }
  const key = `${keyOf(values)}|${[...sizeProblems.values()].map((p) => p.message).join()}`
  const known = states.get(sketch)
  if (known?.key === key) return known.state
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const state: SketchState = {
    solution: solutionOf(sketch, values),
    profile: profileOf(outlineEdges(sketch), sketch.id),
    sizeProblems,
    measured: new Map(sketch.sizes.map((s) => [s.id, measureSize(s, lines, locate)])),
  }
  states.set(sketch, { key, state })
  return state
}

/** The sketch's outline as edges, named after the sketch until a step takes them. */
function outlineEdges(sketch: Sketch): SectionEdge[] {
  const locate = locator(sketch)
  return sketch.entities
    .filter((e) => e.role === 'outline')
    .map((e) => ({
      piece: pieceOf(e, locate),
      name: { step: sketch.id, entity: e.id, role: 'drawn' as const },
    }))
}
