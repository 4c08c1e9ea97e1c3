/**
 * Steps that are no full turn: they take the solid kernel. Angles about the axis are told from the
 * half-section's own side, growing from the part's x towards its y. Numbers are formulas as typed.
 */
interface AnySolidStep {
  readonly id: string
  readonly number: number
  readonly aside: boolean
  readonly body: string
}

/** A place across the axis: on which diameter, at which angle. */
export interface PolarPlace {
  readonly diameter: string
  readonly angle: string
}

/** Holes along the axis in a face square to it, or across it from outside. */
export interface HolesStep extends AnySolidStep {
  readonly kind: 'holes'
  readonly way: 'end' | 'cross'
  /** Key of the face they begin at; for cross holes of the cylinder or cone, empty for the outside. */
  readonly on: string
  /**
   * On a pitch circle, at places of their own, or at the free points and circles of an end sketch;
   * cross holes are evenly round the axis.
   */
  readonly layout: 'circle' | 'places' | 'sketch'
  /** The end sketch that places them; else empty. */
  readonly sketch: string
  readonly circle: string
  readonly count: string
  /** The angle of the first, and the range they are spread over; empty for a whole turn. */
  readonly start: string
  readonly range: string
  /** Numbers of holes that are left out, counted from 1. */
  readonly skip: readonly number[]
  readonly places: readonly PolarPlace[]
  /** For cross holes: an edge's key the distance is told from, empty for the left end. */
  readonly from: string
  readonly distance: string
  readonly diameter: string
  /** How far: to a depth, through the nearest wall, through all, or up to the axis. */
  readonly reach: 'depth' | 'wall' | 'through' | 'axis'
  readonly depth: string
  readonly tip: 'flat' | 'cone'
  readonly tipAngle: string
  readonly head: 'none' | 'counterbore' | 'countersink' | 'spotface'
  readonly headDiameter: string
  readonly headDepth: string
  readonly headAngle: string
  /** A thread that is cut into it, as on drawings; the hole has its core diameter. */
  readonly thread: string
}

/** Plane faces along the axis, evenly round it: for spanners, for pins, for setting screws. */
export interface FlatsStep extends AnySolidStep {
  readonly kind: 'flats'
  readonly count: string
  /** The size over opposite flats, of a single one to the far side; or how deep they are cut. */
  readonly measure: 'across' | 'depth'
  readonly size: string
  /** They begin at a distance from an end; without a length they go on to the other end. */
  readonly end: 'left' | 'right'
  readonly distance: string
  readonly length: string
  readonly phase: string
}

/** A keyway, a seat for a half-round key, or a slot across an end face. */
export interface SlotStep extends AnySolidStep {
  readonly kind: 'slot'
  readonly form: 'keyway' | 'woodruff' | 'end'
  /** Key of the cylinder, or of the face, that it is cut into. */
  readonly on: string
  /** An edge's key the distance is told from; empty for the face's own left end. */
  readonly from: string
  /** To the near end of a keyway, to the middle of a half-round seat; of end slots none. */
  readonly distance: string
  readonly width: string
  readonly depth: string
  /** Of keyways; of end slots empty for right across. */
  readonly length: string
  readonly ends: 'round' | 'square'
  /** Of the cutter of a half-round seat. */
  readonly cutter: string
  readonly count: string
  readonly phase: string
}

/** A profile drawn out square to a plane through the axis, an end sketch along the axis. */
export interface ExtrudeStep extends AnySolidStep {
  readonly kind: 'extrude'
  readonly sketch: string
  readonly regions: 'all' | readonly (readonly string[])[]
  readonly effect: 'add' | 'cut' | 'common'
  /** Of a half-section the angle of its plane about the axis. */
  readonly plane: string
  /** Of an end sketch the key of the face it lies on; empty for where distances begin. */
  readonly on: string
  /** How far before that plane it lies. */
  readonly offset: string
  readonly side: 'one' | 'both' | 'symmetric'
  /** How far: by a length, through all, or, from an end sketch, up to a face. */
  readonly reach: 'length' | 'through' | 'face'
  /** Key of the face it goes up to. */
  readonly upTo: string
  readonly length: string
  /** The other way, where both sides have a length of their own. */
  readonly back: string
  /** By how much its sides lean inwards away from the sketch; empty for none. */
  readonly draft: string
}

/** A bar or rod along a path that is drawn as an open chain, in a plane through the axis. */
export interface SweepStep extends AnySolidStep {
  readonly kind: 'sweep'
  readonly sketch: string
  readonly effect: 'add' | 'cut'
  readonly form: 'round' | 'bar' | 'sketch'
  /** The end sketch that is carried along, about its centre: its x to the left of the path. */
  readonly outline: string
  /** Of a round rod its diameter; of a bar its breadth in the plane of the path. */
  readonly width: string
  /** Of a bar, square to the plane, and the radius of its corners; empty for none. */
  readonly height: string
  readonly corner: string
  /** The angle of the plane about the axis. */
  readonly plane: string
  /** On one side, or on both: then the path ends on the axis and goes on as its mirror image. */
  readonly side: 'one' | 'mirrored'
}

/** What earlier steps did, again and again round the axis. */
export interface AroundStep {
  readonly kind: 'around'
  readonly id: string
  readonly number: number
  readonly aside: boolean
  readonly steps: readonly string[]
  /** With the first. */
  readonly count: string
  /** From the first to the last; empty for evenly round the whole turn. */
  readonly range: string
}

/** A body cut by a plane through the axis, or beside it. */
export interface HalveStep extends AnySolidStep {
  readonly kind: 'halve'
  /** The angle of the half that stays: of its middle. */
  readonly angle: string
  /** How far out the plane lies; empty for through the axis. */
  readonly offset: string
  /** The body that gets the other half; empty to let it go. */
  readonly into: string
}

export type SolidStep =
  HolesStep | FlatsStep | SlotStep | ExtrudeStep | SweepStep | AroundStep | HalveStep
