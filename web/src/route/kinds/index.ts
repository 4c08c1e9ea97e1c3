import type { KnownStep, Step } from '@lathica/core/part'
import type { Field, FieldContext } from '../steps/field'
import type { AllStepLooks, StepLooks, Telling } from './kind'
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
import { importLooks } from './import'
import { lengthLooks } from './length'
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

/** How every kind of step is shown. */
const STEP_LOOKS: AllStepLooks = {
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
  import: importLooks,
  mesh,
  repeat,
  length: lengthLooks,
  holes,
  flats,
  slot,
  extrude,
  sweep,
  around,
  halve,
}

/** A table by kind cannot be read by a union of steps in types. */
const looksOf = (step: KnownStep): StepLooks => STEP_LOOKS[step.kind] as StepLooks

/** What a step is called in the route and on its card. */
export const stepTitle = (step: Step): string =>
  step.kind === 'unknown' ? String(step.kept['kind']) : looksOf(step).title(step)

/** What a step made, in a few words for its row; of one with a profile what stands behind that. */
export const rowWords = (step: KnownStep, telling: Telling): string =>
  looksOf(step).row(step, telling)

/** The fields of a step's card, in the order they are asked. */
export const fieldsOf = (step: Step, context: FieldContext): readonly Field[] =>
  step.kind === 'unknown' ? [] : looksOf(step).fields(step, context)
