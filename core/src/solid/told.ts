import type { Place, Vec } from '../geometry'
import type { Result } from '../result'
import { planKey } from './content'
import type { SolidPlan } from './plan'

/** A face of a solid or an edge by its name, all of the solid where that is empty; a place; or the part's axis. */
export type SolidSpot =
  | { readonly kind: 'on'; readonly plan: SolidPlan; readonly name: string }
  | { readonly kind: 'at'; readonly at: Place }
  | { readonly kind: 'axis' }

/** What faces and edges can be. */
export type ShapeKind =
  'plane' | 'cylinder' | 'cone' | 'sphere' | 'torus' | 'surface' | 'line' | 'circle' | 'curve'

/** What a face or an edge is, of its pieces together. */
export interface SolidShape {
  readonly kind: ShapeKind
  /** A place on its plane, line or axis, or its centre. */
  readonly at: Place
  /** Square to a plane or a circle, along a line or an axis; of length 1. */
  readonly way: Place
  /** In mm; nought of what has none. */
  readonly radius: number
  /** The area of a face in mm², the length of an edge in mm. */
  readonly size: number
}

/** A way from one place of solids to another. */
export interface SolidWay {
  readonly distance: number
  readonly from: Place
  readonly to: Place
  /** The true distance is less by no more than this, in mm; nought where it is exact. */
  readonly within: number
}

/** What a face or an edge is. */
export interface ShapeAsk {
  readonly kind: 'shape'
  readonly plan: SolidPlan
  readonly name: string
}

/** The least distance between two spots. */
export interface ApartAsk {
  readonly kind: 'apart'
  readonly from: SolidSpot
  readonly to: SolidSpot
}

/** The least way through the material between faces that do not meet. */
export interface WallAsk {
  readonly kind: 'wall'
  readonly plan: SolidPlan
  /** The least wall of the full turn, as two places of the half-section, which is exact where it is still there. */
  readonly turned: readonly [Vec, Vec] | undefined
}

/** A question about solids as they are, which the kernel answers. */
export type SolidAsk = ShapeAsk | ApartAsk | WallAsk
export type SolidTold<A extends SolidAsk = SolidAsk> = A extends ShapeAsk ? SolidShape : SolidWay

/** What the kernel has told of solids so far, by the content of what was asked. */
export type SolidsTold = ReadonlyMap<string, Result<SolidTold>>

/** So many answers are remembered. */
const MOST_TOLD = 500

/** The answers with one more; the oldest are let go of when there are very many. */
export function withTold(told: SolidsTold, ask: SolidAsk, answer: Result<SolidTold>): SolidsTold {
  const key = askKey(ask)
  const kept = [...told].filter(([k]) => k !== key).slice(1 - MOST_TOLD)
  return new Map([...kept, [key, answer]])
}

/** What was told when this was asked; undefined while it was not. */
export const toldFor = <A extends SolidAsk>(
  told: SolidsTold,
  ask: A,
): Result<SolidTold<A>> | undefined =>
  // What is kept for a question of a kind is an answer of that kind.
  told.get(askKey(ask)) as Result<SolidTold<A>> | undefined

/** The solids that are asked about. */
export const plansOf = (ask: SolidAsk): readonly SolidPlan[] =>
  ask.kind === 'apart'
    ? [ask.from, ask.to].flatMap((spot) => (spot.kind === 'on' ? [spot.plan] : []))
    : [ask.plan]

/** What tells a question from others. */
export function askKey(ask: SolidAsk): string {
  switch (ask.kind) {
    case 'shape':
      return `shape ${planKey(ask.plan)} ${ask.name}`
    case 'apart':
      return `apart ${spotKey(ask.from)} ${spotKey(ask.to)}`
    case 'wall':
      return `wall ${planKey(ask.plan)}`
  }
}

function spotKey(spot: SolidSpot): string {
  switch (spot.kind) {
    case 'on':
      return `${planKey(spot.plan)} ${spot.name}`
    case 'at':
      return `${spot.at.x},${spot.at.y},${spot.at.z}`
    case 'axis':
      return 'axis'
  }
}
