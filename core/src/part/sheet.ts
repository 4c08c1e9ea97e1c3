/** How the part is drawn on its sheet. What is left to the program is worked out anew with every change of the part. */
export interface SheetSetup {
  /** `auto` for the smallest on which it is drawn well. */
  readonly paper: 'auto' | PaperName
  readonly upright: boolean
  /** As in `1:2`; empty for the largest that fits. */
  readonly scale: string
  readonly projection: 'first' | 'third'
  /** What is seen along the axis: the outside, the section above and the outside below, or the whole section. */
  readonly view: 'auto' | 'outside' | 'half' | 'full'
  readonly ends: 'auto' | 'none' | 'left' | 'right' | 'both'
  /** Larger views of what is too small to be read: `auto` where there is such. */
  readonly details: 'auto' | 'none'
  /** Width of outlines in mm (ISO 128-2). */
  readonly lines: '0.5' | '0.7'
  readonly title: TitleFields
  /** What was dragged: by the id of a size or a note how far its label stands from where it would, in mm of the paper. */
  readonly moved: readonly MovedLabel[]
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

const PLAIN_TITLE: TitleFields = {
  ...{ owner: '', number: '', creator: '', approver: '', date: '', revision: '', status: '' },
}

/** What holds for a part of which nothing was said. */
export const PLAIN_SHEET: SheetSetup = {
  ...{ paper: 'auto', upright: false, scale: '', projection: 'first', view: 'auto', ends: 'auto' },
  details: 'auto',
  ...{ lines: '0.5', title: PLAIN_TITLE, moved: [] },
}
