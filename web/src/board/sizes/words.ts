import type { Size } from '@lathica/core'

/** A kind of size in a word or two. */
export const SIZE_WORDS: Readonly<Record<Size['kind'], string>> = {
  length: 'length',
  axialDistance: 'axial distance',
  radialDistance: 'radial distance',
  distance: 'straight distance',
  diameter: 'diameter',
  span: 'span',
  gap: 'distance',
  radius: 'radius',
  curveDiameter: 'diameter',
  arcLength: 'arc length',
  angle: 'angle',
}
