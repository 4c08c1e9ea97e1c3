/**
 * A sketch as plain data. Positions are in mm; in a half-section x runs along the part's axis and y
 * is the radius, in an end plane both lie across it. The stored positions are the last solved ones:
 * the place the solver starts from.
 */

export interface SketchPoint {
  readonly id: string
  readonly x: number
  readonly y: number
}

/** Outline bounds material; construction and centre lines only guide. */
export type Role = 'outline' | 'construction' | 'centre'

export interface SketchLine {
  readonly id: string
  readonly kind: 'line'
  readonly from: string
  readonly to: string
  readonly role: Role
}

/** Part of a circle from one point to another about a centre. */
export interface SketchArc {
  readonly id: string
  readonly kind: 'arc'
  readonly from: string
  readonly to: string
  readonly centre: string
  /** The way it turns from its start to its end, with x to the right and y upwards. */
  readonly counterClockwise: boolean
  readonly role: Role
}

/**
 * A full circle. Its rim is a point that lies axially beside the centre, on the side of greater x,
 * so that a circle has just the three freedoms of its place and its radius.
 */
export interface SketchCircle {
  readonly id: string
  readonly kind: 'circle'
  readonly centre: string
  readonly rim: string
  readonly role: Role
}

/**
 * A free curve from one point to another: a cubic Bézier. It leaves its start towards one handle and
 * comes to its end from the other; how far a handle is tells how long the curve keeps to that way.
 */
export interface SketchCurve {
  readonly id: string
  readonly kind: 'curve'
  readonly from: string
  readonly to: string
  readonly fromHandle: string
  readonly toHandle: string
  readonly role: Role
}

/**
 * A free curve of many places, from one point by others to a last one: through them, or over the frame they make. See
 * `Spline` in the geometry for what lies between.
 */
export interface SketchSpline {
  readonly id: string
  readonly kind: 'spline'
  readonly way: 'through' | 'frame'
  readonly from: string
  readonly to: string
  /** The points between its ends, in order. */
  readonly by: readonly string[]
  /** Points that it heads to from its start and comes from to its end, through places; empty for a free end. */
  readonly fromHandle: string
  readonly toHandle: string
  /** Shares of its stretches. */
  readonly spans: readonly number[]
  readonly role: Role
}

/**
 * What lies exactly beside a free curve, as far from all of it as its ends are: they lie square beside the curve's own.
 * It is told by the curve, and follows it.
 */
export interface SketchParallel {
  readonly id: string
  readonly kind: 'parallel'
  /** The id of the curve. */
  readonly of: string
  /** The curve, as it is drawn: the same as the one of that id. */
  readonly along: SketchCurve | SketchSpline
  readonly from: string
  readonly to: string
  readonly role: Role
}

/** What is drawn as one piece of geometry. */
export type PlainEntity = SketchLine | SketchArc | SketchCircle | SketchCurve

/** Everything drawn between points. */
export type Entity = PlainEntity | SketchSpline | SketchParallel

/** The part's axis: a line every sketch has, along y = 0. */
export const AXIS_ID = 'axis'
/** What a link names as its profile when it follows a corner of the section as it stands. */
export const SECTION_ID = 'section'
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

/** A point lies on a line or its extension, or on the circle of an arc; it may be the axis. */
export interface PointOn extends Identified {
  readonly kind: 'pointOn'
  readonly point: string
  readonly curve: string
}

/** A point stays at a place, in mm. */
export interface Fixed extends Identified {
  readonly kind: 'fixed'
  readonly point: string
  readonly x: number
  readonly y: number
}

/**
 * A point stands where a point of an earlier profile stands, and follows it. The place, in mm, is the
 * last one known: it holds when the source is gone.
 */
export interface Linked extends Identified {
  readonly kind: 'linked'
  readonly point: string
  /** Id of the earlier profile. */
  readonly profile: string
  /** Id of the point there. */
  readonly source: string
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

/** Two lines run in one direction, or square to one another. */
export interface LinePair extends Identified {
  readonly kind: 'parallel' | 'perpendicular'
  readonly line: string
  readonly to: string
}

/**
 * Two lines are of one length, or two arcs or circles of one radius; two curves touch without a
 * corner; a free curve bends at an end as what it meets there; two arcs or circles have one centre.
 */
export interface CurvePair extends Identified {
  readonly kind: 'equal' | 'tangent' | 'curvature' | 'concentric'
  readonly curve: string
  readonly to: string
}

/** A point lies in the middle between a line's ends. */
export interface Midpoint extends Identified {
  readonly kind: 'midpoint'
  readonly point: string
  readonly line: string
}

/** Two points mirror one another about a line, which may be the axis, or about a point. */
export interface Symmetric extends Identified {
  readonly kind: 'symmetric'
  readonly a: string
  readonly b: string
  readonly about: string
}

/**
 * Points repeat in one direction at one pitch: the n-th point of each copy lies as many pitches
 * from the n-th of the first as the copy counts. Neighbouring copies may share points; the pitch is
 * then the width of what is repeated.
 */
export interface Repeat extends Identified {
  readonly kind: 'repeat'
  readonly points: readonly string[]
  readonly copies: readonly (readonly string[])[]
  /** The way the copies go: along the axis, square to it, or along a line of the sketch. */
  readonly along: string
}

/** Directions of a repeat that are no line's id. */
export const ALONG_AXIS = 'axial'
export const ALONG_RADIUS = 'radial'

export type Constraint =
  | Coincident
  | Axial
  | Radial
  | PointOn
  | Fixed
  | Linked
  | InLine
  | LinePair
  | CurvePair
  | Midpoint
  | Symmetric
  | Repeat

interface Sized extends Identified {
  /** The name by which formulas read this size. */
  readonly name: string
  /** What was typed: a number or a formula. Kept, but not read, while the size is a reference. */
  readonly formula: string
  /** A reference only reports what it measures; it drives nothing. */
  readonly reference: boolean
  /** Where its label was dragged to, in mm from where what it measures has its middle. */
  readonly label?: { readonly x: number; readonly y: number }
}

/** The length of a line. */
export interface LengthSize extends Sized {
  readonly kind: 'length'
  readonly line: string
}

/**
 * The distance of two points: along the axis, square to it, or straight from one to the other.
 */
export interface DistanceSize extends Sized {
  readonly kind: 'axialDistance' | 'radialDistance' | 'distance'
  readonly a: string
  readonly b: string
}

/** Twice the distance of a point from the axis. */
export interface DiameterSize extends Sized {
  readonly kind: 'diameter'
  readonly point: string
}

/** Twice the distance of a point from a line: the full width of what is symmetric about it. */
export interface SpanSize extends Sized {
  readonly kind: 'span'
  readonly point: string
  readonly about: string
}

/** The distance of a point or of a parallel line from a line, of two concentric arcs or circles, or of what lies beside a curve from it. */
export interface GapSize extends Sized {
  readonly kind: 'gap'
  /** A point, a line, an arc, a circle, or what lies beside a free curve. */
  readonly item: string
  readonly to: string
}

/** The radius of an arc or circle, twice it, or the length of an arc or a free curve along it. */
export interface CurveSize extends Sized {
  readonly kind: 'radius' | 'curveDiameter' | 'arcLength'
  readonly curve: string
}

/**
 * The greatest or least diameter of a free curve, where along the axis it is, or the least radius to which the curve
 * bends.
 */
export interface FreeSize extends Sized {
  readonly kind: 'greatestDiameter' | 'leastDiameter' | 'greatestAt' | 'leastAt' | 'leastRadius'
  /** A free curve. */
  readonly curve: string
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

export type Size =
  LengthSize | DistanceSize | DiameterSize | SpanSize | GapSize | CurveSize | FreeSize | AngleSize

/** Square to the axis, as the part is seen from its greater end, or from its lesser one. */
export type EndPlane = 'end' | 'lesserEnd'

/** Where a sketch lies: in the half-section, or square to the axis. */
export type SketchPlane = 'half' | EndPlane

interface SketchData {
  readonly id: string
  readonly name: string
  /** Counts up with every id given out, so that no id is used twice. */
  readonly nextId: number
  readonly points: readonly SketchPoint[]
  readonly entities: readonly Entity[]
  readonly constraints: readonly Constraint[]
  readonly sizes: readonly Size[]
  /** Whether it is drawn behind the one in hand; left out for: as long as no step is made from it. */
  readonly shown?: boolean
  /** Whether nothing in it is changed by hand; left out for no. */
  readonly locked?: boolean
}

/** A profile: x runs along the axis, y is the radius. */
export interface HalfSketch extends SketchData {
  readonly plane: 'half'
}

/** A sketch across the axis: both coordinates lie square to it. */
export interface EndSketch extends SketchData {
  readonly plane: EndPlane
}

export type Sketch = HalfSketch | EndSketch

/** Whether a plane lies square to the axis. */
export const isAcross = (plane: SketchPlane): plane is EndPlane => plane !== 'half'

/** Whether a sketch lies square to the axis. */
export const isEndSketch = <S extends { readonly plane: SketchPlane }>(
  sketch: S,
): sketch is Extract<S, { readonly plane: EndPlane }> => isAcross(sketch.plane)

/** Each member of a union without some fields. */
export type Without<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never

/** What is drawn in a sketch, without what holds it. */
export type DrawnSketch = Without<Sketch, 'nextId' | 'constraints' | 'sizes'>

/** A profile as it is drawn, and a sketch across the axis. */
export type DrawnHalf = Extract<DrawnSketch, { readonly plane: 'half' }>
export type DrawnEnd = Extract<DrawnSketch, { readonly plane: EndPlane }>

export function emptySketch(id: string, name: string, plane: SketchPlane = 'half'): Sketch {
  return { id, name, plane, nextId: 1, points: [], entities: [], constraints: [], sizes: [] }
}
