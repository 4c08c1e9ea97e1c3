import type { Command, ConstraintKind, Part, SizeOffer, Sketch, Vec } from '@lathica/core'
import type { Px, View } from '../view'

/** The pointer over the board. */
export interface PointerAt {
  readonly px: Px
  /** Shift: refuses suggestions while drawing, adds to the picks while picking. */
  readonly shift: boolean
}

/** What a tool may read and do; it never touches the page. */
export interface Board {
  readonly part: () => Part
  readonly sketch: () => Sketch
  readonly view: () => View
  readonly picks: () => readonly string[]
  readonly setPicks: (ids: readonly string[]) => void
  readonly setHover: (id: string | undefined) => void
  /** Runs a command; a refusal is told to the designer. */
  readonly run: (command: Command) => boolean
  /** Shows a part that is not taken yet, or the taken one again. */
  readonly show: (part: Part | undefined) => void
  /** Takes a shown part as one edit. */
  readonly take: (label: string, part: Part) => void
  /** Opens the value field for a new size, or for one that is there. */
  readonly openField: (target: FieldTarget) => void
  readonly tell: (message: string, mend: string) => void
}

/** What a value field on the drawing is for. */
export type FieldTarget =
  | { readonly kind: 'new'; readonly offer: SizeOffer }
  | { readonly kind: 'size'; readonly id: string }

/** What a tool's state draws over the part. */
export interface Overlay {
  /** A line that is being drawn, in mm. */
  readonly rubber?: readonly [Vec, Vec]
  /** Where the next point would go, in mm. */
  readonly mark?: Vec
  /** What would be taken, said at the pointer. */
  readonly words?: readonly string[]
  /** A box that is being drawn, as two corners in mm. */
  readonly box?: readonly [Vec, Vec]
  /** A size that would be put on. */
  readonly offer?: SizeOffer
}

/**
 * One state of a tool. Each event names the state that follows; what an event does not concern
 * leaves the state as it is.
 */
export interface ToolState {
  /** What the next click does, in one sentence. */
  readonly hint: string
  readonly overlay?: Overlay
  readonly cursor?: 'default' | 'crosshair' | 'grabbing'
  readonly move?: (at: PointerAt) => ToolState
  readonly press?: (at: PointerAt) => ToolState
  readonly release?: (at: PointerAt) => ToolState
  /** Tab, Enter: undefined when the key means nothing here. */
  readonly key?: (key: 'Tab' | 'Enter') => ToolState | undefined
  /** Steps back one level; undefined when there is none left. */
  readonly escape?: () => ToolState | undefined
  /** The part changed under the tool, by undo or by a field. */
  readonly refresh?: () => ToolState
}

/** Tools one can hold. Those that put on constraints differ only in the kind. */
export type ToolId = 'pick' | 'chain' | 'size' | `tie:${ConstraintKind}`
