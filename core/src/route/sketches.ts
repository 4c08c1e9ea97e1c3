import { valuesOf, type Part, type PartValues } from '../part'
import { profileOf, type ProfileFault, type SectionEdge } from '../section'
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

/** The driving sizes of one sketch that have a value, and a text that tells them from others. */
interface Driving {
  readonly values: SizeValues
  readonly key: string
}

const drivingSizes = new WeakMap<PartValues, WeakMap<Sketch['sizes'], Driving>>()

/** Found once for all positions of a sketch: a drag changes neither formulas nor sizes. */
function drivingOf(sketch: Sketch, part: Part): Driving {
  const all = valuesOf(part)
  const bySketch = drivingSizes.get(all) ?? new WeakMap<Sketch['sizes'], Driving>()
  drivingSizes.set(all, bySketch)
  const known = bySketch.get(sketch.sizes)
  if (known) return known
  const values = new Map<string, number>()
  for (const { id } of sketch.sizes) {
    const value = all.sizes.get(id)
    if (value !== undefined) values.set(id, value)
  }
  const key = [...values].map(([id, value]) => `${id}=${value}`).join(';')
  const driving = { values, key }
  bySketch.set(sketch.sizes, driving)
  return driving
}

function solutionOf(sketch: Sketch, { values, key }: Driving): Solution {
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
    const driving = drivingOf(sketch, part)
    const solution = solutionOf(sketch, driving)
    const settled = solution.solved ? withPositions(sketch, solution.positions) : sketch
    solutions.set(settled, { key: driving.key, solution })
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
    const driving = drivingOf(sketch, part)
    const before = solutionOf(sketch, driving)
    const moved = withPositions(sketch, positions)
    solutions.set(moved, { key: driving.key, solution: { ...before, positions } })
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
  const driving = drivingOf(sketch, part)
  const { problems } = valuesOf(part)
  const sizeProblems = new Map<string, Problem>()
  for (const size of sketch.sizes) {
    const problem = problems.get(size.id)
    if (problem) sizeProblems.set(size.id, problem)
  }
  const problemKey = [...sizeProblems.values()].map((p) => p.message).join()
  // The ends of a chain that becomes a wall are meant to be open.
  const walled = part.route.some((s) => s.kind === 'wall' && s.sketch === sketch.id)
  const key = [driving.key, problemKey, lost.join(), String(walled)].join('|')
  const known = states.get(sketch)
  if (known?.key === key) return known.state
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const profile = profileOf(outlineEdges(sketch), sketch.id)
  const state: SketchState = {
    solution: solutionOf(sketch, driving),
    profile: walled ? { ...profile, faults: profile.faults.filter(isNotOpen) } : profile,
    sizeProblems,
    lostLinks: lost,
    measured: new Map(sketch.sizes.map((s) => [s.id, measureSize(s, lines, locate)])),
  }
  states.set(sketch, { key, state })
  return state
}

const isNotOpen = (fault: ProfileFault): boolean => fault.kind !== 'open'

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
