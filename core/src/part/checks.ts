/**
 * What can be measured of a part, and the rows of its inspection sheet. Faces and circular edges are
 * named by their keys, as steps name them, so that a measure holds when sizes change.
 */

/** The key of a pick that is a whole body. */
export const WHOLE_BODY = 'body'

/** A face, a circular edge, a point on the axis, the axis, or a body that a measure was picked at. */
export interface MeasurePick {
  /** Empty for the axis. */
  readonly body: string
  /** The key of an edge, a corner or a pole of the section, `axis`, `body`, or a face or an edge of the solid. */
  readonly key: string
}

/** Figures of a body, or of all bodies together. */
export const BODY_FIGURES = [
  'mass',
  'volume',
  'area',
  'length',
  'diameter',
  'centre',
  'inertiaAxis',
  'inertiaAcross',
  'wall',
] as const

/** Figures of one or two picks, the most telling first. */
export const PICK_FIGURES = [
  'distance',
  'axial',
  'radial',
  'axes',
  'angle',
  'pickDiameter',
  'pickRadius',
  'pickLength',
  'pickArea',
] as const

/** Figures of how one body moves within another. */
export const PLAY_FIGURES = ['gap', 'radialPlay', 'axialPlay', 'travelLeft', 'travelRight'] as const

export type BodyFigureKind = (typeof BODY_FIGURES)[number]
export type PickFigureKind = (typeof PICK_FIGURES)[number]
export type PlayFigureKind = (typeof PLAY_FIGURES)[number]

export interface BodyFigure {
  readonly kind: BodyFigureKind
  /** Empty for all bodies together. */
  readonly body: string
}

export interface PickFigure {
  readonly kind: PickFigureKind
  readonly picks: readonly MeasurePick[]
}

export interface PlayFigure {
  readonly kind: PlayFigureKind
  /** The body that moves, and the one it moves in. */
  readonly body: string
  readonly other: string
}

/** What a vessel holds, filled through its open end. */
export interface CapacityFigure {
  readonly kind: 'capacity'
  readonly body: string
  /** The height of the liquid over the lowest place inside, as a formula; empty to the brim. */
  readonly height: string
}

export type Figure = BodyFigure | PickFigure | PlayFigure | CapacityFigure
export type FigureKind = Figure['kind']

/** One row of the inspection sheet: a figure, and what it should be. */
export interface Check {
  readonly id: string
  /** What the row is called; empty for the figure's own words. */
  readonly name: string
  readonly figure: Figure
  /** The unit it is told in, and in which bare numbers of the row are meant. */
  readonly unit: string
  /** The figure lies about the target, within its tolerance, or is at least or at most it. */
  readonly limit: 'about' | 'least' | 'most'
  /** A formula; empty for a figure that is only told. */
  readonly target: string
  /** How far above and below the target it may lie; empty for the target's last digit. */
  readonly above: string
  readonly below: string
  /** Whether it is to hold with every value at the limit that counts; left out for no. */
  readonly everyLimit?: boolean
}

/** What a row is given when it is put in; the rest is empty. */
export type NewCheck = { readonly figure: Figure } & Partial<Omit<Check, 'id' | 'figure'>>
