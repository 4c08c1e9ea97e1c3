import { planeWords, type Size, type SketchPlane } from '@lathica/core'

const SIZE_WORDS: Readonly<Record<Size['kind'], string>> = {
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

/** A kind of size in a word or two, as it is called in a plane. */
export function sizeWord(kind: Size['kind'], plane: SketchPlane): string {
  const words = planeWords(plane)
  if (kind === 'axialDistance') return `${words.axial} distance`
  return kind === 'radialDistance' ? `${words.radial} distance` : SIZE_WORDS[kind]
}
