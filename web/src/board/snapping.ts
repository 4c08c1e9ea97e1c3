import {
  add,
  distance,
  line,
  meetingsOf,
  nearestOn,
  pointAt,
  scale,
  type Piece,
  type Vec,
} from '@lathica/core/geometry'
import type { Sketch } from '@lathica/core/sketch'
import type { NewConstraint } from '@lathica/core/constraints'
import type { Section } from '@lathica/core/section'
import type { EndMarks } from '@lathica/core/solid'
import type { End } from '@lathica/core/edit'
import type { Px, View } from './view'

/** Kinds of suggestions, each of which can be switched off. */
export const SUGGESTION_KINDS = {
  points: 'ends and centres',
  section: 'on the section and other profiles',
  middles: 'middles of lines',
  crossings: 'crossings',
  curves: 'on curves and the axis',
  directions: 'axial and radial directions',
  tangents: 'smooth joins',
  inLine: 'in line with other points',
  grid: 'grid',
} as const

export type SuggestionKind = keyof typeof SUGGESTION_KINDS

export interface Grid {
  /** distance of the finer lines, in mm */
  readonly minor: number
  /** every how many of them is a heavier one */
  readonly major: number
}

/** What is suggested, and the grid that places are rounded to. */
export interface Suggesting {
  readonly kinds: ReadonlySet<SuggestionKind>
  readonly grid: Grid
}

/** Everything that is suggested from the start. */
export const USUAL: Suggesting = {
  kinds: new Set(['points', 'section', 'middles', 'crossings', 'curves', 'directions', 'tangents']),
  grid: { minor: 1, major: 10 },
}

/** Where a new point would go, and what it would be tied to. */
export interface Snap {
  readonly end: End
  readonly directions: readonly ('axial' | 'radial')[]
  /** Further constraints; the piece drawn goes by `~piece`, its end by `~to`. */
  readonly ties: readonly NewConstraint[]
  /** What would be taken, in words; empty when nothing is suggested. */
  readonly words: readonly string[]
  readonly guides: readonly (readonly [Vec, Vec])[]
}

/** What a snap is sought from. */
export interface SnapQuery {
  readonly sketch: Sketch
  readonly view: View
  readonly at: Px
  readonly suggesting: Suggesting
  /** profiles before this one, whose corners and edges can be built on */
  readonly earlier?: readonly Sketch[]
  /** the part as it stands before the profile's own step */
  readonly standing?: readonly Section[]
  /** the part seen from the end, for an end sketch */
  readonly endMarks?: readonly EndMarks[]
  /** where the piece starts, if it has begun */
  readonly from?: End | undefined
  /** true while suggestions are refused: the place is then taken as it is */
  readonly refuse: boolean
  /** false for curves, whose chord has no direction worth a constraint */
  readonly straight?: boolean
}

/** A line this near to axial, radial or smooth is offered as such, in radians. */
export const NEAR_DIRECTION = (5 * Math.PI) / 180
export const CURVE_SNAP = 7
export const IN_LINE_SNAP = 5

export const free = (at: Vec): Snap => ({
  end: { at },
  directions: [],
  ties: [],
  words: [],
  guides: [],
})

/** The place on a piece: where the direction from the start meets it, or the nearest place. */
export function ontoPiece(piece: Piece, snap: Snap, from: End | undefined): Vec | undefined {
  const { at } = snap.end
  if (snap.directions.length === 0 && snap.ties.length === 0) {
    return pointAt(piece, nearestOn(piece, at).t)
  }
  if (!from) return undefined
  const way = { x: at.x - from.at.x, y: at.y - from.at.y }
  const ray = line(from.at, add(from.at, scale(way, 1.5)))
  const meetings = meetingsOf(ray, piece, 1e-9).map((m) => m.at)
  return meetings.sort((p, q) => distance(p, at) - distance(q, at))[0]
}

/** Whether a way is axial or radial, to within an angle in radians. */
export function directionsBetween(
  from: Vec | undefined,
  to: Vec,
  within: number,
): ('axial' | 'radial')[] {
  if (!from) return []
  const [dx, dy] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  if (dx === 0 && dy === 0) return []
  if (Math.atan2(dy, dx) <= within) return ['axial']
  if (Math.atan2(dx, dy) <= within) return ['radial']
  return []
}
