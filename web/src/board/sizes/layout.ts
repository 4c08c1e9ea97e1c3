import { formatAngle, formatLength, type UnitSettings } from '@lathica/core/units'
import { entityMap, locator, type Size, type Sketch } from '@lathica/core/sketch'
import { toleranceText, type ToleranceWay } from '@lathica/core/formula'
import { measureOf, measureSize, signOf } from '@lathica/core/constraints'
import type { View } from '../view'
import { acrossAt, acrossItem, landsOf, stackAcross, type AcrossItem } from './across'
import { axialItem, stackAxial, type AxialItem } from './axial'
import { frameOf, type Place } from './frame'
import { directionOf, linearDrawing, linearPlaces } from './linear'
import { measured } from './measured'
import { angleDrawing, roundDrawing, roundPlaces } from './round'
import { createCrowd } from './crowd'
import { labelWidth, type Setting, type SizeDrawing } from './setting'

export { anchorOf, reachOf } from './measured'
export type { SizeDrawing } from './setting'

/** Levels and rows move with the part's greatest radius in steps of this, in pixels, not at every move. */
const CALM = 10

/**
 * Lays sizes out without overlaps: axial ones in levels outside the section, short ones nearer;
 * diameters across the part with their labels in rows beyond its mirror image (ISO 129-1); the rest
 * beside what they measure. A label that was dragged stays where it was put.
 * @param top greatest radius in mm that the levels keep clear of
 * @param way how tolerances are shown
 * @param edge how far out from the axis the pane ends towards it, in pixels, where the axis lies beyond
 */
export function layoutSizes(
  sketch: Sketch,
  sizes: readonly Size[],
  view: View,
  top: number,
  units: UnitSettings,
  edge = 0,
  way: ToleranceWay = 'written',
): SizeDrawing[] {
  const entities = entityMap(sketch)
  const locate = locator(sketch)
  const texts = new Map<Size, string>()
  const text = (size: Size): string => {
    const known = texts.get(size)
    if (known !== undefined) return known
    const made = labelText(size, measureSize(size, entities, locate), units, way)
    texts.set(size, made)
    return made
  }
  const setting: Setting = {
    sketch,
    entities,
    locate,
    frame: frameOf(view),
    lands: landsOf(sketch, locate),
    top: Math.ceil((top * view.scale) / CALM) * CALM,
    ends: [
      Math.min(...sketch.points.map((p) => p.x)) * view.scale,
      Math.max(...sketch.points.map((p) => p.x)) * view.scale,
    ],
    text,
    edge,
  }
  const axial: AxialItem[] = []
  const across: AcrossItem[] = []
  const beside: Size[] = []
  const drawings: SizeDrawing[] = []
  for (const size of sizes) {
    if (size.label) {
      drawings.push(drawnAt(setting, size, labelPlace(setting, size)))
      continue
    }
    const { way } = measured(size, entities, locate)
    if (way === 'axial') axial.push(axialItem(setting, size))
    else if (way === 'across') across.push(acrossItem(setting, size))
    else if (size.kind === 'angle') drawings.push(angleDrawing(setting, size, undefined))
    else beside.push(size)
  }
  drawings.push(...stackAxial(setting, axial), ...stackAcross(setting, across))
  const crowd = createCrowd(drawings)
  for (const size of beside) {
    const places = placesFor(setting, size)
    const width = labelWidth(text(size))
    const free = places.find((p) => !crowd.meets({ label: setting.frame.toPane(p.a, p.r), width }))
    const place = free ?? places[0]
    if (!place) continue
    const drawing = drawnAt(setting, size, place)
    crowd.add(drawing)
    drawings.push(drawing)
  }
  return drawings
}

/** Where a dragged label stands, in the frame. */
function labelPlace({ entities, locate, frame }: Setting, size: Size): Place {
  const { ends } = measured(size, entities, locate)
  const { x = 0, y = 0 } = size.label ?? {}
  return {
    a: ((ends[0].x + ends[1].x) / 2 + x) * frame.scale,
    r: ((ends[0].y + ends[1].y) / 2 + y) * frame.scale,
  }
}

function drawnAt(setting: Setting, size: Size, place: Place): SizeDrawing {
  const { ends, way } = measured(size, setting.entities, setting.locate)
  if (way === 'across') return acrossAt(setting, acrossItem(setting, size), place)
  if ('curve' in size && way === 'round') return roundDrawing(setting, size, place)
  if (size.kind === 'angle') return angleDrawing(setting, size, place)
  const s = setting.frame.scale
  const [p, q] = ends.map((v) => ({ a: v.x * s, r: v.y * s }))
  const straight = way === 'axial' || way === 'radial' ? way : 'straight'
  const origin = { a: 0, r: 0 }
  return linearDrawing(
    setting,
    size,
    [p ?? origin, q ?? origin],
    directionOf(straight, ends),
    place,
  )
}

function placesFor(setting: Setting, size: Size): Place[] {
  if ('curve' in size) return roundPlaces(setting, size)
  const { ends, way } = measured(size, setting.entities, setting.locate)
  const s = setting.frame.scale
  const [p = { a: 0, r: 0 }, q = p] = ends.map((v) => ({ a: v.x * s, r: v.y * s }))
  const direction = directionOf(way === 'radial' ? 'radial' : 'straight', ends)
  // Outwards, or to the side of a radial line where the nearer end of the part is.
  const [from, to] = setting.ends
  const right = p.a + q.a >= from + to
  const outwards = way === 'radial' ? (right ? -1 : 1) : 1
  return linearPlaces(setting, [p, q], direction, labelWidth(setting.text(size)), outwards)
}

function labelText(size: Size, value: number, units: UnitSettings, way: ToleranceWay): string {
  const measure = measureOf(size)
  const figure = measure === 'angle' ? formatAngle(value, units) : formatLength(value, units)
  if (size.reference) return `(${signOf(size)}${figure})`
  const tolerance = toleranceText(size.formula, value, measure, units, way)
  return `${signOf(size)}${figure}${tolerance === '' ? '' : ` ${tolerance}`}`
}
