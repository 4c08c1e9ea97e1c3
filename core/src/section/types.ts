import type { Piece, Vec } from '../geometry'

/**
 * Where an edge of a section comes from. Picks, fillets and targets refer to these names, never to
 * indices, so that they hold when sizes change.
 */
export interface EdgeName {
  /** The step that made the edge. */
  readonly step: string
  /** The sketch entity it was drawn as; the axis for edges that close a profile along it. */
  readonly entity: string
  /** Drawn by hand, or closing a profile along the axis. */
  readonly role: 'drawn' | 'axis'
}

/** One edge of a section: a smooth piece and its name. */
export interface SectionEdge {
  readonly piece: Piece
  readonly name: EdgeName
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

/** A place where a profile is not sound. */
export interface ProfileFault {
  readonly kind: 'open' | 'crossing' | 'doubled' | 'belowAxis' | 'zeroLength'
  readonly at: Vec
  /** The sketch entities concerned. */
  readonly entities: readonly string[]
  /** For loose ends: the distance in mm to the nearest other loose end. */
  readonly gap?: number
}
