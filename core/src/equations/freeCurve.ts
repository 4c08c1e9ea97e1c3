import { byPoints, type Cubic, type Reading, type Vec } from '../geometry'
import { cubicsIn, curvePoints, splineOf, type FreeCurve } from '../sketch'

import type { Measure } from './equations'

/** Reads something off the cubics of a curve. */
export type ReadCurve = (cubics: readonly Cubic[]) => Reading

/** Something read off a free curve, by its points. @param index the number of a point */
export function onFreeCurve(
  curve: FreeCurve,
  index: (pointId: string) => number,
  read: ReadCurve,
): Measure {
  const ids = curvePoints(curve)
  const numbers = new Map(ids.map((id) => [id, index(id)]))
  return {
    coordinates: ids.flatMap((id) => [2 * index(id), 2 * index(id) + 1]),
    evaluate(at, gradient, slot, weight) {
      const locate = (id: string): Vec => {
        const n = numbers.get(id) ?? 0
        return { x: at[2 * n] ?? 0, y: at[2 * n + 1] ?? 0 }
      }
      const reading = read(cubicsIn(curve, locate))
      const told = slopesOf(curve, reading, locate)
      ids.forEach((_, i) => {
        gradient[slot + 2 * i] = weight * (told[i]?.x ?? 0)
        gradient[slot + 2 * i + 1] = weight * (told[i]?.y ?? 0)
      })
      return reading.value
    },
  }
}

/** The derivatives of a reading by the points of a curve, in their order. */
function slopesOf(curve: FreeCurve, { by }: Reading, locate: (id: string) => Vec): readonly Vec[] {
  if (curve.kind === 'curve') {
    const [[a, b, c, d] = []] = by()
    return [a, d, b, c].map((p) => p ?? { x: 0, y: 0 })
  }
  const { places, ends } = byPoints(splineOf(curve, locate), by())
  return [
    ...places,
    ...(curve.fromHandle === '' ? [] : [ends[0]]),
    ...(curve.toHandle === '' ? [] : [ends[1]]),
  ]
}
