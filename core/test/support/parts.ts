import {
  locator,
  perform,
  type Command,
  type Part,
  type Sketch,
  type SketchSpline,
  type Vec,
} from '../../src'

/** Runs commands one after another; a refusal fails the test with its sentence. */
export function must(part: Part, ...commands: readonly Command[]): Part {
  return commands.reduce((here, command) => {
    const result = perform(here, command)
    if (!result.ok) throw new Error(`${command.label}: ${result.problem.message}`)
    return result.value
  }, part)
}

/** One of a part's profiles, the first when no number is given. */
export function sketchOf(part: Part, number = 0): Sketch {
  const sketch = part.sketches[number]
  if (!sketch) throw new Error('there is no such profile')
  return sketch
}

/** One of the free curves of many places of a part's first profile. */
export function splineIn(part: Part, number = 0): SketchSpline {
  const found = sketchOf(part).entities.filter((e) => e.kind === 'spline')[number]
  if (found?.kind !== 'spline') throw new Error('there is no such curve')
  return found
}

/** Where a point of a part's first profile stands. */
export const placeIn = (part: Part, id: string): Vec => locator(sketchOf(part))(id)
