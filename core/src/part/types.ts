import type { Measure, UnitSettings } from '../units'
import type { Sketch } from '../sketch'

/** The version of the part file this program writes. */
export const PART_VERSION = 2

/**
 * A part: one plain, immutable document, and the only thing that is stored. Lengths are in mm,
 * angles in radians, densities in g/mm³; formulas are kept as they were typed.
 */
export interface Part {
  readonly format: 'lathica-part'
  readonly version: typeof PART_VERSION
  readonly name: string
  /** Lying parts are drawn with the axis across (shafts), standing ones with it upright (vessels). */
  readonly lie: 'lying' | 'standing'
  readonly units: UnitSettings
  /** Counts up with every id given out, so that no id is used twice. */
  readonly nextId: number
  readonly values: readonly NamedValue[]
  readonly materials: readonly Material[]
  readonly bodies: readonly Body[]
  readonly sketches: readonly Sketch[]
  readonly route: readonly Step[]
}

/** A value that formulas read by its name. */
export interface NamedValue {
  readonly name: string
  readonly measure: Measure
  readonly formula: string
}

export interface Material {
  readonly id: string
  readonly name: string
  /** in g/mm³ */
  readonly density: number
  /** for the picture, as #rrggbb */
  readonly colour: string
}

export interface Body {
  readonly id: string
  readonly name: string
  /** The id of one of the part's materials. */
  readonly material: string
}

interface AnyStep {
  readonly id: string
  /** As on a route card: 10, 20, 30 … */
  readonly number: number
  /** Steps that are set aside keep their place and do nothing. */
  readonly aside: boolean
}

/** A full turn of a sketch's closed profile about the part's axis. */
export interface RevolveStep extends AnyStep {
  readonly kind: 'revolve'
  readonly sketch: string
  /** Which closed regions are turned: all of the sketch's. */
  readonly regions: 'all'
  /** What the turned material does: it adds. */
  readonly effect: 'add'
  readonly body: string
}

/** A step this version does not know. It is kept as it was read and written back unchanged. */
export interface UnknownStep extends AnyStep {
  readonly kind: 'unknown'
  readonly kept: Readonly<Record<string, unknown>>
}

export type Step = RevolveStep | UnknownStep
