import { leftNormal, mapped, pointAt, type Vec } from '../../geometry'
import type { Section } from '../../section'
import { partsOf } from './places'
import { facesOf, wallsOf, wayTo } from './ray'

/** A place of a body's outline, with how thick its material is there, square to the face. */
export interface Thickness {
  readonly at: Vec
  /** Into the material, of length 1. */
  readonly inward: Vec
  /** In mm. */
  readonly value: number
}

/** So many places of one edge are looked at, at least and at most. */
const PLACES = [3, 60] as const

/**
 * How thick a section's material is along its faces, square to each of them: to where a straight way into it comes out
 * again, beyond the axis too.
 * @param spacing in mm along the outline, about
 * @returns a run of places for each edge that is a face, in the order of the outline
 */
export function thicknessAlong(
  section: Section,
  spacing: number,
): readonly (readonly Thickness[])[] {
  const faces = facesOf(section)
  const images = faces.map((piece) => mapped(piece, (p) => ({ x: p.x, y: -p.y }), true))
  const walls = wallsOf([...faces, ...images])
  const reach = 2 * Math.max(1, ...faces.map((p) => Math.abs(p.from.x) + Math.abs(p.from.y)))
  return faces.map((piece) => {
    const count = partsOf(piece, spacing, PLACES)
    return Array.from({ length: count }, (_, i): Thickness => {
      // Between its corners, where it is not told what is square to the outline.
      const t = (i + 0.5) / count
      const [at, inward] = [pointAt(piece, t), leftNormal(piece, t)]
      return { at, inward, value: wayTo(walls, at, inward, reach) }
    })
  })
}

/** The place where a wall is thinnest, of those that were looked at; undefined where there is none. */
export function thinnest(runs: readonly (readonly Thickness[])[]): Thickness | undefined {
  const [first, ...rest] = runs.flat()
  return first && rest.reduce((a, b) => (b.value < a.value ? b : a), first)
}
