import type { Place } from '../geometry'
import type { SolidProperties } from '../section'

/** Figures of a body that is no full turn, for a density of 1. */
export interface LiftedProperties extends SolidProperties {
  /** The centre of volume in mm; it may lie off the axis. */
  readonly centre: Place
  /** How many pieces it is in. */
  readonly pieces: number
}
