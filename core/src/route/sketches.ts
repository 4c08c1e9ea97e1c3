import { valuesOf, type Part } from '../part'
import { profileOf, type SectionEdge } from '../section'
import { entityMap, locator, measureSize, pieceOf, type Sketch } from '../sketch'
import { solve, withPositions, type Solution, type SizeValues } from '../solver'
import type { Problem } from '../result'
import type { Vec } from '../geometry'
import { lostLinks, withLinks } from './links'
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
 * Solves every sketch in order, each with what it follows of those before it, and stores where its
 * points come to stand. A sketch that cannot be solved keeps the positions it has. Sketches that
 * stand already stay the same objects.
 */
export function settle(part: Part): Part {
  const sketches: Sketch[] = []
  for (const stored of part.sketches) {
    const sketch = withLinks(stored, sketches)
    const values = valuesFor(sketch, part)
    const solution = solutionOf(sketch, values)
    const settled = solution.solved ? withPositions(sketch, solution.positions) : sketch
    solutions.set(settled, { key: keyOf(values), solution })
    sketches.push(settled)
  }
  return sketches.every((s, i) => s === part.sketches[i]) ? part : { ...part, sketches }
}

/**
 * The part with one sketch's points moved to where a drag holds them, and what follows them. The
 * drag keeps constraints and sizes, so what was known of freedoms still holds and the sketch itself
 * is not solved again.
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
  const dragged = { ...part, sketches }
  const followed = sketches.some((s) =>
    s.constraints.some((c) => c.kind === 'linked' && c.profile === sketchId),
  )
  return followed ? settle(dragged) : dragged
}

/** What one sketch of a part comes to. */
export function sketchStateOf(sketch: Sketch, part: Part): SketchState {
  const lost = lostLinks(sketch, part.sketches.slice(0, part.sketches.indexOf(sketch)))
  const values = valuesFor(sketch, part)
  const { problems } = valuesOf(part)
  const sizeProblems = new Map<string, Problem>()
  for (const size of sketch.sizes) {
    const problem = problems.get(size.id)
    if (problem) sizeProblems.set(size.id, problem)
  }
  const problemKey = [...sizeProblems.values()].map((p) => p.message).join()
  const key = [keyOf(values), problemKey, lost.join()].join('|')
  const known = states.get(sketch)
  if (known?.key === key) return known.state
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const state: SketchState = {
    solution: solutionOf(sketch, values),
    profile: profileOf(outlineEdges(sketch), sketch.id),
    sizeProblems,
    lostLinks: lost,
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
