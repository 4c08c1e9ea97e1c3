import type { KnurlForm } from '../standards'

/**
 * What is said of a part's faces and is no shape of its own: threads, datums, geometric tolerances, surface and words.
 * Each stays with its face, named by key as steps name them.
 */

/** Where a note stands. */
export interface NotePlace {
  readonly body: string
  /** The key of a face of the section at the end of the route; of an edge note that of a corner. */
  readonly on: string
  /** Where its plate was dragged to, in mm from where it stands; by itself where this is left out. */
  readonly label?: { readonly x: number; readonly y: number }
}

/** Notes that may be said of all others instead: body and face are empty then. */
export const SAID_OF_ALL = ['surface', 'frame', 'edge'] as const

/** A screw thread on a land or in a bore; its shape stays plain, as on a drawing (ISO 6410-1). */
export interface ThreadNote extends NotePlace {
  readonly kind: 'thread'
  readonly id: string
  /** As it was typed: M16x1.5-6g. */
  readonly callout: string
  /** The end of the face its length is measured from, and the length as a formula; empty for the whole face. */
  readonly from: 'left' | 'right'
  readonly length: string
}

/** A face that others are measured from (ISO 5459). */
export interface DatumNote extends NotePlace {
  readonly kind: 'datum'
  readonly id: string
  readonly letter: string
}

/** Characteristics of ISO 1101:2017, Table 2. */
export const CHARACTERISTICS = [
  'straightness',
  'flatness',
  'circularity',
  'cylindricity',
  'lineProfile',
  'surfaceProfile',
  'parallelism',
  'perpendicularity',
  'angularity',
  'position',
  'coaxiality',
  'symmetry',
  'circularRunOut',
  'totalRunOut',
] as const
export type Characteristic = (typeof CHARACTERISTICS)[number]

/** How far a face may be off its true form or place (ISO 1101). */
export interface FrameNote extends NotePlace {
  readonly kind: 'frame'
  readonly id: string
  readonly characteristic: Characteristic
  /** Whether the zone is a cylinder about the axis: ⌀ before the value. */
  readonly round: boolean
  /** The width of the zone, a formula. */
  readonly zone: string
  /** Of greatest or least material (ISO 2692), or projected (ISO 10578); empty for neither. */
  readonly material: '' | 'M' | 'L' | 'P'
  /** How far beyond the face a projected zone reaches, a formula. */
  readonly projected: string
  /** Letters in their order, as in `A`, `A B` or `A-B` for a common one. */
  readonly datums: string
}

/** Heights of a profile that surfaces are asked by, in µm (ISO 21920-2). */
export const SURFACE_PARAMETERS = ['Ra', 'Rz', 'Rq', 'Rp', 'Rv', 'Rt'] as const
export type SurfaceParameter = (typeof SURFACE_PARAMETERS)[number]

/** How smooth a face is to be (ISO 21920-1). */
export interface SurfaceNote extends NotePlace {
  readonly kind: 'surface'
  readonly id: string
  readonly parameter: SurfaceParameter
  /** In µm, as it was typed. */
  readonly value: string
  readonly removal: 'any' | 'required' | 'forbidden'
  /** What is left on for a later working, a formula; empty for nothing. */
  readonly allowance: string
  /** How it is made: ground, honed; empty where nothing is said. */
  readonly process: string
}

/** How far the material may stand over or be missing at edges (ISO 13715): `-0.3`, `+0.1`, `±0.05`, `-0.1 -0.5`. */
export interface EdgeNote extends NotePlace {
  readonly kind: 'edge'
  readonly id: string
  /** Of outside edges; empty where nothing is said. */
  readonly outside: string
  /** Of inside edges, likewise. */
  readonly inside: string
}

/** A knurl on a land (ISO 13444); its shape stays plain. */
export interface KnurlNote extends NotePlace {
  readonly kind: 'knurl'
  readonly id: string
  readonly form: KnurlForm
  /** In mm, one of the standard’s. */
  readonly pitch: string
}

/** How a face is coloured on the solid. */
export interface ColourNote extends NotePlace {
  readonly kind: 'colour'
  readonly id: string
  /** As in `#2f6f8f`. */
  readonly colour: string
  readonly finish: 'matt' | 'polished'
}

/** How a face is treated: hardened, coated (ISO 15787). */
export interface TreatmentNote extends NotePlace {
  readonly kind: 'treatment'
  readonly id: string
  /** As the drawing says it: `hardened 58 +4 HRC`. */
  readonly words: string
  /** How deep, a formula; empty where nothing is said. */
  readonly depth: string
}

/** What fits on a land or into a bore and is no body of the part. */
export interface MateNote extends NotePlace {
  readonly kind: 'mate'
  readonly id: string
  /** What it is called: ball bearing. */
  readonly name: string
  /** Its diameter with its tolerance, a formula: `20 H7`. */
  readonly size: string
}

/** Words for the workshop. */
export interface TextNote extends NotePlace {
  readonly kind: 'text'
  readonly id: string
  readonly words: string
  /** Whether its plate is a flag with a number, and the words stand in the list of notes. */
  readonly flag: boolean
}

export type Note =
  | ThreadNote
  | DatumNote
  | FrameNote
  | SurfaceNote
  | EdgeNote
  | KnurlNote
  | TreatmentNote
  | ColourNote
  | MateNote
  | TextNote
export type NoteKind = Note['kind']

/** A note as it is put in. */
export type NewNote = { readonly [K in NoteKind]: Omit<Extract<Note, { kind: K }>, 'id'> }[NoteKind]
