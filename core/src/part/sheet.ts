import type { TitleBlock } from './titleBlock'

/** How a part is drawn for the workshop: its sheets, what stands in their title blocks, and what was released. */
export interface DrawingSetup {
  readonly title: TitleFields
  /** At least one. */
  readonly sheets: readonly SheetSetup[]
  /** What was released, the first one first. */
  readonly revisions: readonly Revision[]
  /** What is measured of pieces that were made; left out where nothing was numbered yet. */
  readonly plan?: InspectionPlan
  /** The title block of one’s own; left out for the plain one. */
  readonly block?: TitleBlock
}

/** A sheet. What is left to the program is worked out anew with every change of the part. */
export interface SheetSetup {
  readonly id: string
  /** What it is called; empty for its number alone. */
  readonly name: string
  /** The only body that it shows; empty for all of them. Sizes of a body with a sheet of its own stand there. */
  readonly body: string
  /** `auto` for the smallest on which it is drawn well. */
  readonly paper: 'auto' | PaperName
  readonly upright: boolean
  /** As in `1:2`; empty for the largest that fits. */
  readonly scale: string
  readonly projection: 'first' | 'third'
  /**
   * What is seen along the axis: the outside, the outside cut open above where it is hollow, the section above and the
   * outside below, or the whole section.
   */
  readonly view: 'auto' | 'outside' | 'local' | 'half' | 'full'
  /** Long plain stretches: `auto` broken where the part can be drawn larger then. */
  readonly long: 'auto' | 'whole'
  readonly ends: 'auto' | 'none' | 'left' | 'right' | 'both'
  /** Larger views of what is too small to be read: `auto` where there is such. */
  readonly details: 'auto' | 'none'
  /** Places that are drawn larger beside the views, chosen by hand. */
  readonly enlarged: readonly EnlargedPlace[]
  /** Sections across the axis, of keyways and flats: `auto` where there are such. */
  readonly sections: 'auto' | 'none'
  /** A picture askew: with a quarter taken out, or whole. */
  readonly picture: 'none' | 'quarter' | 'whole'
  /** Lengths beside each other, or running from one face over each other on one line. */
  readonly lengths: 'parallel' | 'running'
  /** Where running lengths begin: at the place that most of them share, at an end, or at a chosen edge. */
  readonly origin: 'auto' | 'left' | 'right' | 'edge'
  readonly originAt?: EdgePlace
  /** Whether the numbers of the inspection plan stand beside what is asked. */
  readonly balloons: boolean
  /** Width of outlines in mm (ISO 128-2). */
  readonly lines: '0.5' | '0.7'
  /** What was dragged: by the id of a size or a note how far its label stands from where it would, in mm of the paper. */
  readonly moved: readonly MovedLabel[]
  /** Ids of sizes and notes that were taken off the sheet. */
  readonly hidden: readonly string[]
  /** Sizes that were drawn between faces, and drive nothing. */
  readonly drawn: readonly DrawnSize[]
}

/** Sizes of ISO 216, and those of ANSI. */
export const PAPER_NAMES = [
  ...(['A4', 'A3', 'A2', 'A1', 'A0'] as const),
  ...(['ANSI A', 'ANSI B', 'ANSI C', 'ANSI D', 'ANSI E'] as const),
] as const
export type PaperName = (typeof PAPER_NAMES)[number]

/** What is written into the title block besides what the part says itself (ISO 7200:2004, Tables 1 to 3). */
export interface TitleFields {
  /** The legal owner. */
  readonly owner: string
  /** The identification number. */
  readonly number: string
  readonly creator: string
  readonly approver: string
  /** The date of issue, as it is to be written. */
  readonly date: string
  readonly revision: string
  readonly status: string
}

export interface MovedLabel {
  readonly id: string
  readonly x: number
  readonly y: number
}

/**
 * A size that was drawn: what it measures is told in parentheses. Between two circular edges of a body, or of one
 * (`across`: its diameter); between two faces their `angle`, of one that is rounded its `radius`. On the view from an
 * end `along` is level, `radial` upright, `apart` the straight way, and `angle` the one about the axis.
 */
export interface DrawnSize {
  readonly id: string
  readonly kind: 'along' | 'across' | 'radial' | 'apart' | 'radius' | 'angle'
  /** The end whose view it stands on; empty for the view along the axis. */
  readonly end: '' | 'left' | 'right'
  readonly body: string
  /**
   * Key of a corner of the section at the end of the route, or of an edge of it for a face; on an end of a place that
   * end sketches can build on.
   */
  readonly from: string
  /** Another one; the same of a diameter and of a radius. */
  readonly to: string
  /** The body of that, where it is another. */
  readonly other?: string
}

/** A circular edge of a body, as a corner of its section. */
export interface EdgePlace {
  readonly body: string
  /** Key of a corner of the section at the end of the route. */
  readonly corner: string
}

/** What is drawn larger: so much round an edge. */
export interface EnlargedPlace extends EdgePlace {
  readonly id: string
  /** In mm of the part. */
  readonly radius: number
  /** As in `5:1`; empty for one at which it is read well. */
  readonly scale: string
}

/** A released state of the drawing. */
export interface Revision {
  /** As in `A`. */
  readonly mark: string
  /** What was changed, in words. */
  readonly words: string
  readonly date: string
  readonly by: string
  /** What stood on its sheets: by the id of each label what it said. */
  readonly labels: readonly { readonly id: string; readonly said: string }[]
}

/** What is measured of pieces. */
export interface InspectionPlan {
  /** Ids of what is asked, in the order of their numbers: a number that was given once stays. */
  readonly numbers: readonly string[]
  readonly pieces: readonly PlanPiece[]
  readonly measured: readonly MeasuredValue[]
  /** Where something else is to be measured with than what is proposed. */
  readonly instruments: readonly { readonly id: string; readonly words: string }[]
}

/** A piece that was made. */
export interface PlanPiece {
  readonly id: string
  readonly name: string
}

/** What was measured of one thing that is asked, on one piece. */
export interface MeasuredValue {
  /** The row of the plan: the id of a value, or of a note. */
  readonly row: string
  /** The id of the piece. */
  readonly piece: string
  /** In mm, radians, or as the note has it; whether it is good where there is no figure. */
  readonly value: number | 'good' | 'bad'
}

export const PLAIN_TITLE: TitleFields = {
  ...{ owner: '', number: '', creator: '', approver: '', date: '', revision: '', status: '' },
}

/** A sheet of which nothing was said. */
export const PLAIN_SHEET: SheetSetup = {
  ...{ id: 'sheet', name: '', body: '' },
  ...{ paper: 'auto', upright: false, scale: '', projection: 'first', view: 'auto', ends: 'auto' },
  ...{ long: 'auto', enlarged: [] },
  ...{ details: 'auto', sections: 'auto', picture: 'none', balloons: false, lines: '0.5' },
  ...{ lengths: 'parallel', origin: 'auto' },
  ...{ moved: [], hidden: [], drawn: [] },
}

/** What holds for a part of which nothing was said. */
export const PLAIN_DRAWING: DrawingSetup = {
  ...{ title: PLAIN_TITLE, sheets: [PLAIN_SHEET], revisions: [] },
}

export const NO_PLAN: InspectionPlan = { numbers: [], pieces: [], measured: [], instruments: [] }
