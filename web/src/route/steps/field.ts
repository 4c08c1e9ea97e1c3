import type { Measure } from '@lathica/core/units'
import type { CornerPick, Part, Step } from '@lathica/core/part'
import type { BodyState } from '@lathica/core/route'
import type { Accept } from '../../board/refs'

/** A value typed as a formula. */
export interface ValueField {
  readonly kind: 'value'
  readonly label: string
  readonly want: Measure
  readonly text: string
  readonly sign?: string
  /** What an empty field means; without it the field has to be filled. */
  readonly empty?: string
  readonly set: (text: string) => Step
}

/** Words as they were typed: a thread, numbers in a row. */
interface WordsField {
  readonly kind: 'words'
  readonly label: string
  readonly text: string
  /** What an empty field means. */
  readonly empty: string
  readonly set: (text: string) => Step
}

/** One of a few. */
export interface ChoiceField {
  readonly kind: 'choice'
  readonly label: string
  readonly value: string
  readonly options: readonly { readonly value: string; readonly label: string }[]
  readonly set: (value: string) => Step
}

/** Faces picked on board or solid: one, or several. */
export interface FaceField {
  readonly kind: 'faces'
  readonly label: string
  readonly accept: Accept
  readonly many: boolean
  readonly keys: readonly string[]
  /** What no face means. */
  readonly none: string
  /** Faces of a solid that no full turn made are taken too. */
  readonly solids?: true
  readonly set: (keys: readonly string[]) => Step
}

/** The corners of a set, picked or by rule. */
interface CornersField {
  readonly kind: 'corners'
  readonly label: string
  readonly set: number
  readonly pick: CornerPick
}

interface HeadingField {
  readonly kind: 'heading'
  readonly label: string
  /** The step without what stands under the heading. */
  readonly remove?: Step
}

interface MoreField {
  readonly kind: 'more'
  readonly label: string
  readonly step: Step
}

/** The body a step works on; an empty choice is a new one. */
export interface BodyField {
  readonly kind: 'body'
  readonly label: string
  readonly body: string
  readonly mayBeNew: boolean
}

/** Regions of the profile that are turned. */
interface RegionsField {
  readonly kind: 'regions'
  readonly label: string
}

export type Field =
  | ValueField
  | WordsField
  | ChoiceField
  | FaceField
  | CornersField
  | HeadingField
  | MoreField
  | BodyField
  | RegionsField

/** What a step's fields are made from. */
export interface FieldContext {
  readonly part: Part
  /** The step's body as it finds it. */
  readonly before: BodyState | undefined
}

/** The choice of a body that is not there yet. */
export const NEW_BODY = '+new'

export const choice = (
  label: string,
  value: string,
  options: Readonly<Record<string, string>>,
  set: (value: string) => Step,
): ChoiceField => ({
  kind: 'choice',
  label,
  value,
  options: Object.entries(options).map(([v, l]) => ({ value: v, label: l })),
  set,
})

export const length = (
  label: string,
  text: string,
  set: (text: string) => Step,
  more: Partial<ValueField> = {},
): ValueField => ({ kind: 'value', label, want: 'length', text, set, ...more })

export const angle = (label: string, text: string, set: (text: string) => Step): ValueField => ({
  ...{ kind: 'value', label, want: 'angle', text, set },
})

/** An angle that may be left out. */
export const optionalAngle = (
  label: string,
  text: string,
  empty: string,
  set: (text: string) => Step,
): ValueField => ({ kind: 'value', label, want: 'angle', text, empty, set })

export const number = (
  label: string,
  text: string,
  set: (text: string) => Step,
  more: Partial<ValueField> = {},
): ValueField => ({ kind: 'value', label, want: 'number', text, set, ...more })

export const EFFECTS = { add: 'adds', cut: 'cuts', common: 'keeps what is common' }
export const bodyField = (body: string, mayBeNew = false): BodyField => ({
  ...{ kind: 'body', label: 'Body', body, mayBeNew },
})

/** Faces picked on board or solid. */
export const faces = (
  field: Omit<FaceField, 'kind' | 'set'>,
  set: (keys: readonly string[]) => Step,
): FaceField => ({ kind: 'faces', ...field, set })
