import type { Box } from '@lathica/core/geometry'
import type { View } from './view'

/*
 * A thin ring of large diameter would be drawn as two small hatched spots with a wide empty middle. Fitted, it is
 * brought up to the pane by itself: its axis then lies beyond the pane's edge, and a break line there says so.
 */

/** How far the break line stands in from the edge of the pane, in pixels. */
export const BREAK_IN = 26

/** Room between a ring and the edge beyond which its axis lies, for the labels of its diameters, in pixels. */
const LABELS = 76

/** A part whose inside takes more than this share of its radius is a thin ring. */
const THIN = 0.8
/** The middle is left out where that brings the part nearer by at least so many times. */
const WORTH = 1.6

/**
 * How far out from the axis the pane's edge lies, in pixels, where the axis lies beyond it; nought where it is seen.
 */
export function edgeOut({ lie, origin }: View, height: number): number {
  return Math.max(0, lie === 'lying' ? origin.y - height : -origin.x)
}

/** The view of a thin ring by itself, if it is one and gains by it. @param fitted the view with its axis */
export function besideAxis(
  { min, max }: Box,
  fitted: View,
  width: number,
  height: number,
  margins: { readonly axial: number; readonly outer: number },
): View | undefined {
  if (min.y < THIN * max.y) return undefined
  const { lie } = fitted
  const [along, across] = lie === 'lying' ? [width, height] : [height, width]
  const scale = Math.min(
    Math.max(40, along - 2 * margins.axial) / Math.max(max.x - min.x, 1e-3),
    Math.max(40, across - margins.outer - LABELS) / Math.max(max.y - min.y, 1e-3),
  )
  if (scale < WORTH * fitted.scale) return undefined
  const middle = (min.x + max.x) / 2
  const out = margins.outer + max.y * scale
  const origin =
    lie === 'lying'
      ? { x: width / 2 - middle * scale, y: out }
      : { x: width - out, y: height / 2 + middle * scale }
  return { lie, scale, origin }
}
