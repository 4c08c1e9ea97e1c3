/**
 * What is said of a part's faces and is no shape of its own: threads, datums, geometric tolerances, surface and words.
 * Each stays with its face, named by key as steps name them.
 */

/** Where a note stands. */
export interface NotePlace {
  readonly body: string
  /** The key of a face of the section at the end of the route. */
  readonly on: string
}

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
  /** Of greatest or least material (ISO 2692); empty for neither. */
  readonly material: '' | 'M' | 'L'
  /** Letters in their order, as in `A`, `A B` or `A-B` for a common one. */
  readonly datums: string
}

/** How smooth a face is to be (ISO 21920-1). */
export interface SurfaceNote {
  readonly kind: 'surface'
  readonly id: string
  /** Both empty for all other faces of the part. */
  readonly body: string
  readonly on: string
  readonly parameter: 'Ra' | 'Rz'
  /** In µm, as it was typed. */
  readonly value: string
  readonly removal: 'any' | 'required' | 'forbidden'
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

/** Words for the workshop. */
export interface TextNote extends NotePlace {
  readonly kind: 'text'
  readonly id: string
  readonly words: string
}

export type Note = ThreadNote | DatumNote | FrameNote | SurfaceNote | TreatmentNote | TextNote
export type NoteKind = Note['kind']

/** A note as it is put in. */
export type NewNote = { readonly [K in NoteKind]: Omit<Extract<Note, { kind: K }>, 'id'> }[NoteKind]
