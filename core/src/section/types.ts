import { faceName } from '../names'
import { VERTEX_TOLERANCE } from '../tolerances'
import type { Piece, Vec } from '../geometry'
import { once } from '../once'

/**
 * Where an edge of a section comes from. Picks, fillets and targets refer to these names, never to
 * indices, so that they hold when sizes change.
 */
export interface EdgeName {
  /** The step that made the edge. */
  readonly step: string
  /**
   * What it is within the step: the sketch entity it was drawn as, the word for a face of a groove or
   * a bore, or, for an edge made from others, their keys in parentheses.
   */
  readonly entity: string
  /** Drawn by hand, closing a profile along the axis, or made by a step from sizes or other edges. */
  readonly role: 'drawn' | 'axis' | 'made'
}

/** An edge's name as one text, as steps refer to it: the step, a slash, the entity. */
export const edgeKey = once((name: EdgeName): string => faceName(name.step, name.entity))

/** The name of an edge that a step makes from other edges. */
export function madeFrom(step: string, what: string, ...names: readonly EdgeName[]): EdgeName {
  return { step, entity: `${what}(${names.map(edgeKey).join('+')})`, role: 'made' }
}

/** One edge of a section: a smooth piece and its name. */
export interface SectionEdge {
  readonly piece: Piece
  readonly name: EdgeName
}

/** Edges along the axis close a section, however they came about, but are no surface of the part. */
export function liesOnAxis({ piece }: SectionEdge): boolean {
  const { kind, from, to } = piece
  return (
    kind === 'line' && Math.abs(from.y) <= VERTEX_TOLERANCE && Math.abs(to.y) <= VERTEX_TOLERANCE
  )
}

/** A closed run of edges, each beginning where the one before ends. */
export type Loop = readonly SectionEdge[]

/** A connected area: its outer loop runs counter-clockwise, its holes clockwise. */
export interface Region {
  readonly outer: Loop
  readonly holes: readonly Loop[]
}

/** The half-section of a body: material above the axis. */
export interface Section {
  readonly regions: readonly Region[]
}

export const EMPTY_SECTION: Section = { regions: [] }

/** All loops of a section, outer ones and holes. */
export function loopsOf(section: Section): Loop[] {
  return section.regions.flatMap((r) => [r.outer, ...r.holes])
}

/** All edges of a section, loop after loop. */
export const edgesOf = once((section: Section): readonly SectionEdge[] => {
  const [only, ...more] = loopsOf(section)
  return more.length === 0 ? (only ?? []) : [only ?? [], ...more].flat()
})

/** The section with every loop changed, regions and holes staying what they are. */
export function withLoops(section: Section, change: (loop: Loop) => Loop): Section {
  return {
    regions: section.regions.map((r) => ({ outer: change(r.outer), holes: r.holes.map(change) })),
  }
}

/** A place where a profile is not sound. */
export interface ProfileFault {
  readonly kind: 'open' | 'crossing' | 'doubled' | 'belowAxis' | 'zeroLength'
  readonly at: Vec
  /** The sketch entities concerned. */
  readonly entities: readonly string[]
  /** For loose ends: the distance in mm to the nearest other loose end. */
  readonly gap?: number
}
