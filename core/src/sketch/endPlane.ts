import { place, type Frame } from '../geometry'
import type { EndPlane } from './types'

/**
 * The frame of sketches square to the axis: their x and y as the part is seen from an end, with the
 * half-section upwards of a lying part, to the right of a standing one; its z towards the eye.
 * @param plane seen from the greater end, or from the lesser one
 */
export function endPlane(lie: 'lying' | 'standing', plane: EndPlane): Frame {
  const way = plane === 'lesserEnd' ? -1 : 1
  return {
    at: place(0, 0, 0),
    x: lie === 'lying' ? place(0, -way, 0) : place(1, 0, 0),
    z: place(0, 0, way),
  }
}
