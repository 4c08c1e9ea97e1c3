import type { Box, Vec } from '@lathica/core/geometry'
import type { Part } from '@lathica/core/part'
import { METRIC, unitScale, type LengthUnit } from '@lathica/core/units'

/** A place on the screen in CSS pixels, from the pane's upper left corner. */
export interface Px {
  readonly x: number
  readonly y: number
}

/** How the section plane lies on the pane. */
export interface View {
  readonly lie: Part['lie']
  /** pixels per mm */
  readonly scale: number
  /** where the datum point is, in pixels */
  readonly origin: Px
}

const FINEST = 0.002
const CLOSEST = 4000

/** Lying parts have the axis across, standing ones upwards; the radius points up or right. */
export function toScreen(view: View, p: Vec): Px {
  const { lie, scale, origin } = view
  return lie === 'lying'
    ? { x: origin.x + p.x * scale, y: origin.y - p.y * scale }
    : { x: origin.x + p.y * scale, y: origin.y - p.x * scale }
}

export function toPlane(view: View, at: Px): Vec {
  const right = (at.x - view.origin.x) / view.scale
  const up = (view.origin.y - at.y) / view.scale
  return view.lie === 'lying' ? { x: right, y: up } : { x: up, y: right }
}

/** The view after a zoom that keeps what is under a place where it is. */
export function zoomedAt(view: View, at: Px, factor: number): View {
  const scale = Math.min(CLOSEST, Math.max(FINEST, view.scale * factor))
  const ratio = scale / view.scale
  return {
    ...view,
    scale,
    origin: {
      x: at.x + (view.origin.x - at.x) * ratio,
      y: at.y + (view.origin.y - at.y) * ratio,
    },
  }
}

export function pannedBy(view: View, dx: number, dy: number): View {
  return { ...view, origin: { x: view.origin.x + dx, y: view.origin.y + dy } }
}

/** Room kept around the part for its sizes, in pixels. */
export interface Margins {
  readonly axial: number
  /** on the side of the half-section */
  readonly outer: number
  /** on the side of the mirror image */
  readonly mirror: number
}

/** A line square to the axis through a place along it, from one side of the pane to the other. */
export function acrossPane(view: View, place: number, width: number, height: number): [Px, Px] {
  const { x, y } = toScreen(view, { x: place, y: 0 })
  return view.lie === 'lying'
    ? [
        { x, y: 0 },
        { x, y: height },
      ]
    : [
        { x: 0, y },
        { x: width, y },
      ]
}

/** So many units along the axis are shown while nothing is drawn, and a quarter as many to either side of it. */
const EMPTY_LENGTH: Readonly<Record<LengthUnit, number>> = { mm: 160, cm: 16, m: 1.6, in: 6 }

/** What is shown while nothing is drawn: a round length of the part's own unit. */
export function emptyBox(unit: LengthUnit): Box {
  const length = EMPTY_LENGTH[unit] * unitScale('length', { ...METRIC, length: unit })
  return { min: { x: 0, y: 0 }, max: { x: length, y: length / 4 } }
}

/**
 * The view in which a half-section, its mirror image and its sizes fill a pane.
 * @param box bounds of the half-section in mm
 */
export function fittedView(
  lie: Part['lie'],
  { min, max }: Box,
  width: number,
  height: number,
  margins: Margins,
): View {
  const radius = Math.max(max.y, -min.y, 1e-3)
  const length = Math.max(max.x - min.x, 1e-3)
  const [along, across] = lie === 'lying' ? [width, height] : [height, width]
  const usable = Math.max(40, across - margins.outer - margins.mirror)
  const scale = Math.min(Math.max(40, along - 2 * margins.axial) / length, usable / (2 * radius))
  const middle = (min.x + max.x) / 2
  const axis = margins.outer + usable / 2
  const origin =
    lie === 'lying'
      ? { x: width / 2 - middle * scale, y: axis }
      : { x: width - axis, y: height / 2 + middle * scale }
  return { lie, scale: Math.min(CLOSEST, Math.max(FINEST, scale)), origin }
}

/**
 * A length in mm that takes up about so many pixels: 1, 2 or 5 times a power of ten of a unit.
 * @param unit in mm
 */
export function roundLength(view: View, pixels: number, unit = 1): number {
  const wanted = pixels / view.scale / unit
  const power = 10 ** Math.floor(Math.log10(wanted))
  const step = [5, 2, 1].find((s) => s * power <= wanted) ?? 1
  return step * power * unit
}
