import {
  AXIS_ID,
  ORIGIN_ID,
  isAcross,
  type Constraint,
  type Size,
  type DrawnSketch,
  type Sketch,
  type SketchPlane,
} from './types'

/** A constraint or a size. */
export type Item = Constraint | Size

/** The ids of points and curves a constraint or size stands on, the axis and origin left out. */
export function referencesOf(item: Item): string[] {
  return allReferences(item).filter(
    (id) => id !== AXIS_ID && id !== ORIGIN_ID && id !== 'axial' && id !== 'radial',
  )
}

function allReferences(item: Item): readonly string[] {
  switch (item.kind) {
    case 'coincident':
    case 'inLine':
    case 'axialDistance':
    case 'radialDistance':
    case 'distance':
      return [item.a, item.b]
    case 'symmetric':
      return [item.a, item.b, item.about]
    case 'axial':
    case 'radial':
    case 'length':
      return [item.line]
    case 'pointOn':
      return [item.point, item.curve]
    case 'midpoint':
      return [item.point, item.line]
    case 'fixed':
    case 'linked':
    case 'diameter':
      return [item.point]
    case 'span':
      return [item.point, item.about]
    case 'gap':
      return [item.item, item.to]
    case 'radius':
    case 'curveDiameter':
    case 'arcLength':
      return [item.curve]
    case 'angle':
    case 'parallel':
    case 'perpendicular':
      return [item.line, item.to]
    case 'equal':
    case 'tangent':
    case 'concentric':
      return [item.curve, item.to]
    case 'repeat':
      return [...item.points, ...item.copies.flat(), item.along]
  }
}

/** Fields that hold an id of something else in the sketch. */
const ID_FIELDS: ReadonlySet<string> = new Set([
  ...['a', 'b', 'about', 'line', 'to', 'point', 'curve', 'item', 'along'],
  ...['from', 'centre', 'rim', 'fromHandle', 'toHandle'],
])

/** The same item or entity standing on other points and curves. */
export function withIds<T extends object>(item: T, rename: (id: string) => string): T {
  const entries = Object.entries(item).map(([key, value]: [string, unknown]) => {
    if (ID_FIELDS.has(key) && typeof value === 'string') return [key, rename(value)]
    if (key === 'points') return [key, (value as string[]).map(rename)]
    if (key === 'copies') return [key, (value as string[][]).map((copy) => copy.map(rename))]
    return [key, value]
  })
  return Object.fromEntries(entries) as T
}

/** What directions and given places are called in a plane. */
export interface PlaneWords {
  readonly axis: string
  readonly origin: string
  /** Along x, and along y. */
  readonly axial: string
  readonly radial: string
}

const HALF_WORDS: PlaneWords = {
  axis: 'the axis',
  origin: 'the datum point',
  axial: 'axial',
  radial: 'radial',
}

const END_WORDS: PlaneWords = {
  axis: 'the level centre line',
  origin: 'the centre',
  axial: 'level',
  radial: 'upright',
}

export const planeWords = (plane: SketchPlane): PlaneWords =>
  isAcross(plane) ? END_WORDS : HALF_WORDS

/** What a point or curve is called in a sentence: its kind and its place in the sketch, from 1. */
export function entityName(sketch: DrawnSketch, id: string): string {
  const words = planeWords(sketch.plane)
  if (id === AXIS_ID) return words.axis
  if (id === ORIGIN_ID) return words.origin
  const found = sketch.entities.findIndex((e) => e.id === id)
  if (found >= 0) return `${sketch.entities[found]?.kind ?? 'line'} ${found + 1}`
  const point = sketch.points.findIndex((p) => p.id === id)
  return point >= 0 ? `point ${point + 1}` : 'something deleted'
}

/** A constraint or size in words, as in “line 3 axial” or “⌀ of point 4”. */
export function describeItem(sketch: Sketch, item: Item): string {
  const name = (id: string): string => entityName(sketch, id)
  const words = planeWords(sketch.plane)
  switch (item.kind) {
    case 'coincident':
      return `${name(item.a)} meets ${name(item.b)}`
    case 'axial':
      return `${name(item.line)} ${words.axial}`
    case 'radial':
      return `${name(item.line)} ${words.radial}`
    case 'pointOn':
      return `${name(item.point)} on ${name(item.curve)}`
    case 'fixed':
      return `${name(item.point)} fixed`
    case 'linked':
      return `${name(item.point)} on a corner of another profile`
    case 'inLine':
      return `${name(item.a)} in line with ${name(item.b)}, ${words[item.along]}`
    case 'parallel':
    case 'perpendicular':
      return `${name(item.line)} ${item.kind} to ${name(item.to)}`
    case 'equal': {
      const round = sketch.entities.find((e) => e.id === item.curve)?.kind !== 'line'
      return `${name(item.curve)} ${round ? 'equal in radius to' : 'as long as'} ${name(item.to)}`
    }
    case 'tangent':
      return `${name(item.curve)} tangent to ${name(item.to)}`
    case 'concentric':
      return `${name(item.curve)} concentric with ${name(item.to)}`
    case 'midpoint':
      return `${name(item.point)} in the middle of ${name(item.line)}`
    case 'symmetric':
      return `${name(item.a)} and ${name(item.b)} symmetric about ${name(item.about)}`
    case 'repeat':
      return `repeat of ${item.points.length} points, ${item.copies.length + 1} in all`
    default:
      return `${measured(item, name, words)}, ${item.name} = ${signOf(item)}${item.formula}`
  }
}

/** What a size measures, in words. */
function measured(size: Size, name: (id: string) => string, words: PlaneWords): string {
  switch (size.kind) {
    case 'length':
      return `length of ${name(size.line)}`
    case 'axialDistance':
      return `${words.axial} distance of ${name(size.a)} and ${name(size.b)}`
    case 'radialDistance':
      return `${words.radial} distance of ${name(size.a)} and ${name(size.b)}`
    case 'distance':
      return `distance of ${name(size.a)} and ${name(size.b)}`
    case 'diameter':
      return `diameter at ${name(size.point)}`
    case 'span':
      return `span of ${name(size.point)} about ${name(size.about)}`
    case 'gap':
      return `distance of ${name(size.item)} from ${name(size.to)}`
    case 'radius':
      return `radius of ${name(size.curve)}`
    case 'curveDiameter':
      return `diameter of ${name(size.curve)}`
    case 'arcLength':
      return `length of ${name(size.curve)}`
    case 'angle':
      return `angle of ${name(size.line)} to ${name(size.to)}`
  }
}

/** The sign before a size's figure (ISO 129-1): ⌀ for diameters, R for radii. */
export function signOf(size: Pick<Size, 'kind'>): string {
  if (size.kind === 'diameter' || size.kind === 'curveDiameter') return '⌀'
  if (size.kind === 'radius') return 'R'
  return size.kind === 'arcLength' ? '⌒' : ''
}

/** The constraint or size of an id. */
export function findItem(sketch: Sketch, id: string): Item | undefined {
  return sketch.constraints.find((c) => c.id === id) ?? sketch.sizes.find((s) => s.id === id)
}
