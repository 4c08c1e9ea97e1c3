import type { Part } from '../../part'
import type { NewStep } from '../../part'
import type { Section } from '../../section'
import type { ForeignFace } from '../types'

/** The turned body that holes, flats and slots are looked for in, with the axis along z. */
export interface Host {
  readonly body: string
  readonly section: Section
  /** Places nearer than this are one, in mm. */
  readonly near: number
  /** The size by which a face is judged to be turned about a line, in mm. */
  readonly size: number
  readonly units: Part['units']
}

/** A face of a solid that its half-section does not have, by its number in the solid. */
export interface RestFace extends ForeignFace {
  readonly number: number
}

/** A step that makes some of the faces, and how many it makes of its kind. */
export interface Feature {
  readonly kind: 'hole' | 'cross hole' | 'flat' | 'keyway' | 'half-round seat' | 'end slot'
  readonly count: number
  readonly step: NewStep
  /** The numbers of the faces that it makes. */
  readonly faces: readonly number[]
}

/** Finds what one kind of step would make among the faces that no other has taken yet. */
export type Finder = (rest: readonly RestFace[], host: Host) => readonly Feature[]
