import { ORIGIN_ID, type SketchSpline } from '@lathica/core/sketch'
import type { Part } from '@lathica/core/part'
import { addSize, drawCurve } from '@lathica/core/edit'
import { run } from './outline'

/** Places of an outline: axial position and diameter in mm. */
export type Places = readonly (readonly [x: number, diameter: number])[]

/** Draws a curve through places, from a point that is there or a new one. */
export function curved(part: Part, sketch: string, places: Places, from?: string): Part {
  return run(
    part,
    drawCurve({
      ...{ sketch, way: 'through', role: 'outline', square: false },
      places: places.map(([x, diameter], i) => ({
        at: { x, y: diameter / 2 },
        ...(i === 0 && from !== undefined ? { point: from } : {}),
      })),
    }),
  )
}

export function curveOf(part: Part, number: number): SketchSpline {
  const found = part.sketches[number]?.entities.find((e) => e.kind === 'spline')
  if (found?.kind !== 'spline') throw new Error('the curve is drawn')
  return found
}

/**
 * Puts sizes on places of a curve: how far along from the one before it stands, and its diameter.
 * @param but numbers of places that are left to what else holds the curve
 */
export function sized(
  part: Part,
  number: number,
  places: Places,
  but: readonly number[] = [],
): Part {
  const { from, by, to } = curveOf(part, number)
  const sketch = part.sketches[number]?.id ?? ''
  const points = [from, ...by, to]
  let [before, at] = [ORIGIN_ID, 0]
  return points.reduce((here, point, i) => {
    if (but.includes(i)) return here
    const [x = 0, diameter = 0] = places[i] ?? []
    const along = String(x - at)
    const done = run(
      here,
      addSize(sketch, { kind: 'axialDistance', a: before, b: point }, along),
      addSize(sketch, { kind: 'diameter', point }, String(diameter)),
    )
    ;[before, at] = [point, x]
    return done
  }, part)
}
