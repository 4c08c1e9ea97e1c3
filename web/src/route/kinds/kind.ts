import type { Measure } from '@lathica/core/units'
import type { KnownStep, Part, StepKind } from '@lathica/core/part'
import type { Field, FieldContext } from '../steps/field'

/** What the words of a row are made with: faces in words by their keys, formulas as figures. */
export interface Telling {
  readonly faceOf: (key: string) => string
  readonly figure: (formula: string, want?: Measure) => string
  readonly lie: Part['lie']
  readonly bodyName: (id: string) => string
}

/** How a kind of step is shown: in the route and on its card. */
export interface StepLooks<S extends KnownStep = KnownStep> {
  /** What it is called in the route and on its card. */
  title(step: S): string
  /** What it made, in a few words for its row; of a step with a profile what stands behind that. */
  row(step: S, telling: Telling): string
  /** The fields of its card, in the order they are asked. */
  fields(step: S, context: FieldContext): readonly Field[]
}

export type AllStepLooks = {
  readonly [K in StepKind]: StepLooks<Extract<KnownStep, { readonly kind: K }>>
}
