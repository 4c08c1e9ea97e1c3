import type { Place } from '../geometry'
import type { SpaceSpline } from './spline'

/** A face of a solid that came from elsewhere: points on it, and how they make triangles. */
export interface ForeignFace {
  readonly kind: 'plane' | 'cylinder' | 'other'
  /** The normal of a plane, the axis of a cylinder; of another the line it says to be turned about. */
  readonly axis: Line | undefined
  /** x, y, z per point, in mm; all of them lie on the face */
  readonly nodes: Float64Array
  /** three points per triangle, counter-clockwise seen from outside */
  readonly triangles: Uint32Array
  /**
   * Lines on the face of which one may be what is turned to make it: x, y, z of places along each, in
   * order.
   */
  readonly along?: readonly Float64Array[]
  /** The curve that is turned to make it, where the file tells it by poles. */
  readonly spline?: SpaceSpline
}

/** A solid that came from elsewhere. */
export interface ForeignSolid {
  readonly faces: readonly ForeignFace[]
  /** in mm³ */
  readonly volume: number
  /** in mm² */
  readonly area: number
  readonly centre: Place
  /** How far its places may be off as its file says, in mm, where it says so. */
  readonly uncertainty?: number
  /** What its file calls it, and in which colour as #rrggbb it shows it, where it says so. */
  readonly name?: string
  readonly colour?: string
}

/** A straight line in space: a place on it, and its direction of length 1. */
export interface Line {
  readonly at: Place
  readonly along: Place
}
