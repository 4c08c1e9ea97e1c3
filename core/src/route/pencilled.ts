import { boundsOf, simplePieces, type Piece } from '../geometry'
import {
  EMPTY_SECTION,
  combine,
  profileOf,
  solidProperties,
  type Section,
  type SectionEdge,
} from '../section'
import type { HalfSketch } from '../sketch'
import { VERTEX_TOLERANCE } from '../tolerances'
import { outlineEdges } from './sketches'

/** What a profile would be if it were turned, while no step turns it. It is no body, and weighs nothing. */
export interface Pencilled {
  /**
   * What it encloses. Of a profile that encloses nothing, one run of edges that need not meet: a skin, which is to
   * be seen and not to be reckoned with.
   */
  readonly section: Section
  readonly isClosed: boolean
  /** in mm³; nought for a skin */
  readonly volume: number
}

/**
 * A profile as it would be turned.
 * @param more what is being drawn to it and is no part of it yet
 * @returns undefined while there is nothing off the axis
 */
export function pencilled(sketch: HalfSketch, more: readonly Piece[]): Pencilled | undefined {
  const name = { step: sketch.id, entity: '~', role: 'drawn' as const }
  const drawn = more.flatMap(simplePieces).map((piece): SectionEdge => ({ piece, name }))
  const all = [...outlineEdges(sketch), ...drawn]
  const edges = all.filter(isOffAxis)
  if (edges.length === 0) return undefined
  const { section } = profileOf(all, sketch.id)
  if (section.regions.length > 0) {
    return { section, isClosed: true, volume: solidProperties(section)?.volume ?? 0 }
  }
  const skin = { ...EMPTY_SECTION, regions: [{ outer: edges, holes: [] }] }
  return { section: skin, isClosed: false, volume: 0 }
}

/** What a closed profile would take away from bodies if it were cut from them. */
export interface Taken {
  readonly sections: readonly Section[]
  /** in mm³ */
  readonly volume: number
}

/** @returns undefined for a skin, and where nothing would be taken */
export function takenBy(found: Pencilled, bodies: readonly Section[]): Taken | undefined {
  if (!found.isClosed) return undefined
  const all = bodies.flatMap((body) => combine(body, found.section, 'common') ?? [])
  const sections = all.filter((s) => s.regions.length > 0)
  const volume = sections.reduce((sum, s) => sum + (solidProperties(s)?.volume ?? 0), 0)
  return volume > 0 ? { sections, volume } : undefined
}

/** Whether an edge turns to a surface: it has a length, lies above the axis, and not along it. */
function isOffAxis({ piece }: SectionEdge): boolean {
  const { min, max } = boundsOf(piece)
  const hasLength = max.x - min.x + max.y - min.y > VERTEX_TOLERANCE
  return hasLength && min.y >= -VERTEX_TOLERANCE && max.y > VERTEX_TOLERANCE
}
