import { byPoints, endRead, nearestRead, type Cubic, type Reading, type Vec } from '../geometry'
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

/**
 * The distance of p from a free curve, positive on the left of its direction. As the foot is square across from p,
 * moving it along the curve changes nothing: the curve counts where it is, across.
 */
export const offFree = (p: number, curve: FreeCurve, index: (pointId: string) => number): Measure =>
  placeBy(p, curve, index, nearestRead)

/** How far p lies on from an end of a free curve in its direction there, or to the left of it. */
export const besideEnd = (
  p: number,
  curve: FreeCurve,
  end: 0 | 1,
  index: (pointId: string) => number,
  what: 'along' | 'left',
): Measure => placeBy(p, curve, index, (cubics, place) => endRead(cubics, end, place, what))

/** Something read off a free curve and a place, which stays the same where both are moved together. */
function placeBy(
  p: number,
  curve: FreeCurve,
  index: (pointId: string) => number,
  read: (cubics: readonly Cubic[], place: Vec) => Reading,
): Measure {
  let at: Vec = { x: 0, y: 0 }
  const own = onFreeCurve(curve, index, (cubics) => read(cubics, at))
  return {
    coordinates: [2 * p, 2 * p + 1, ...own.coordinates],
    evaluate(places, gradient, slot, weight) {
      at = { x: places[2 * p] ?? 0, y: places[2 * p + 1] ?? 0 }
      const value = own.evaluate(places, gradient, slot + 2, weight)
      // As far as all of the curve goes one way with it, the point goes the other.
      let [x, y] = [0, 0]
      own.coordinates.forEach((_, k) => {
        const by = gradient[slot + 2 + k] ?? 0
        if (k % 2 === 0) x -= by
        else y -= by
      })
      gradient[slot] = x
      gradient[slot + 1] = y
      return value
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
