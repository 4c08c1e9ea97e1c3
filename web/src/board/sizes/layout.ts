import {
  entityMap,
  formatAngle,
  formatLength,
  locator,
  measureSize,
  type Size,
  type Sketch,
  type UnitSettings,
} from '@lathica/core'
import type { View } from '../view'
import { acrossItem, stackAcross, type AcrossItem } from './across'
import { axialItem, stackAxial, type AxialItem } from './axial'
import { frameOf } from './frame'
import type { Setting, SizeDrawing } from './setting'
import { alignedSize, angleSize } from './slanted'

export type { SizeDrawing } from './setting'

/**
 * Lays sizes out without overlaps: axial ones in levels outside the section, short ones nearer;
 * diameters across the part with their labels in rows beyond its mirror image (ISO 129-1).
 * @param top greatest radius in mm that the levels keep clear of
 */
export function layoutSizes(
  sketch: Sketch,
  sizes: readonly Size[],
  view: View,
  top: number,
  units: UnitSettings,
): SizeDrawing[] {
  const lines = entityMap(sketch)
  const locate = locator(sketch)
  const setting: Setting = {
    sketch,
    lines,
    locate,
    frame: frameOf(view),
    top: top * view.scale,
    ends: [
      Math.min(...sketch.points.map((p) => p.x)) * view.scale,
      Math.max(...sketch.points.map((p) => p.x)) * view.scale,
    ],
    text: (size) => labelText(size, measureSize(size, lines, locate), units),
  }
  const axial: AxialItem[] = []
  const across: AcrossItem[] = []
  const drawings: SizeDrawing[] = []
  for (const size of sizes) {
    const item = axialItem(setting, size)
    if (item) axial.push(item)
    else if (size.kind === 'diameter') across.push(acrossItem(setting, size))
    else if (size.kind === 'length') drawings.push(alignedSize(setting, size))
    else if (size.kind === 'angle') drawings.push(angleSize(setting, size))
  }
  return [...drawings, ...stackAxial(setting, axial), ...stackAcross(setting, across)]
}

function labelText(size: Size, value: number, units: UnitSettings): string {
  const sign = size.kind === 'diameter' ? '⌀' : ''
  const figure = size.kind === 'angle' ? formatAngle(value, units) : formatLength(value, units)
  return size.reference ? `(${sign}${figure})` : `${sign}${figure}`
}
