import { idsInName } from '../names'
import { once } from '../once'
import { usesSketch, type Part, type Step } from '../part'
import type { Sketch } from '../sketch'

/** What a step stands on, and what stands on it; ids of steps and of profiles. */
export interface Dependence {
  /** The profile it is made from. */
  readonly profile: string | undefined
  /** Earlier steps whose faces, edges or work it refers to, itself or through its profile. */
  readonly needs: readonly string[]
  /** Later steps that refer to it. */
  readonly carries: readonly string[]
}

/** Which steps refer to which, by the names of faces and edges in them and in their profiles. */
export function dependenceOf(part: Part, stepId: string): Dependence {
  const step = part.route.find((s) => s.id === stepId)
  const needed = new Map(part.route.map((s) => [s.id, neededBy(s, part)]))
  return {
    profile: step && usesSketch(step) ? step.sketch : undefined,
    needs: part.route.flatMap((s) => (needed.get(stepId)?.has(s.id) === true ? [s.id] : [])),
    carries: part.route.flatMap((s) => (needed.get(s.id)?.has(stepId) === true ? [s.id] : [])),
  }
}

/** The steps that are made from each profile, by its id. */
export const stepsFrom = once((route: readonly Step[]): ReadonlyMap<string, readonly Step[]> => {
  const found = new Map<string, Step[]>()
  for (const step of route) {
    const { sketch: _, ...rest } = { sketch: '', ...step }
    const words = new Set([...wordsIn(rest), ...(usesSketch(step) ? [step.sketch] : [])])
    for (const word of words) found.set(word, [...(found.get(word) ?? []), step])
  }
  return found
})

function neededBy(step: Step, part: Part): ReadonlySet<string> {
  const { id: _, ...rest } = step
  const words = new Set(wordsIn(rest))
  const sketch = usesSketch(step) && part.sketches.find((s) => s.id === step.sketch)
  if (sketch) for (const word of linkedWords(sketch)) words.add(word)
  const steps = part.route.filter((s) => s.id !== step.id)
  const needed = steps.filter((s) => words.has(s.id) || (usesSketch(s) && words.has(s.sketch)))
  return new Set(needed.map((s) => s.id))
}

/** What a profile's links to the section and to other profiles name. */
function linkedWords(sketch: Sketch): string[] {
  return sketch.constraints.flatMap((c) =>
    c.kind === 'linked' ? wordsIn([c.profile, c.source]) : [],
  )
}

/** No key is longer than this. */
const LONGEST_KEY = 10_000

/** Keys fall apart into the ids they are made of. */
function wordsIn(value: unknown): string[] {
  if (typeof value === 'string') {
    // Packed files are no keys.
    return value.length > LONGEST_KEY ? [] : [...idsInName(value)]
  }
  if (typeof value !== 'object' || value === null) return []
  return Object.values(value).flatMap(wordsIn)
}
