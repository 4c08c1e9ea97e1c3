import type { StepKind } from '../../part'
import type { OfferedRules, StepKinds, StepRules } from './kind'
import { around } from './around'
import { bore } from './bore'
import { centre } from './centre'
import { chamfer } from './chamfer'
import { combine } from './combine'
import { extrude } from './extrude'
import { fillet } from './fillet'
import { flats } from './flats'
import { groove } from './groove'
import { halve } from './halve'
import { holes } from './holes'
import { importKind } from './import'
import { length } from './length'
import { mesh } from './mesh'
import { mirror } from './mirror'
import { move } from './move'
import { repeat } from './repeat'
import { revolve } from './revolve'
import { ridges } from './ridges'
import { shell } from './shell'
import { slot } from './slot'
import { sweep } from './sweep'
import { wall } from './wall'

/** Every kind of step there is. */
export const STEP_KINDS = {
  revolve,
  wall,
  groove,
  ridges,
  bore,
  centre,
  fillet,
  chamfer,
  shell,
  mirror,
  move,
  combine,
  import: importKind,
  mesh,
  repeat,
  length,
  holes,
  flats,
  slot,
  extrude,
  sweep,
  around,
  halve,
} satisfies StepKinds

/** Kinds of steps that are offered with nothing picked. */
export type OfferedKind = {
  [K in StepKind]: (typeof STEP_KINDS)[K] extends OfferedRules<never> ? K : never
}[StepKind]

/** What there is to know of a step's kind. A table by kind cannot be read by a union of steps in types. */
export const stepRules = (step: { readonly kind: StepKind }): StepRules =>
  STEP_KINDS[step.kind] as StepRules
