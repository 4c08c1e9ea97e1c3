import type { Frame, Place, Vec } from '../geometry'
import type { Part } from '../part'
import type { Problem } from '../result'
import type { Profile, Section, SolidProperties } from '../section'
import type { PlacedMesh, SolidPlan, SolidsTold } from '../solid'
import type { Solution } from '../solver'

/** A size of a step in words, in the part's unit, where it stands on the solid. */
export interface SizeAt {
  readonly body: string
  readonly at: Place
  readonly words: string
}

/** A place of what a step makes by which it can be taken hold of and moved. */
export interface StepGrip {
  readonly body: string
  /** Which of several alike, from 1 on. */
  readonly number: number
  readonly at: Place
  /** What it is called, such as “hole 2”, and where it is in words. */
  readonly name: string
  readonly words: string
}

/** What a step says of itself on every drawing, such as which centre hole it is, and where on the half-section. */
export interface CallOut {
  readonly body: string
  readonly at: Vec
  readonly out: Vec
  readonly words: string
}

/** A thread that is told but not modelled: its nominal circle at the mouth of its hole. */
export interface ThreadCircle {
  readonly body: string
  /** Its z runs into the hole. */
  readonly frame: Frame
  /** in mm */
  readonly radius: number
  /** Whether its other end is open too. */
  readonly through: boolean
}

/** What a sketch comes to. */
export interface SketchState {
  readonly solution: Solution
  readonly profile: Profile
  /** Problems of the sketch's sizes, by size id. */
  readonly sizeProblems: ReadonlyMap<string, Problem>
  /** Links to earlier profiles whose source is gone, by constraint id. */
  readonly lostLinks: readonly string[]
  /** What every size measures where the points stand, by size id, in mm or radians. */
  readonly measured: ReadonlyMap<string, number>
}

export interface StepState {
  readonly stepId: string
  readonly status: 'done' | 'failed' | 'aside'
  /** What went wrong and what mends it; only for failed steps. */
  readonly problem?: Problem
  /** What is worth saying of a step that worked, such as that it parts a body. */
  readonly notes: readonly string[]
  /** The bodies it changed. */
  readonly touched: readonly string[]
  /** All bodies as they stand after it. */
  readonly bodies: readonly BodyState[]
  /** What it added or took away, by itself, where it is such a step. */
  readonly tool: Section | undefined
  /** What edges that it made are told as, by key, where their own shape does not say it. */
  readonly edgeWords: ReadonlyMap<string, string>
  /** The sizes that its section does not show: of holes, flats, slots, bars. */
  readonly sizes: readonly SizeAt[]
  readonly threads: readonly ThreadCircle[]
  readonly calls: readonly CallOut[]
  readonly grips: readonly StepGrip[]
  /** The change of mass it made, in g. */
  readonly massChange: number
}

export interface BodyState {
  readonly bodyId: string
  /** The half-section; of a body that is no full turn, of what it would be as one. */
  readonly section: Section
  /** What the solid kernel builds, for a body that is no full turn. */
  readonly plan: SolidPlan | undefined
  /** Triangles that came in a file, of a body that is nothing else. */
  readonly mesh: PlacedMesh | undefined
  /** Shown to go by, and no part of the part. */
  readonly reference: boolean
  /** For a density of 1; undefined while the body has no material, or the kernel has not told. */
  readonly solid: SolidProperties | undefined
  /** in g; not a number while the kernel has not told */
  readonly mass: number
  /** What the kernel has told of solids so far. */
  readonly told: SolidsTold
}

/** A part, evaluated: what every sketch, step and body comes to. */
export interface PartState {
  readonly part: Part
  readonly sketches: ReadonlyMap<string, SketchState>
  readonly steps: readonly StepState[]
  readonly bodies: readonly BodyState[]
  /** Problems of named values, by name. */
  readonly valueProblems: ReadonlyMap<string, Problem>
}
