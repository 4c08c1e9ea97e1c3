import type { Problem } from '@lathica/core/result'
import type { Measure } from '@lathica/core/units'
import type { Piece, Vec, Frame } from '@lathica/core/geometry'
import type { Constraint, Sketch } from '@lathica/core/sketch'
import type { Section, Region } from '@lathica/core/section'
import type { EndMarks } from '@lathica/core/solid'
import type { Part } from '@lathica/core/part'
import type { BodyState } from '@lathica/core/route'
import type { Command, SizeOffer } from '@lathica/core/edit'
import type { Accept, SectionRef } from '../refs'
import type { Suggesting } from '../snapping'
import type { Px, View } from '../view'

/** The pointer over the board. */
export interface PointerAt {
  readonly px: Px
  /** Shift: refuses suggestions while drawing, adds to the picks while picking. */
  readonly shift: boolean
  /** Alt: takes away from the picks. */
  readonly alt?: boolean
  /** True for the second press of a double click. */
  readonly double?: boolean
}

/** What a tool may read and do; it never touches the page. */
export interface Board {
  readonly part: () => Part
  readonly sketch: () => Sketch
  readonly view: () => View
  /** The sections of the part as the profile in hand finds them, to be built on. */
  readonly standing: () => readonly Section[]
  /** What an end sketch in hand can build on. */
  readonly endMarks: () => readonly EndMarks[]
  readonly suggesting: () => Suggesting
  readonly picks: () => readonly string[]
  readonly setPicks: (ids: readonly string[]) => void
  readonly setHover: (id: string | undefined) => void
  /** Runs a command; a refusal is told to the designer. */
  readonly run: (command: Command) => boolean
  /** Runs a command and returns its refusal, which is then not told. */
  readonly attempt: (command: Command) => Problem | undefined
  /** Shows a part that is not taken yet, or the taken one again. */
  readonly show: (part: Part | undefined) => void
  /** Takes a shown part as one edit. */
  readonly take: (label: string, part: Part) => void
  /** Opens the value field for a new size, or for one that is there. */
  readonly openField: (target: FieldTarget) => void
  readonly tell: (message: string, mend: string) => void
  /** What a step asks to be picked, if one does. */
  readonly asking: () => Ask | undefined
  readonly setHoverRef: (ref: SectionRef | undefined) => void
  /** Lays the tool down; returns the state of the tool that is then in hand. */
  readonly finish: () => ToolState
}

/** A step's request for faces, circular edges or regions of a profile. */
export interface Ask {
  /** What the next click does, in one sentence. */
  readonly hint: string
  readonly accept: Accept | 'region'
  /** Edges of bodies that are no full turn are taken too, on the solid. */
  readonly rims?: true
  /** A body can be taken as a whole. */
  readonly wholes?: true
  /** The bodies as they stand before the step. */
  readonly bodies: () => readonly BodyState[]
  /** The areas of a profile, where those are asked for. */
  readonly areas?: () => AskedAreas
  /** Faces of a solid that no full turn made are taken too. */
  readonly solids?: true
  /** All that a solid has is taken: faces and edges, whatever made them. */
  readonly anything?: true
  /** Keys that are chosen already. */
  readonly chosen: () => readonly string[]
  /** @param adding true when it comes beside what is chosen, not in its place */
  readonly take: (ref: SectionRef, adding?: boolean) => void
}

/** Areas of a profile that can be chosen, by their numbers. */
export interface AskedAreas {
  readonly regions: readonly Region[]
  /** Where the profile stands in the part, if that is to be seen. */
  readonly frame: Frame | undefined
  /** Whether it is the image of itself below the axis. */
  readonly mirrored: boolean
}

/** What a value field on the drawing is for. */
export type FieldTarget =
  | { readonly kind: 'new'; readonly offer: SizeOffer; readonly label?: Vec }
  | { readonly kind: 'size'; readonly id: string }

/** What a tool's state draws over the part. */
export interface Overlay {
  /** What is being drawn, in mm. */
  readonly rubber?: readonly Piece[]
  /** Of what is being drawn, what would be outline: it is seen turned meanwhile. */
  readonly turned?: readonly Piece[]
  /** Pieces that what is being drawn departs from by so much at most, in mm. */
  readonly band?: { readonly pieces: readonly Piece[]; readonly by: number }
  /** Where places are that are clicked already, in mm. */
  readonly marks?: readonly Vec[]
  /** Dotted lines that show what a place stands in line with, in mm. */
  readonly guides?: readonly (readonly [Vec, Vec])[]
  /** Where the next point would go, in mm. */
  readonly mark?: Vec
  /** What would be taken, said at the pointer. */
  readonly words?: readonly string[]
  /** A box that is being drawn, as two corners in mm. */
  readonly box?: readonly [Vec, Vec]
  /** True while the box takes what only reaches into it. */
  readonly touching?: boolean
  /** A size that would be put on. */
  readonly offer?: SizeOffer
  /** Where its label would stay, in mm from the middle of what is measured. */
  readonly label?: Vec
}

/** One value that can be typed while a tool is at work. */
export interface EntryField {
  readonly label: string
  /** What the text comes to; words are read by the tool itself. */
  readonly want: Measure | 'words'
  /** A sign before the figure, such as ⌀. */
  readonly sign?: string
  /** What it would be if nothing were typed, in mm or radians. */
  readonly now?: number
  /** What stands in the field at first. */
  readonly text?: string
}

/** Values to type instead of pointing. Typing a figure opens the fields; Tab goes from one to the next. */
export interface Entry {
  readonly fields: readonly EntryField[]
  /** True when the tool waits for a value, so that the fields stand open. */
  readonly open?: boolean
  /** Takes what was typed, empty where nothing was; a problem leaves the fields as they are. */
  readonly take: (texts: readonly string[]) => ToolState | Problem
  /** What the fields hold after Enter while more is to be typed; undefined where Enter takes it. */
  readonly more?: (texts: readonly string[]) => readonly string[] | undefined
  /** What would be drawn by what is typed so far. */
  readonly preview?: (texts: readonly string[]) => Overlay | undefined
}

/**
 * One state of a tool. Each event names the state that follows; what an event does not concern
 * leaves the state as it is.
 */
export interface ToolState {
  /** What the next click does, in one sentence. */
  readonly hint: string
  readonly overlay?: Overlay
  readonly entry?: Entry
  readonly cursor?: 'default' | 'crosshair' | 'grabbing'
  readonly move?: (at: PointerAt) => ToolState
  readonly press?: (at: PointerAt) => ToolState
  readonly release?: (at: PointerAt) => ToolState
  /** Tab, Enter, Backspace: undefined when the key means nothing here. */
  readonly key?: (key: 'Tab' | 'Enter' | 'Backspace') => ToolState | undefined
  /** Steps back one level; undefined when there is none left. */
  readonly escape?: () => ToolState | undefined
  /** The part changed under the tool, by undo or by a field. */
  readonly refresh?: () => ToolState
}

/** Tools one can hold. Those that put on constraints differ only in the kind. */
export type ToolId =
  | 'pick'
  | 'asking'
  | 'chain'
  | 'centreLine'
  | 'stepped'
  | 'size'
  | 'curve'
  | 'curvePoint'
  | 'bridge'
  | 'placePicture'
  | ShapeId
  | EditId
  | `tie:${Constraint['kind']}`

export type ShapeId = 'rectangle' | 'circle' | 'arc' | 'slot' | 'polygon' | 'point'

export type EditId =
  | 'trim'
  | 'extend'
  | 'split'
  | 'fillet'
  | 'chamfer'
  | 'offset'
  | 'mirror'
  | 'repeat'
  | 'move'
  | 'copy'
  | 'rotate'
  | 'scale'
