import type { Vec } from '../../geometry'
import type { DrawnSize } from '../../part'
import type { Shape } from './asked'

/**
 * A place that sizes can be drawn from: a circular edge, or the middle of a face, straight or rounded; on the view from
 * an end a point, or a circle.
 */
export interface DrawnPlace {
  /** The end whose view it is on; empty for the view along the axis. */
  readonly end: DrawnSize['end']
  readonly body: string
  readonly key: string
  readonly what: 'corner' | 'line' | 'arc' | 'point' | 'ring'
  readonly at: Vec
}

/** What a size that was drawn measures. */
export interface Drawn {
  readonly shape: Shape
  readonly value: number
  readonly sign: string
}
