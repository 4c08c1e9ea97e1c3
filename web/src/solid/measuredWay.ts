import { addPlaces, scalePlace, type Place } from '@lathica/core/geometry'

/** A way through space. */
interface Way {
  readonly from: Place
  readonly to: Place
}

/** A way as a line that is lit: x, y, z of both ends. */
export const lineOf = ({ from, to }: Way): Float32Array =>
  Float32Array.of(from.x, from.y, from.z, to.x, to.y, to.z)

/** Where the words of a way stand. */
export const middleOf = ({ from, to }: Way): Place => scalePlace(addPlaces(from, to), 0.5)
