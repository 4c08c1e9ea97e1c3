import type { Px, View } from '../view'

/** A place in the directions of the part: along the axis and outwards from it, in pixels. */
export interface Place {
  readonly a: number
  readonly r: number
}

/**
 * The pane in the directions of the part: a along the axis and r outwards from it, both in pixels
 * from the datum point. Layout is done in these, so that lying and standing parts are one.
 */
export interface Frame {
  readonly toPane: (a: number, r: number) => Px
  /** How far a label of some width reaches along the axis and across it. */
  readonly extent: (width: number) => { readonly along: number; readonly across: number }
  readonly scale: number
  /** Whether lines across the part run up and down the pane. */
  readonly upright: boolean
}

/** The height of a size's label in pixels. */
export const LABEL_HEIGHT = 18

export function frameOf(view: View): Frame {
  const { origin, scale, lie } = view
  return lie === 'lying'
    ? {
        scale,
        upright: true,
        toPane: (a, r) => ({ x: origin.x + a, y: origin.y - r }),
        extent: (width) => ({ along: width, across: LABEL_HEIGHT }),
      }
    : {
        scale,
        upright: false,
        toPane: (a, r) => ({ x: origin.x + r, y: origin.y - a }),
        extent: (width) => ({ along: LABEL_HEIGHT, across: width }),
      }
}
