import type { FieldSchema } from '../../part/fields'
import type { KnownStep, NewStep, StepKind } from '../../part'
import type { Result } from '../../result'
import type { Section } from '../../section'
import type { UnitSettings } from '../../units'
import type { Vec } from '../../geometry'
import type { StepGrip } from '../state'
import type { Outcome, StepContext } from '../steps/context'

/** What a new step is in proportion to. */
export interface StandsOn {
  readonly body: string
  /** The body as it stands. */
  readonly section: Section
  /** The id of the step before it, if there is one. */
  readonly lastStep: string | undefined
  readonly units: UnitSettings
}

/** Where a grip is moved to. */
export interface GripMove {
  /** In the part’s directions square to its axis, in mm. */
  readonly to: Vec
  /** Either away from the axis or round it, whichever is more. */
  readonly straight: boolean
  readonly units: UnitSettings
}

/** Steps that do others again. */
export type Repeater = 'around' | 'repeat' | 'mirror'

/** A kind of step: all that the model knows of it. */
export interface StepRules<S extends KnownStep = KnownStep> {
  /** What it is called within a sentence. */
  readonly name: string
  /** What its own fields hold in a part file. */
  readonly fields: Readonly<
    Record<Exclude<keyof S, 'id' | 'number' | 'aside' | 'kind'>, FieldSchema>
  >
  /** Which steps can do it again. */
  readonly again?: readonly Repeater[]
  /** Whether what it makes is no full turn, whatever it is given. */
  readonly mills?: true
  /** Whether it may leave flat faces along the axis, up to which a turn can go. */
  readonly planes?: true
  /** As it is offered first, where nothing has to be picked before; what it refers to is picked afterwards. */
  offer?(stands: StandsOn): NewStep
  /** The step with what it makes at another place; undefined where its place is told by names of values. */
  moved?(step: S, grip: StepGrip, move: GripMove): KnownStep | undefined
  /** Does its work on the bodies as they stand. */
  run(step: S, context: StepContext): Result<Outcome>
}

/** Rules of a kind that is offered with nothing picked. */
export type OfferedRules<S extends KnownStep> = StepRules<S> & Required<Pick<StepRules<S>, 'offer'>>

export type StepKinds = {
  readonly [K in StepKind]: StepRules<Extract<KnownStep, { readonly kind: K }>>
}
