/**
 * A half-section sketch as plain data. Positions are in mm; x runs along the part's axis and y is
 * the radius. The stored positions are the last solved ones: the place the solver starts from.
 */

export interface SketchPoint {
  readonly id: string
  readonly x: number
  readonly y: number
}

/** Outline bounds material; construction and centre lines only guide. */
export type LineRole = 'outline' | 'construction' | 'centre'

export interface SketchLine {
  readonly id: string
  readonly kind: 'line'
  readonly from: string
  readonly to: string
  readonly role: LineRole
}

/** Everything drawn between points; arcs and curves join this union. */
export type Entity = SketchLine

/** The part's axis: a line every sketch has, along y = 0. */
export const AXIS_ID = 'axis'
/** The datum point on the axis at x = 0, which every sketch has. */
export const ORIGIN_ID = 'origin'

interface Identified {
  readonly id: string
}

/** Two points are one. */
export interface Coincident extends Identified {
  readonly kind: 'coincident'
  readonly a: string
  readonly b: string
}

/** A line runs parallel to the axis. */
export interface Axial extends Identified {
  readonly kind: 'axial'
  readonly line: string
}

/** A line runs square to the axis. */
export interface Radial extends Identified {
  readonly kind: 'radial'
  readonly line: string
}

/** A point lies on a line or its extension; the line may be the axis. */
export interface PointOnLine extends Identified {
  readonly kind: 'pointOnLine'
  readonly point: string
  readonly line: string
}

/** A point stays at a place, in mm. */
export interface Fixed extends Identified {
  readonly kind: 'fixed'
  readonly point: string
  readonly x: number
  readonly y: number
}

/** Two points stand in line along the axis (at one radius), or square to it (at one place). */
export interface InLine extends Identified {
  readonly kind: 'inLine'
  readonly a: string
  readonly b: string
  readonly along: 'axial' | 'radial'
}

/** Two lines run in one direction, square to one another, or are of one length. */
export interface LinePair extends Identified {
  readonly kind: 'parallel' | 'perpendicular' | 'equal'
  readonly line: string
  readonly to: string
}

/** A point lies in the middle between a line's ends. */
export interface Midpoint extends Identified {
  readonly kind: 'midpoint'
  readonly point: string
  readonly line: string
}

/** Two points mirror one another about a line, which may be the axis. */
export interface Symmetric extends Identified {
  readonly kind: 'symmetric'
  readonly a: string
  readonly b: string
  readonly about: string
}

export type Constraint =
  Coincident | Axial | Radial | PointOnLine | Fixed | InLine | LinePair | Midpoint | Symmetric

interface Sized extends Identified {
  /** The name by which formulas read this size. */
  readonly name: string
  /** What was typed: a number or a formula. Kept, but not read, while the size is a reference. */
  readonly formula: string
  /** A reference only reports what it measures; it drives nothing. */
  readonly reference: boolean
}

/** The length of a line. */
export interface LengthSize extends Sized {
  readonly kind: 'length'
  readonly line: string
}

/** The distance of two points along the axis. */
export interface AxialDistanceSize extends Sized {
  readonly kind: 'axialDistance'
  readonly a: string
  readonly b: string
}

/** Twice the distance of a point from the axis. */
export interface DiameterSize extends Sized {
  readonly kind: 'diameter'
  readonly point: string
}

/**
 * The angle from one line to another or to the axis, between 0 and 180°. Directions run from a
 * line's start to its end; `reversed` turns the first line about, which gives the other sector.
 */
export interface AngleSize extends Sized {
  readonly kind: 'angle'
  readonly line: string
  readonly to: string
  readonly reversed: boolean
}

export type Size = LengthSize | AxialDistanceSize | DiameterSize | AngleSize

export interface Sketch {
  readonly id: string
  readonly name: string
  /** Counts up with every id given out, so that no id is used twice. */
  readonly nextId: number
  readonly points: readonly SketchPoint[]
  readonly entities: readonly Entity[]
  readonly constraints: readonly Constraint[]
  readonly sizes: readonly Size[]
}

export function emptySketch(id: string, name: string): Sketch {
  return { id, name, nextId: 1, points: [], entities: [], constraints: [], sizes: [] }
}
