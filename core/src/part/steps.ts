import type { Without } from '../sketch'
import type { CentreType } from '../standards'
import type { BodyStep } from './bodySteps'
import type { ExtrudeStep, HolesStep, SolidStep, SweepStep } from './solidSteps'

/**
 * The steps of a route. Numbers are formulas as they were typed; edges are named by their keys, and
 * corners by the keys of the two edges that meet, so that both hold when sizes change.
 */
interface AnyStep {
  readonly id: string
  /** As on a route card: 10, 20, 30 … */
  readonly number: number
  /** Steps that are set aside keep their place and do nothing. */
  readonly aside: boolean
}

/** What turned material does to a body: joins it, is taken from it, or leaves what both have. */
export type StepEffect = 'add' | 'cut' | 'common'

/** A turn of a sketch's closed regions. */
export interface RevolveStep extends AnyStep {
  readonly kind: 'revolve'
  readonly sketch: string
  /** All that the profile encloses, or areas of it, each told by the entities around it. */
  readonly regions: 'all' | readonly (readonly string[])[]
  readonly effect: StepEffect
  readonly body: string
  /** The part's axis, or a line of the sketch, which takes the solid kernel. */
  readonly axis: string
  /** Less than a full turn, as an angle, takes the solid kernel; empty for a full turn. */
  readonly turn: string
  /** A plane that it goes up to instead: see `TurnTo`; empty for by its angle. */
  readonly turnTo: TurnTo
  /** A part turn goes to one side of the profile's plane, to both by angles of their own, or evenly. */
  readonly side: 'one' | 'both' | 'symmetric'
  readonly back: string
  /** Sides of a polygon turned instead of a circle, which takes the solid kernel; empty for none. */
  readonly facets: string
  /** The profile's radii are those of the flats, or of the corners. */
  readonly facetTo: 'flats' | 'corners'
  /** The angle of the middle of a flat, or at which the profile's plane stands; empty for none. */
  readonly phase: string
}

/**
 * The plane through the axis that a part turn goes up to: the start or the end of an earlier part turn,
 * `step/first` or `step/last`, or that of a point of an end sketch, `sketch.point`.
 */
export type TurnTo = string

export type WallSide = 'outside' | 'inside' | 'middle' | 'both'

/** A turn of an open chain given a thickness. */
export interface WallStep extends AnyStep {
  readonly kind: 'wall'
  readonly sketch: string
  readonly side: WallSide
  readonly thickness: string
  /** The thickness inside, where both sides have one of their own. */
  readonly inner: string
  readonly corners: 'sharp' | 'round' | 'bevelled'
  readonly ends: 'flat' | 'round'
  readonly effect: StepEffect
  readonly body: string
  /** Less than a full turn, as of a revolve. */
  readonly turn: string
  readonly turnTo: TurnTo
  readonly turnSide: RevolveStep['side']
  readonly back: string
  readonly phase: string
}

export type GrooveForm =
  'rectangular' | 'round' | 'vee' | 'belt' | 'rope' | 'oring' | 'retaining' | 'relief'

/** Where a groove is on its face. */
export interface GroovePlace {
  /** Its start, its end, its middle, the axis (on a face: told as a diameter), or an edge's key. */
  readonly from: string
  /** Another edge: then the groove stands in the middle between the two. */
  readonly second: string
  /** Which part of the groove the distance goes to. */
  readonly to: 'near' | 'middle' | 'far'
  readonly distance: string
}

/** A groove into a cylinder, a cone or a face, perhaps several at one pitch. */
export interface GrooveStep extends AnyStep {
  readonly kind: 'groove'
  readonly body: string
  /** Key of the edge it is cut into. */
  readonly on: string
  readonly form: GrooveForm
  readonly place: GroovePlace
  /** Whether its profile is turned end for end: the square side of a relief stands at the start of its face. */
  readonly turned?: boolean
  /** Formulas by the form's field names; the depth may be told as a bottom diameter instead. */
  readonly sizes: Readonly<Record<string, string>>
  readonly count: string
  readonly pitch: string
}

export interface BorePart {
  readonly diameter: string
  /** To the end of the full diameter, from the mouth; empty for through. */
  readonly depth: string
}

/** A bore on the axis from one end: its diameters from the mouth on. */
export interface BoreStep extends AnyStep {
  readonly kind: 'bore'
  readonly body: string
  readonly end: 'left' | 'right'
  readonly parts: readonly BorePart[]
  /** Key of an edge whose plane the last diameter goes up to; empty when its depth says. */
  readonly upTo: string
  readonly tip: 'flat' | 'cone'
  /** The full angle of a cone tip. */
  readonly tipAngle: string
  /** A countersink: its greatest diameter, empty for none, and full angle. */
  readonly sinkDiameter: string
  readonly sinkAngle: string
}

/** A centre hole in an end, by its type and pilot (ISO 6411). */
export interface CentreStep extends AnyStep {
  readonly kind: 'centre'
  readonly body: string
  readonly end: 'left' | 'right'
  readonly type: CentreType
  /** Its diameter in mm, one of the standard’s. */
  readonly pilot: string
  /** Whether the finished part keeps it; one that goes is told, and not cut. */
  readonly remains: 'stays' | 'may' | 'goes'
}

/** Which corners a set takes. */
export type CornerPick =
  | { readonly kind: 'corners'; readonly corners: readonly string[] }
  /** Of a body that is no full turn: where two faces meet, by the names of both. */
  | { readonly kind: 'solid'; readonly edges: readonly string[] }
  | { readonly kind: 'inside' }
  | { readonly kind: 'outside' }
  | { readonly kind: 'step'; readonly step: string }

export interface FilletSet {
  readonly pick: CornerPick
  readonly radius: string
}

export interface FilletStep extends AnyStep {
  readonly kind: 'fillet'
  readonly body: string
  readonly sets: readonly FilletSet[]
}

export interface ChamferSet {
  readonly pick: CornerPick
  /** The leg on the edge that runs more along the axis. */
  readonly along: string
  /** The other leg; empty when the angle says. */
  readonly across: string
  /** The angle to the edge that the first leg lies on. */
  readonly angle: string
}

export interface ChamferStep extends AnyStep {
  readonly kind: 'chamfer'
  readonly body: string
  readonly sets: readonly ChamferSet[]
}

export interface ShellStep extends AnyStep {
  readonly kind: 'shell'
  readonly body: string
  readonly side: 'inside' | 'outside'
  readonly thickness: string
  /** Keys of the faces left open. */
  readonly open: readonly string[]
  readonly faces: readonly { readonly edge: string; readonly thickness: string }[]
  readonly corners: 'sharp' | 'round'
  /** Of a body that is no full turn: the wall follows its turned shape alone, or flats and holes too. */
  readonly follow: 'turn' | 'solid'
}

/** Ridges along a cylinder, a cone, a face or a free surface, spaced by the length of its outline. */
export interface RidgesStep extends AnyStep {
  readonly kind: 'ridges'
  readonly body: string
  /** Key of the face. */
  readonly on: string
  readonly shape: 'round' | 'vee' | 'wave'
  /** Raised from the face, or sunk into it. */
  readonly side: 'out' | 'in'
  /** Whether the number is told, or about how far apart they are. */
  readonly by: 'count' | 'pitch'
  readonly count: string
  readonly pitch: string
  readonly height: string
  /** Over so much of both ends of the face they grow to their height; empty for none. */
  readonly fade: string
}

/** What earlier steps did, again and again along the axis. */
export interface RepeatStep extends AnyStep {
  readonly kind: 'repeat'
  readonly steps: readonly string[]
  /** With the first. */
  readonly count: string
  readonly pitch: string
}

/** An end cut back or drawn out to an overall length. */
export interface LengthStep extends AnyStep {
  readonly kind: 'length'
  readonly body: string
  readonly end: 'left' | 'right'
  readonly length: string
}

/** A step this version does not know. It is kept as it was read and written back unchanged. */
export interface UnknownStep extends AnyStep {
  readonly kind: 'unknown'
  readonly kept: Readonly<Record<string, unknown>>
}

export type KnownStep =
  | RevolveStep
  | WallStep
  | GrooveStep
  | RidgesStep
  | BoreStep
  | CentreStep
  | FilletStep
  | ChamferStep
  | ShellStep
  | RepeatStep
  | LengthStep
  | BodyStep
  | SolidStep

export type Step = KnownStep | UnknownStep
export type StepKind = KnownStep['kind']

/** A step before it has its place in the route. */
export type NewStep = Without<KnownStep, 'id' | 'number' | 'aside'>

/** Steps that are made from a profile. */
export const usesSketch = (
  step: Step,
): step is RevolveStep | WallStep | ExtrudeStep | SweepStep | HolesStep =>
  'sketch' in step && (step.kind !== 'holes' || step.layout === 'sketch')

/** Steps that follow a profile's open chain, which need not close. */
export const usesChain = (step: Step): step is WallStep | SweepStep =>
  step.kind === 'wall' || step.kind === 'sweep'

/** The body a step changes; steps that follow others have none of their own. */
export const bodyOf = (step: Step): string | undefined => ('body' in step ? step.body : undefined)
