import { boundsInto } from '../../geometry'
import { VERTEX_TOLERANCE } from '../../tolerances'
import type { SectionEdge } from '../types'

/** Left, low, right and high of each edge in mm, in one row. */
export function boxesOf(edges: readonly SectionEdge[]): Float64Array {
  const boxes = new Float64Array(4 * edges.length)
  for (let i = 0; i < edges.length; i++) {
    const edge = edges[i]
    if (edge) boundsInto(boxes, 4 * i, edge.piece)
  }
  return boxes
}

export const numberAt = (numbers: Float64Array, i: number): number => numbers[i] ?? 0

/**
 * Visits every two edges whose boxes come within the tolerance of one another, by a sweep along the
 * axis.
 * @param boxes as of `boxesOf`
 * @param isFar tells edges that are left out
 */
export function forNearPairs(
  boxes: Float64Array,
  isFar: (i: number) => boolean,
  visit: (i: number, j: number) => void,
): void {
  const active: number[] = []
  for (const i of byLeft(boxes, isFar)) {
    const left = numberAt(boxes, 4 * i) - VERTEX_TOLERANCE
    const low = numberAt(boxes, 4 * i + 1) - VERTEX_TOLERANCE
    const high = numberAt(boxes, 4 * i + 3) + VERTEX_TOLERANCE
    let kept = 0
    for (const j of active) {
      if (numberAt(boxes, 4 * j + 2) < left) continue
      active[kept++] = j
      if (numberAt(boxes, 4 * j + 1) <= high && numberAt(boxes, 4 * j + 3) >= low) visit(i, j)
    }
    active.length = kept
    active.push(i)
  }
}

/**
 * The edges that are not far, by where they begin along the axis: put into as many bins as there are
 * edges, which are spread along the axis, and sorted by insertion from there.
 */
function byLeft(boxes: Float64Array, isFar: (i: number) => boolean): Int32Array {
  const count = boxes.length / 4
  let [low, high] = [Infinity, -Infinity]
  for (let i = 0; i < count; i++) {
    low = Math.min(low, numberAt(boxes, 4 * i))
    high = Math.max(high, numberAt(boxes, 4 * i))
  }
  const perMm = high > low ? (count - 1) / (high - low) : 0
  const binOf = (i: number): number => Math.floor((numberAt(boxes, 4 * i) - low) * perMm)
  const fill = new Int32Array(count + 1)
  let left = 0
  for (let i = 0; i < count; i++) {
    if (isFar(i)) continue
    const bin = binOf(i) + 1
    fill[bin] = (fill[bin] ?? 0) + 1
    left++
  }
  for (let bin = 1; bin <= count; bin++) fill[bin] = (fill[bin] ?? 0) + (fill[bin - 1] ?? 0)
  const order = new Int32Array(left)
  for (let i = 0; i < count; i++) {
    if (isFar(i)) continue
    const bin = binOf(i)
    const place = fill[bin] ?? 0
    order[place] = i
    fill[bin] = place + 1
  }
  for (let k = 1; k < left; k++) {
    const i = order[k] ?? 0
    const key = numberAt(boxes, 4 * i)
    let place = k
    for (; place > 0 && numberAt(boxes, 4 * (order[place - 1] ?? 0)) > key; place--) {
      order[place] = order[place - 1] ?? 0
    }
    order[place] = i
  }
  return order
}
