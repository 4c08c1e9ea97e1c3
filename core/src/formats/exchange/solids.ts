import type { LengthUnit } from '../../units'
import { Instances } from './instances'

/** What an exchange file says of one of its solids. */
export interface SolidSaid {
  /** Of its product, or its own where a product has several; empty where neither has one. */
  readonly name: string
  /** as #rrggbb; empty where it has none */
  readonly colour: string
  /** How many faces it has. */
  readonly faces: number
  /** How far its corners lie from their middle: the root of the mean square, in the file's unit; not told of an only one. */
  readonly spread: number
}

/** What an exchange file says of its solids, and of its unit of length. */
export interface FileSaid {
  readonly solids: readonly SolidSaid[]
  /** Undefined where it is none that parts are shown in. */
  readonly unit: LengthUnit | undefined
  /** How many mm the unit is. */
  readonly scale: number
  /** How far places may be off as the file itself says (ISO 10303-43), in mm; undefined where it says nothing of use. */
  readonly uncertainty: number | undefined
}

const SOLIDS = ['MANIFOLD_SOLID_BREP', 'BREP_WITH_VOIDS', 'FACETED_BREP'] as const

const UNCERTAINTY = /UNCERTAINTY_MEASURE_WITH_UNIT\s*\(\s*LENGTH_MEASURE\s*\(\s*([0-9.E+-]+)\s*\)/i

/** Reads names, colours, unit and uncertainty from the text of an exchange file (ISO 10303-21, schemas of ISO 10303-203, 214 and 242). */
export function readFileSaid(text: string): FileSaid {
  const file = new Instances(text)
  const solids = file.called(...SOLIDS)
  const products = productNames(file)
  const colours = coloursIn(file)
  const { unit, scale } = unitOf(file)
  const stated = Number(UNCERTAINTY.exec(text)?.[1])
  return {
    ...{ unit, scale, uncertainty: stated > 0 ? stated * scale : undefined },
    solids: solids.map((id) => {
      const [own = ''] = file.texts(id)
      const product = products.get(id)
      const isOnly = product?.solids === 1
      const name = isOnly || !isName(own) ? (product?.name ?? own) : own
      const shells = file.refs(id)
      const faces = shells.flatMap((shell) => facesOf(file, shell))
      const toned = new Set(faces.map((f) => colours.get(f)))
      const [ofFaces] = toned.size === 1 ? toned : []
      const colour =
        colours.get(id) ?? shells.map((s) => colours.get(s)).find((c) => c) ?? ofFaces ?? ''
      return {
        name: isName(name) ? name.trim() : '',
        colour,
        faces: faces.length,
        spread: solids.length > 1 ? spreadOf(file, id) : 0,
      }
    }),
  }
}

/** Whether a text is a name, and not what programs write where there is none. */
const isName = (text: string): boolean =>
  !/^\s*(?:none|noname|unnamed|solid|open cascade .*|)\s*$/i.test(text)

const facesOf = (file: Instances, shell: number): number[] => {
  const own = file.of(shell)
  // A void is a shell that is looked at from inside.
  return own.startsWith('ORIENTED')
    ? file.refs(shell).flatMap((s) => file.refs(s))
    : file.refs(shell)
}

/** The name of the product that each solid is the shape of, and how many solids that has. */
function productNames(
  file: Instances,
): ReadonlyMap<number, { readonly name: string; readonly solids: number }> {
  const items = new Map<number, readonly number[]>()
  const kinds = [
    'ADVANCED_BREP_SHAPE_REPRESENTATION',
    'FACETED_BREP_SHAPE_REPRESENTATION',
    'SHAPE_REPRESENTATION',
    'MANIFOLD_SURFACE_SHAPE_REPRESENTATION',
  ]
  for (const id of file.called(...kinds)) items.set(id, file.refs(id))
  const like = new Map<number, number[]>()
  for (const id of file.called('SHAPE_REPRESENTATION_RELATIONSHIP')) {
    const [a, b] = file.refs(id)
    if (a === undefined || b === undefined) continue
    like.set(a, [...(like.get(a) ?? []), b])
    like.set(b, [...(like.get(b) ?? []), a])
  }
  const found = new Map<number, { readonly name: string; readonly solids: number }>()
  for (const id of file.called('SHAPE_DEFINITION_REPRESENTATION')) {
    const [shape, representation] = file.refs(id)
    if (shape === undefined || representation === undefined) continue
    const name = file.productOf(shape)
    const all = [representation, ...(like.get(representation) ?? [])]
    const solids = all
      .flatMap((r) => items.get(r) ?? [])
      .filter((i) => SOLIDS.some((s) => file.of(i).startsWith(s)))
    for (const solid of solids) found.set(solid, { name, solids: solids.length })
  }
  return found
}

/** Colours by the solids, shells and faces that have them. */
function coloursIn(file: Instances): ReadonlyMap<number, string> {
  const found = new Map<number, string>()
  const known = new Map<number, string>()
  for (const id of file.called('STYLED_ITEM')) {
    const refs = file.refs(id)
    const item = refs.at(-1)
    if (item === undefined) continue
    for (const style of refs.slice(0, -1)) {
      const colour = known.get(style) ?? colourBelow(file, style)
      known.set(style, colour)
      if (colour !== '') found.set(item, colour)
    }
  }
  return found
}

/** Colours that go by a name (ISO 10303-46). */
const NAMED: Readonly<Record<string, string>> = {
  ...{ red: '#ff0000', green: '#00ff00', blue: '#0000ff', yellow: '#ffff00' },
  ...{ magenta: '#ff00ff', cyan: '#00ffff', black: '#000000', white: '#ffffff' },
}

function colourBelow(file: Instances, style: number): string {
  for (const id of file.below(style, 100)) {
    const own = file.of(id)
    if (own.startsWith('COLOUR_RGB')) {
      const numbers = /,([^,()]+),([^,()]+),([^,()]+)\)\s*$/.exec(own)?.slice(1).map(Number) ?? []
      if (numbers.length === 3 && numbers.every((v) => v >= 0 && v <= 1)) {
        return `#${numbers
          .map((v) =>
            Math.round(255 * v)
              .toString(16)
              .padStart(2, '0'),
          )
          .join('')}`
      }
    }
    if (own.startsWith('DRAUGHTING_PRE_DEFINED_COLOUR')) return NAMED[file.texts(id)[0] ?? ''] ?? ''
  }
  return ''
}

/** How many corners of a solid are looked at. */
const MOST_CORNERS = 20_000

function spreadOf(file: Instances, solid: number): number {
  const places: number[][] = []
  for (const id of file.below(solid, 30 * MOST_CORNERS)) {
    if (!file.of(id).startsWith('VERTEX_POINT')) continue
    const [point] = file.refs(id)
    const numbers =
      point === undefined ? undefined : /\(([^()]*)\)\s*\)\s*$/.exec(file.of(point))?.[1]
    const place = numbers?.split(',').map(Number)
    if (place?.length === 3) places.push(place)
    if (places.length >= MOST_CORNERS) break
  }
  return spread(places)
}

/** How far places lie from their middle: the root of the mean square. */
export function spread(places: readonly (readonly number[])[]): number {
  if (places.length === 0) return 0
  const middle = [0, 1, 2].map((k) => places.reduce((s, p) => s + (p[k] ?? 0), 0) / places.length)
  const squares = places.map((p) => middle.reduce((s, m, k) => s + ((p[k] ?? 0) - m) ** 2, 0))
  return Math.sqrt(squares.reduce((s, q) => s + q, 0) / places.length)
}

/** SI prefixes of the metre by which files tell lengths, each with how many mm it is. */
const METRES: Readonly<Record<string, number>> = { MILLI: 1, CENTI: 10, DECI: 100, MICRO: 1e-3 }
const SHOWN: ReadonlyMap<number, LengthUnit> = new Map([
  [1, 'mm'],
  [10, 'cm'],
  [1000, 'm'],
  [25.4, 'in'],
])

function unitOf(file: Instances): Pick<FileSaid, 'unit' | 'scale'> {
  for (const id of file.complex()) {
    const own = file.of(id)
    if (!own.includes('GLOBAL_UNIT_ASSIGNED_CONTEXT')) continue
    const units = /GLOBAL_UNIT_ASSIGNED_CONTEXT\s*\(\s*\(([^)]*)\)/.exec(own)?.[1] ?? ''
    for (const ref of units.matchAll(/#(\d+)/g)) {
      const scale = lengthOf(file, Number(ref[1]))
      if (scale !== undefined) return { scale, unit: SHOWN.get(scale) }
    }
  }
  return { scale: 1, unit: undefined }
}

/** How many mm a unit is; undefined for one of something else. */
function lengthOf(file: Instances, id: number): number | undefined {
  const own = file.of(id)
  if (!/\bLENGTH_UNIT\b/.test(own)) return undefined
  const converted = /CONVERSION_BASED_UNIT\s*\(\s*'[^']*'\s*,\s*#(\d+)/.exec(own)?.[1]
  if (converted !== undefined) {
    const factor = /LENGTH_MEASURE\s*\(\s*([0-9.E+-]+)\s*\)\s*,\s*#(\d+)/i.exec(
      file.of(Number(converted)),
    )
    const base = factor && lengthOf(file, Number(factor[2]))
    return factor && base !== undefined
      ? Number((Number(factor[1]) * (base ?? 1)).toPrecision(12))
      : undefined
  }
  const prefix = /SI_UNIT\s*\(\s*(?:\.(\w+)\.|\$)/i.exec(own)?.[1]
  return prefix === undefined ? 1000 : METRES[prefix.toUpperCase()]
}
