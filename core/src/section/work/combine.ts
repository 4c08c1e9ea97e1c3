import {
  boundsOf,
  line,
  mapped,
  mirroredAcross,
  reversed,
  translated,
  type Piece,
  type Vec,
} from '../../geometry'
import { AXIS_ID } from '../../sketch'
import { areaOfLoop } from '../engine/nesting'
import { overlay, type Rule } from '../engine/overlay'
import type { Outline } from '../engine/split'
import {
  edgesOf,
  loopsOf,
  madeFrom,
  withLoops,
  type EdgeName,
  type Section,
  type SectionEdge,
} from '../types'

/** What a section does with another: becomes part of it, is taken from it, or keeps what both have. */
export type Effect = 'add' | 'cut' | 'common'

const RULES: Readonly<Record<Effect, Rule>> = {
  add: (a, b) => a > 0 || b > 0,
  cut: (a, b) => a > 0 && b <= 0,
  common: (a, b) => a > 0 && b > 0,
}

/**
 * Two sections made one. Where edges coincide the first section's names stay.
 * @returns undefined when rounding left the outline open
 */
export function combine(first: Section, second: Section, effect: Effect): Section | undefined {
  if (second.regions.length === 0) return effect === 'common' ? second : first
  if (first.regions.length === 0) return effect === 'add' ? second : first
  return overlay(edgesOf(first), edgesOf(second), RULES[effect])
}

/** The area of a half-section in mm². */
export function sectionArea(section: Section): number {
  return loopsOf(section).reduce((sum, loop) => sum + areaOfLoop(loop), 0)
}

/** Where a section begins and ends along the axis, in mm. */
export function extentOf(section: Section): readonly [number, number] {
  const boxes = edgesOf(section).map((e) => boundsOf(e.piece))
  return [Math.min(...boxes.map((b) => b.min.x)), Math.max(...boxes.map((b) => b.max.x))]
}

/** The diagonal of the box around edges, in mm: nothing in them is farther apart. */
export function diagonalOf(edges: Outline): number {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const { piece } of edges) {
    const { min, max } = boundsOf(piece)
    x0 = Math.min(x0, min.x)
    y0 = Math.min(y0, min.y)
    x1 = Math.max(x1, max.x)
    y1 = Math.max(y1, max.y)
  }
  return edges.length > 0 ? Math.hypot(x1 - x0, y1 - y0) : 0
}

/** The section moved along the axis; its edges are named as a step's copies. @param by in mm */
export function movedAlong(section: Section, by: number, rename: Rename): Section {
  return withLoops(section, (loop) =>
    loop.map((e) => ({ piece: translated(e.piece, { x: by, y: 0 }), name: rename(e.name) })),
  )
}

/** The section at other places, its edges by their names. @param mirrors whether left and right change sides */
export function sectionAt(section: Section, image: (p: Vec) => Vec, mirrors: boolean): Section {
  return withLoops(section, (loop) => {
    const edges = loop.map((e) => ({ ...e, piece: mapped(e.piece, image, mirrors) }))
    return mirrors ? edges.reverse().map((e) => ({ ...e, piece: reversed(e.piece) })) : edges
  })
}

type Rename = (name: EdgeName) => EdgeName

/** The section mirrored about the plane square to the axis at x in mm. */
export function mirroredSection(section: Section, x: number, step: string): Section {
  return withLoops(section, (loop) =>
    [...loop].reverse().map((e) => ({
      piece: mirroredAcross(e.piece, x),
      name: e.name.role === 'axis' ? { ...e.name, step } : madeFrom(step, 'mirror', e.name),
    })),
  )
}

/** Names for the n-th copy that a step makes. */
export const asCopy =
  (step: string, n: number): Rename =>
  (name) =>
    name.role === 'axis' ? { ...name, step } : madeFrom(step, `copy${n}`, name)

/** What of a set of closed runs lies above the axis; the cut along it is named as axis. */
export function aboveAxis(section: Section, step: string): Section | undefined {
  const edges = edgesOf(section)
  const xs = edges.flatMap(({ piece }) => reachOf(piece))
  if (xs.length === 0) return section
  const low = Math.min(...xs.map((p) => p.y))
  if (low >= 0) return section
  const [x0, x1] = [Math.min(...xs.map((p) => p.x)) - 1, Math.max(...xs.map((p) => p.x)) + 1]
  const y1 = Math.max(...xs.map((p) => p.y)) + 1
  const axis: EdgeName = { step, entity: AXIS_ID, role: 'axis' }
  const corners = [
    { x: x0, y: 0 },
    { x: x1, y: 0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ]
  const frame: Outline = corners.map((p, i): SectionEdge => ({
    piece: line(p, corners[(i + 1) % 4] ?? p),
    name: axis,
  }))
  return overlay(frame, edges, RULES.common)
}

/** Places that a piece does not reach beyond. */
function reachOf(piece: Piece): { readonly x: number; readonly y: number }[] {
  if (piece.kind === 'line') return [piece.from, piece.to]
  if (piece.kind === 'cubic') return [...piece.on]
  const r = Math.hypot(piece.from.x - piece.centre.x, piece.from.y - piece.centre.y)
  const { x, y } = piece.centre
  return [
    { x: x - r, y: y - r },
    { x: x + r, y: y + r },
  ]
}
