import { isFree } from './measure'
import type { Entity, Sketch, SketchParallel } from './types'

/** What lies beside a curve as a part file tells it: by the curve's id alone. */
export type StoredParallel = Omit<SketchParallel, 'along'>

/**
 * The sketch with what lies beside curves beside them as they are now; what lies beside none any more is left out.
 * It stays the same object where nothing changes.
 */
export function withParallels<S extends Sketch>(sketch: S): S {
  if (!sketch.entities.some((e) => e.kind === 'parallel')) return sketch
  const curves = new Map(sketch.entities.filter(isFree).map((e) => [e.id, e]))
  let changed = false
  const entities = sketch.entities.flatMap((e): Entity[] => {
    if (e.kind !== 'parallel') return [e]
    const along = curves.get(e.of)
    if (along && along === e.along) return [e]
    changed = true
    return along ? [{ ...e, along }] : []
  })
  return changed ? { ...sketch, entities } : sketch
}

/** The same sketch as a part file tells it. */
export function withoutCurves(sketch: Sketch): object {
  if (!sketch.entities.some((e) => e.kind === 'parallel')) return sketch
  const entities = sketch.entities.map((e): Entity | StoredParallel => {
    if (e.kind !== 'parallel') return e
    const { along: _, ...stored } = e
    return stored
  })
  return { ...sketch, entities }
}
