import {
  AXIS_ID,
  ORIGIN_ID,
  isAcross,
  type DrawnSketch,
  type Entity,
  type SketchPlane,
} from './types'

/** What directions and given places are called in a plane. */
export interface PlaneWords {
  readonly axis: string
  readonly origin: string
  /** Along x, and along y. */
  readonly axial: string
  readonly radial: string
}

const HALF_WORDS: PlaneWords = {
  axis: 'the axis',
  origin: 'the datum point',
  axial: 'axial',
  radial: 'radial',
}

const END_WORDS: PlaneWords = {
  axis: 'the level centre line',
  origin: 'the centre',
  axial: 'level',
  radial: 'upright',
}

export const planeWords = (plane: SketchPlane): PlaneWords =>
  isAcross(plane) ? END_WORDS : HALF_WORDS

/** What a kind of entity is called: a free curve is a curve, of however many places. */
export const kindWord = (kind: Entity['kind']): string => (kind === 'spline' ? 'curve' : kind)

/** What a point or curve is called in a sentence: its kind and its place in the sketch, from 1. */
export function entityName(sketch: DrawnSketch, id: string): string {
  const words = planeWords(sketch.plane)
  if (id === AXIS_ID) return words.axis
  if (id === ORIGIN_ID) return words.origin
  const found = sketch.entities.findIndex((e) => e.id === id)
  if (found >= 0) return `${kindWord(sketch.entities[found]?.kind ?? 'line')} ${found + 1}`
  const point = sketch.points.findIndex((p) => p.id === id)
  return point >= 0 ? `point ${point + 1}` : 'something deleted'
}
