import type { Note, NoteKind, Part } from '../part'
import type { FieldSchema } from '../part/fields'
import type { Problem } from '../result'
import type { Corner, SectionEdge } from '../section'

/** What a note stands on, and what else is said of the part. */
export interface NoteContext {
  readonly part: Part
  /** The pieces of its face as the part stands; none where it is said of all faces, or of a corner. */
  readonly edges: readonly SectionEdge[]
  /** Whether it stands on a face that no full turn made: of a hole, a flat, a slot. */
  readonly isSolid?: boolean
  /** The corner it stands on, if it does. */
  readonly corner?: Corner
  /** Every note of the part. */
  readonly all: readonly Note[]
}

/** What a note comes to. */
export interface NoteTold {
  /** As it is written on the drawing, without symbols. */
  readonly words: string
  /** What is wrong with it. */
  readonly problem?: Problem
}

/** A kind of note: all that the model knows of it. */
export interface NoteRules<N extends Note = Note> {
  /** What it is called within a sentence. */
  readonly name: string
  /** What its own fields hold in a part file. */
  readonly fields: Readonly<
    Record<Exclude<keyof N, 'id' | 'kind' | 'body' | 'on' | 'label'>, FieldSchema>
  >
  /** What it stands on; a face where this is left out. */
  readonly stands?: 'corner'
  /** Whether it may stand on a face that no full turn made. */
  readonly onSolids?: true
  /** As it is offered for a face or corner, or for all others. */
  offer(context: NoteContext): Omit<N, 'id' | 'body' | 'on' | 'label'>
  /** What is said where two of the kind stand in one place; they may where this is left out. */
  readonly twice?: string
  /** What it says by itself, wherever it stands. */
  plain(note: N): string
  tell(note: N, context: NoteContext): NoteTold
  /** What is looked at on the piece; left out where it asks nothing of it. */
  requires?(note: N, part: Part): NoteRequirement
  /** Its plate on board and sheet; its words by themselves where this is left out. */
  cells?(note: N, words: string): readonly Cell[]
}

/** What a note asks of a piece. */
export interface NoteRequirement {
  /** What is looked at, in words. */
  readonly what: string
  /** With what. */
  readonly instrument: string
  /** A figure that is not to be exceeded, in mm or µm; whether it is good is only seen where this is left out. */
  readonly most?: { readonly value: number; readonly unit: 'length' | 'µm' }
}

/** A cell of a note's plate: words, or a symbol as a path in 16 by 16, y downwards. */
export type Cell = { readonly words: string } | { readonly symbol: string }

export type NoteKinds = {
  readonly [K in NoteKind]: NoteRules<Extract<Note, { readonly kind: K }>>
}
