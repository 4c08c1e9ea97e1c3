import { locator, type Linked, type Sketch } from '../sketch'

/**
 * The sketch with its links at the places their sources have in earlier profiles. It stays the same
 * object when none has moved; a link whose source is gone keeps its place.
 */
export function withLinks(sketch: Sketch, earlier: readonly Sketch[]): Sketch {
  let changed = false
  const constraints = sketch.constraints.map((c) => {
    if (c.kind !== 'linked') return c
    const at = sourceOf(c, earlier)
    if (!at || (at.x === c.x && at.y === c.y)) return c
    changed = true
    return { ...c, x: at.x, y: at.y }
  })
  return changed ? { ...sketch, constraints } : sketch
}

/** Links of a sketch whose source is gone, by their ids. */
export function lostLinks(sketch: Sketch, earlier: readonly Sketch[]): readonly string[] {
  return sketch.constraints.flatMap((c) =>
    c.kind === 'linked' && !sourceOf(c, earlier) ? [c.id] : [],
  )
}

function sourceOf(link: Linked, earlier: readonly Sketch[]) {
  const source = earlier.find((s) => s.id === link.profile)
  if (!source?.points.some((p) => p.id === link.source)) return undefined
  return locator(source)(link.source)
}
