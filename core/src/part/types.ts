import type { Measure, UnitSettings } from '../units'
import type { Sketch } from '../sketch'
import type { Check } from './checks'
import type { Note } from './notes'
import type { BoardPicture } from './picture'
import type { FormClass, GeneralClass } from '../standards'
import type { DrawingSetup } from './sheet'
import type { Step } from './steps'

/** The version of the part file this program writes. */
export const PART_VERSION = 19

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
  /** How far sizes without tolerances of their own may be off (ISO 2768-1); left out where nothing is said. */
  readonly general?: GeneralClass
  /** How far forms and positions without tolerances of their own may be off (ISO 2768-2); nothing is said where it is left out. */
  readonly generalForm?: FormClass
  /** What is said of its faces; left out where nothing is. */
  readonly notes?: readonly Note[]
  /** The inspection sheet. */
  readonly checks: readonly Check[]
  /** How it is drawn for the workshop; left out where all of that is left to the program. */
  readonly drawing?: DrawingSetup
  /** Behind the board; left out where there is none. */
  readonly picture?: BoardPicture
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
  readonly look: Look
}

/** How a surface takes the light. */
export const LOOKS = ['metal', 'plastic', 'glass', 'ceramic', 'wood', 'fabric'] as const
export type Look = (typeof LOOKS)[number]

export interface Body {
  readonly id: string
  readonly name: string
  /** The id of one of the part's materials. */
  readonly material: string
  /** For the picture, as #rrggbb; empty for the material's. */
  readonly colour: string
  /** Empty for the material's. */
  readonly look: Look | ''
  readonly visible: boolean
  /** Shown beside the part to go by, and no part of it: not weighed, not handed over. */
  readonly reference: boolean
  /** A locked body takes no new steps, and its steps are not changed. */
  readonly locked: boolean
}
