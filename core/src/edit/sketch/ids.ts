import type { Sketch } from '../../sketch'

/** An id not used before, and the sketch that remembers it is taken. */
export function takeId(sketch: Sketch, prefix: string): readonly [string, Sketch] {
  return [`${prefix}${sketch.nextId}`, { ...sketch, nextId: sketch.nextId + 1 }]
}
