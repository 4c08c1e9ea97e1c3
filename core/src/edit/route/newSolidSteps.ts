import { edgeKey, edgesOf, type Section, type SectionEdge } from '../../section'
import type { Place } from '../../geometry'
import { angleText, lengthText, proportion, twoDigits } from '../../route'
import type { UnitSettings } from '../../units'
import type { HolesStep, NewStep, SlotStep } from '../../part'

/** What a first hole is like, before it is on a face. */
function plainHole(
  body: string,
  section: Section,
  units: UnitSettings,
): Omit<HolesStep, 'id' | 'number' | 'aside' | 'way' | 'on'> {
  const diameter = proportion(section, 0.08, units)
  return {
    ...{
      kind: 'holes',
      body,
      layout: 'circle',
      sketch: '',
      circle: '',
      count: '1',
      start: '',
      range: '',
    },
    ...{
      skip: [],
      places: [],
      from: '',
      distance: '',
      diameter,
      reach: 'through',
      depth: diameter,
    },
    ...{ tip: 'cone', tipAngle: angleText(118, units), head: 'none' },
    ...{ headDiameter: '', headDepth: '', headAngle: angleText(90, units), thread: '' },
  }
}

/** Six holes on a pitch circle in the middle of a face square to the axis. */
export function offeredHoles(
  body: string,
  edge: SectionEdge,
  section: Section,
  units: UnitSettings,
): NewStep {
  const { from, to } = edge.piece
  const [inner, outer] = [Math.min(from.y, to.y), Math.max(from.y, to.y)]
  const wide = twoDigits((outer - inner) / 3)
  const hole = plainHole(body, section, units)
  return {
    ...hole,
    ...{ way: 'end', on: edgeKey(edge.name), count: '6' },
    circle: lengthText(twoDigits(inner + outer), units),
    diameter: lengthText(Math.min(wide, 0.5 * outer), units),
    depth: lengthText(wide, units),
  }
}

/** One hole at a place of a face square to the axis that no full turn made. */
export function offeredHoleAt(
  body: string,
  face: string,
  { x, y }: Place,
  section: Section,
  units: UnitSettings,
): NewStep {
  const hole = plainHole(body, section, units)
  const angle = Math.round((180 / Math.PI) * Math.atan2(y, x))
  const at = {
    diameter: lengthText(twoDigits(2 * Math.hypot(x, y)), units),
    angle: angleText(angle, units),
  }
  return { ...hole, ...{ way: 'end', on: face, layout: 'places', places: [at] } }
}

/** One hole across the axis in the middle of a face along it, right through. */
export function offeredCrossHole(
  body: string,
  edge: SectionEdge,
  section: Section,
  units: UnitSettings,
): NewStep {
  const { from, to } = edge.piece
  const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)]
  const wide = twoDigits(Math.min(right - left, from.y) / 3)
  return {
    ...plainHole(body, section, units),
    ...{ way: 'cross', on: edgeKey(edge.name), from: edgeKey(edge.name) },
    distance: lengthText(twoDigits((right - left) / 2), units),
    diameter: lengthText(wide, units),
    depth: lengthText(wide, units),
  }
}

/**
 * Width, depth in the shaft and half-round cutter by shaft diameter, each row up to its first figure,
 * in mm. Keyways after ISO/R 773, normal fit; half-round seats after ISO 3912.
 */
const KEYS: readonly (readonly [upTo: number, width: number, depth: number])[] = [
  [8, 2, 1.2],
  [10, 3, 1.8],
  [12, 4, 2.5],
  [17, 5, 3],
  [22, 6, 3.5],
  [30, 8, 4],
  [38, 10, 5],
  [44, 12, 5],
  [50, 14, 5.5],
  [58, 16, 6],
  [65, 18, 7],
  [75, 20, 7.5],
  [85, 22, 9],
  [95, 25, 9],
  [110, 28, 10],
  [130, 32, 11],
]
const HALF_ROUND: readonly (readonly [
  upTo: number,
  width: number,
  depth: number,
  cutter: number,
])[] = [
  [4, 1, 1, 4],
  [5, 1.5, 2, 7],
  [6, 2, 1.8, 7],
  [7, 2, 2.9, 10],
  [8, 2.5, 2.7, 10],
  [10, 3, 3.8, 13],
  [12, 3, 5.3, 16],
  [14, 4, 5, 16],
  [16, 4, 6, 19],
  [18, 5, 4.5, 16],
  [20, 5, 5.5, 19],
  [22, 5, 7, 22],
  [25, 6, 6.5, 22],
  [28, 6, 7.5, 25],
  [32, 8, 8, 28],
  [38, 10, 10, 32],
]

/** The sizes a keyway or a half-round seat has by its shaft's diameter in mm. */
export function keySizes(
  form: 'keyway' | 'woodruff',
  diameter: number,
): { readonly width: number; readonly depth: number; readonly cutter: number } {
  if (form === 'keyway') {
    const [, width, depth] = KEYS.find(([upTo]) => diameter <= upTo) ?? KEYS.at(-1) ?? [0, 2, 1]
    return { width, depth, cutter: 4 * depth }
  }
  const row = HALF_ROUND.find(([upTo]) => diameter <= upTo) ?? HALF_ROUND.at(-1) ?? [0, 1, 1, 4]
  const [, width, depth, cutter] = row
  return { width, depth, cutter }
}

/** A slot right across a face square to the axis that no full turn made. */
export function offeredSlotAcross(
  body: string,
  face: string,
  section: Section,
  units: UnitSettings,
): NewStep {
  const width = proportion(section, 0.08, units)
  return {
    ...{ kind: 'slot', body, form: 'end', on: face, from: '', count: '1', phase: '' },
    ...{ ends: 'round', distance: '', width, depth: width, length: '', cutter: '' },
  }
}

/** A slot of a form in a face as it is offered first. */
export function offeredSlot(
  body: string,
  edge: SectionEdge,
  form: SlotStep['form'],
  units: UnitSettings,
): NewStep {
  const text = (mm: number): string => lengthText(mm, units)
  const { from, to } = edge.piece
  const common = {
    ...{
      kind: 'slot' as const,
      body,
      form,
      on: edgeKey(edge.name),
      from: '',
      count: '1',
      phase: '',
    },
    ends: 'round' as const,
  }
  if (form === 'end') {
    const outer = Math.max(from.y, to.y)
    const width = text(twoDigits(outer / 4))
    return { ...common, distance: '', width, depth: width, length: '', cutter: '' }
  }
  const length = Math.abs(to.x - from.x)
  const sizes = keySizes(form, 2 * from.y)
  const long = twoDigits(0.7 * length)
  return {
    ...common,
    distance: text(form === 'keyway' ? twoDigits((length - long) / 2) : twoDigits(length / 2)),
    width: text(sizes.width),
    depth: text(sizes.depth),
    length: text(Math.max(long, 1.5 * sizes.width)),
    cutter: text(sizes.cutter),
  }
}

/** What extrusions have in common as they are offered. */
const PLAIN_EXTRUDE = {
  ...({ kind: 'extrude', regions: 'all', reach: 'length', upTo: '' } as const),
  ...{ plane: '', on: '', offset: '', back: '', draft: '' },
}

/** A profile drawn out to both sides of its plane, by about its own height. */
export function extrudeOf(
  sketch: string,
  body: string,
  effect: 'add' | 'cut',
  section: Section,
  units: UnitSettings,
): NewStep {
  const ends = edgesOf(section).flatMap(({ piece }) => [piece.from.y, piece.to.y])
  const height = Math.max(1, Math.max(...ends) - Math.min(...ends))
  const length = lengthText(twoDigits(height), units)
  return { ...PLAIN_EXTRUDE, sketch, effect, body, side: 'symmetric', length }
}

/**
 * An end sketch drawn out of the face it lies on, or into it.
 * @param on the key of the face
 */
export function endExtrudeOf(
  sketch: string,
  body: string,
  effect: 'add' | 'cut',
  on: string,
  section: Section,
  units: UnitSettings,
): NewStep {
  const length = proportion(section, 0.08, units)
  return { ...PLAIN_EXTRUDE, sketch, effect, body, side: 'one', on, length }
}

/** The holes that are offered, at the places of an end sketch instead. */
export const sketchHoles = (sketch: string, offered: NewStep): NewStep =>
  ({ ...offered, layout: 'sketch', sketch }) as NewStep

/** A round rod along a path, on both sides where the path ends on the axis. */
export function offeredSweep(
  sketch: string,
  body: string,
  section: Section,
  isMirrored: boolean,
  units: UnitSettings,
): NewStep {
  return {
    ...{ kind: 'sweep', sketch, body, effect: 'add', form: 'round', outline: '', plane: '' },
    width: proportion(section, 0.05, units),
    ...{ height: '', corner: '', side: isMirrored ? 'mirrored' : 'one' },
  }
}
