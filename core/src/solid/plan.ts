import { PART_FRAME, type Frame, type Piece, type Place } from '../geometry'
import type { Section } from '../section'
import type { EdgeCalled } from '../names'
import type { StretchOrder } from './stretches'

/**
 * What the solid kernel is to build, as plain data in mm and radians: a half-section that is turned
 * once, and what is then joined to it, cut from it or changed on it. The route resolves formulas and
 * references; the kernel knows of neither.
 */

/** A section turned about the z of its frame, fully, or from one angle on by another. */
export interface TurnedTool {
  readonly kind: 'turned'
  readonly section: Section
  readonly frame: Frame
  readonly turn?: { readonly from: number; readonly by: number }
}

/** An outline in the frame's first two directions, drawn out along its third. */
export interface PrismTool {
  readonly kind: 'prism'
  readonly outline: Section
  readonly frame: Frame
  readonly from: number
  readonly to: number
  /** Its sides lean inwards, or outwards where negative, away from a plane of its own, in radians. */
  readonly draft?: { readonly angle: number; readonly at: number }
}

/** A section turned about the part's axis as a regular polygon, its radii told to the flats. */
export interface FacetTool {
  readonly kind: 'facets'
  readonly section: Section
  readonly sides: number
  /** The angle of the middle of a flat. */
  readonly phase: number
}

/** An outline carried along a path in the frame's first two directions. */
export interface SweptTool {
  readonly kind: 'swept'
  readonly path: readonly Piece[]
  /** About the path: x to its left in the plane, y square to the plane. */
  readonly outline: Section
  readonly frame: Frame
  /** As a full turn of the part's axis, what the tool leaves free: the inside of a vessel. */
  readonly without: Section
}

/** Another body as it stands, perhaps mirrored about a plane first, put into a frame. */
export interface BodyTool {
  readonly kind: 'body'
  readonly plan: SolidPlan
  readonly mirror?: { readonly at: Place; readonly normal: Place }
  readonly frame: Frame
}

/** A solid of an exchange file (ISO 10303-21), packed, perhaps mirrored first, put into a frame. */
export interface FileTool {
  readonly kind: 'file'
  readonly file: string
  readonly solid: number
  /** Its plane faces, as an import step keeps them. */
  readonly planes: readonly (readonly number[])[]
  readonly mirror?: { readonly at: Place; readonly normal: Place }
  readonly frame: Frame
}

export type SolidTool = (TurnedTool | PrismTool | FacetTool | SweptTool | BodyTool | FileTool) & {
  /** Tells the faces of one tool from those of its likes: “@2”; empty for an only one. */
  readonly mark: string
}

/** Material joined, taken away or kept in common with all tools together. */
export interface CombineOp {
  readonly kind: 'combine'
  /** The step it is from. */
  readonly step: string
  readonly effect: 'add' | 'cut' | 'common'
  readonly tools: readonly SolidTool[]
}

/** All edges where the faces of a step meet others, or those called by the two faces that meet. */
export type EdgesOf =
  | {
      readonly kind: 'step'
      readonly step: string
      /** Of what another step has done again instead: the faces it has marked so. */
      readonly copy?: { readonly by: string; readonly mark: string }
    }
  | {
      readonly kind: 'faces'
      readonly edges: readonly EdgeCalled[]
      /** How stretches are counted, where not as they stand. */
      readonly order?: StretchOrder
    }

/** Edges of a solid, rounded or bevelled. */
export interface EdgeOp {
  readonly kind: 'edges'
  readonly step: string
  readonly sets: readonly {
    readonly of: EdgesOf
    /** Tells the faces of a copy from those of its likes; none for the first. */
    readonly mark?: string
    readonly work:
      | { readonly kind: 'round'; readonly radius: number }
      /** Along the face beside the step's own, and across into it. */
      | { readonly kind: 'bevel'; readonly along: number; readonly across: number }
  }[]
}

/** A solid hollowed out to a wall, with faces left open. */
export interface ShellOp {
  readonly kind: 'shell'
  readonly step: string
  /** in mm */
  readonly thickness: number
  /** Names of faces. */
  readonly open: readonly string[]
}

export type SolidOp = CombineOp | EdgeOp | ShellOp

/** A body that is no full turn: what was turned at first, and what was done since. */
export interface SolidPlan {
  /** The section up to the first step that is no full turn; without regions for none. */
  readonly base: Section
  readonly ops: readonly SolidOp[]
}

/** Full turns after the first step that is none: what the section lost and gained. */
export function turnedOps(step: string, lost: Section, gained: Section): SolidOp[] {
  const op = (effect: 'add' | 'cut', section: Section): SolidOp[] =>
    section.regions.length === 0
      ? []
      : [
          {
            ...{ kind: 'combine', step, effect },
            tools: [{ kind: 'turned', section, frame: PART_FRAME, mark: '' }],
          },
        ]
  return [...op('cut', lost), ...op('add', gained)]
}
