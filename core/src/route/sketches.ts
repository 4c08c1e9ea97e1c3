import { measureSize } from '../constraints'
import { once } from '../once'
import { usesChain, valuesOf, type Part, type SketchSizes } from '../part'
import { profileOf, type ProfileFault, type SectionEdge } from '../section'
import { simplePieces } from '../geometry'
import { entityMap, locator, piecesOf, type Sketch } from '../sketch'
import { solve, type Solution, type SizeValues } from '../solver'
import { lostLinks } from './links'
import type { SketchState } from './state'

interface Remembered {
  /** The values the solution was found for. */
  readonly key: string
  readonly solution: Solution
}

/**
 * The last solution of each sketch. Solving writes it, and so does a drag, which knows where its points stand and what
 * freedoms are left without solving again.
 */
const solutions = new WeakMap<Sketch, Remembered>()

/** Keeps what is known of a solution for the sketch it led to. */
export function remember(sketch: Sketch, driving: Driving, solution: Solution): void {
  solutions.set(sketch, { key: driving.key, solution })
}

/** The last state of each sketch, for the sizes, links and chains that its key tells. */
const states = new WeakMap<Sketch, { readonly key: string; readonly state: SketchState }>()

/** The driving sizes of one sketch that have a value, and a text that tells them from others. */
export interface Driving {
  readonly values: SizeValues
  readonly key: string
}

/** Found once for all positions of a sketch: a drag changes neither formulas nor sizes. */
export const drivingOf = (sketch: Sketch, part: Part): Driving =>
  drivingIn(valuesOf(part).sizesOf(sketch.id))

const drivingIn = once(({ values }: SketchSizes): Driving => ({
  values,
  key: [...values].map(([id, value]) => `${id}=${value}`).join(';'),
}))

export function solutionOf(sketch: Sketch, { values, key }: Driving): Solution {
  const known = solutions.get(sketch)
  if (known?.key === key) return known.solution
  const solution = solve(sketch, values)
  solutions.set(sketch, { key, solution })
  return solution
}

/** What every sketch of a part comes to, by its id. */
export const sketchStates = (part: Part): ReadonlyMap<string, SketchState> =>
  new Map(part.sketches.map((s) => [s.id, sketchStateOf(s, part)]))

/** What one sketch of a part comes to. */
function sketchStateOf(sketch: Sketch, part: Part): SketchState {
  // Corners of the section are not known yet; the route looks after links to them.
  const earlier = part.sketches.slice(0, part.sketches.indexOf(sketch))
  const lost = lostLinks(sketch, earlier, () => ({ x: 0, y: 0 }))
  const driving = drivingOf(sketch, part)
  const sizeProblems = valuesOf(part).sizesOf(sketch.id).problems
  const problemKey = [...sizeProblems.values()].map((p) => p.message).join()
  // The ends of a chain that becomes a wall are meant to be open.
  const walled = part.route.some((s) => usesChain(s) && s.sketch === sketch.id)
  const key = [driving.key, problemKey, lost.join(), String(walled)].join('|')
  const known = states.get(sketch)
  if (known?.key === key) return known.state
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const profile = profileOf(outlineEdges(sketch), sketch.id, sketch.plane)
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
export function outlineEdges(sketch: Sketch): SectionEdge[] {
  const locate = locator(sketch)
  return sketch.entities
    .filter((e) => e.role === 'outline')
    .flatMap((e) => {
      const name = { step: sketch.id, entity: e.id, role: 'drawn' as const }
      return piecesOf(e, locate)
        .flatMap(simplePieces)
        .map((piece) => ({ piece, name }))
    })
}
