import { SECTION_ID, locator, type Linked, type Sketch } from '../sketch'
import type { Vec } from '../geometry'

/** Where a corner of the section lies, by its key, as the sketch finds the part. */
export type Places = (key: string) => Vec | undefined

/** Whether a sketch follows corners of the section. */
export const followsSection = (sketch: Sketch): boolean =>
  sketch.constraints.some((c) => c.kind === 'linked' && c.profile === SECTION_ID)

/**
 * The sketch with its links at the places their sources have in earlier profiles or in the section.
 * It stays the same object when none has moved; a link whose source is gone keeps its place.
 */
export function withLinks(sketch: Sketch, earlier: readonly Sketch[], places: Places): Sketch {
  let changed = false
  const constraints = sketch.constraints.map((c) => {
    if (c.kind !== 'linked') return c
    const at = sourceOf(c, earlier, places)
    if (!at || (at.x === c.x && at.y === c.y)) return c
    changed = true
    return { ...c, x: at.x, y: at.y }
  })
  return changed ? { ...sketch, constraints } : sketch
}

/** Links of a sketch whose source is gone, by their ids. */
export function lostLinks(
  sketch: Sketch,
  earlier: readonly Sketch[],
  places: Places,
): readonly string[] {
  return sketch.constraints.flatMap((c) =>
    c.kind === 'linked' && !sourceOf(c, earlier, places) ? [c.id] : [],
  )
}

function sourceOf(link: Linked, earlier: readonly Sketch[], places: Places): Vec | undefined {
  if (link.profile === SECTION_ID) return places(link.source)
  const source = earlier.find((s) => s.id === link.profile)
  if (!source?.points.some((p) => p.id === link.source)) return undefined
  return locator(source)(link.source)
}
