import { METRIC } from '@lathica/core/units'
import { cornersOf, edgeKey, edgesOf, type Section } from '@lathica/core/section'
import type { CornerPick, GrooveStep, NewStep, Part } from '@lathica/core/part'
import { evaluate, faceWords } from '@lathica/core/route'
import { addStep } from '@lathica/core/edit'
import { run } from './outline'

/** A body as it stands after all steps so far. */
function section(part: Part, body: string): Section {
  const found = evaluate(part).bodies.find((b) => b.bodyId === body)
  if (!found) throw new Error(`there is no ${body}`)
  return found.section
}

/** The key of a face, by its words as the card shows them. */
export function face(part: Part, words: string, body = 'body1'): string {
  const edge = edgesOf(section(part, body)).find((e) => faceWords(e, METRIC) === words)
  if (!edge) throw new Error(`there is no ${words}`)
  return edgeKey(edge.name)
}

/** Circular edges by axial position and diameter in mm. */
export function edgesAt(
  part: Part,
  places: readonly (readonly [x: number, diameter: number])[],
  body = 'body1',
): CornerPick {
  const all = cornersOf(section(part, body))
  const corners = places.map(([x, diameter]) => {
    const corner = all.find(({ at }) => Math.hypot(at.x - x, at.y - diameter / 2) < 1e-6)
    if (!corner) throw new Error(`there is no edge of ${diameter} at ${x}`)
    return corner.key
  })
  return { kind: 'corners', corners }
}

/** Puts steps in one after another; each may refer to what those before it made. */
export function withSteps(part: Part, ...steps: readonly ((part: Part) => NewStep)[]): Part {
  return steps.reduce((here, step) => {
    const next = run(here, addStep(step(here)))
    const problem = evaluate(next).steps.at(-1)?.problem
    if (problem) throw new Error(`${problem.message} ${problem.mend}`)
    return next
  }, part)
}

export const chamfer = (
  along: string,
  places: readonly (readonly [number, number])[],
): ((part: Part) => NewStep) => {
  return (part) => ({
    ...{ kind: 'chamfer', body: 'body1' },
    sets: [{ pick: edgesAt(part, places), along, across: '', angle: '45' }],
  })
}

export const fillet = (
  radius: string,
  places: readonly (readonly [number, number])[],
): ((part: Part) => NewStep) => {
  return (part) => ({
    kind: 'fillet',
    body: 'body1',
    sets: [{ pick: edgesAt(part, places), radius }],
  })
}

/** A groove in the face of these words. */
export const groove = (
  words: string,
  change: Pick<GrooveStep, 'form' | 'place' | 'sizes'> & Partial<GrooveStep>,
): ((part: Part) => NewStep) => {
  return (part) => ({
    ...{ kind: 'groove', body: 'body1', on: face(part, words), count: '1', pitch: '' },
    ...change,
  })
}
