import { line, vec, type Piece } from '../../geometry'
import { bodyOf, usesSketch } from '../../part'
import type { PartState } from '../../route'
import { entityMap, restLocator } from '../../sketch'
import { symmetryAxes } from '../asked/alike'
import type { Item } from '../items'
import type { View } from './turned'

/** How far centre lines of symmetric profiles go beyond the view, and their marks, in mm (ISO 128-3:2020). */
const BEYOND = 4
const MARK = 3.5
const APART = 1

/** Where the profiles of bodies are symmetric along the axis: a centre line with two short lines across at each end. */
export function symmetryLines(
  state: PartState,
  { radius }: View,
  placeOf: (x: number) => number,
  isHere: (body: string) => boolean,
): Item[] {
  const done = new Set(state.steps.filter((s) => s.status === 'done').map((s) => s.stepId))
  const places = state.part.route.flatMap((step): number[] => {
    if (step.kind === 'unknown' || !usesSketch(step) || !done.has(step.id)) return []
    if (!isHere(bodyOf(step) ?? '')) return []
    const sketch = state.part.sketches.find((s) => s.id === step.sketch)
    const positions = sketch && state.sketches.get(sketch.id)?.solution.positions
    if (!sketch || !positions) return []
    return symmetryAxes(sketch, entityMap(sketch), restLocator(sketch, positions))
  })
  const unique = places.filter((x, i) => places.findIndex((p) => Math.abs(p - x) < 1e-6) === i)
  const far = radius + BEYOND
  const marks = unique.flatMap((x) =>
    [1, -1].flatMap((side) =>
      [0, APART].map((off): Piece[] => {
        const y = side * (far - 1 - off)
        return [line(vec(placeOf(x) - MARK / 2, y), vec(placeOf(x) + MARK / 2, y))]
      }),
    ),
  )
  if (unique.length === 0) return []
  return [
    {
      ...{ kind: 'stroke', line: 'centre' },
      runs: unique.map((x) => [line(vec(placeOf(x), -far), vec(placeOf(x), far))]),
    },
    { kind: 'stroke', line: 'narrow', runs: marks },
  ]
}
