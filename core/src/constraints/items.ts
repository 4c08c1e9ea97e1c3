import {
  ALONG_AXIS,
  ALONG_RADIUS,
  entityName,
  isGiven,
  planeWords,
  type Constraint,
  type Entities,
  type Locate,
  type Size,
  type Sketch,
  type SketchPlane,
} from '../sketch'
import type { ConstraintKind, SizeKind } from './kind'
import { CONSTRAINT_KINDS } from './kinds'
import { SIZE_KINDS } from './sizes'

/** A constraint or a size. */
export type Item = Constraint | Size

// A table of kinds by name cannot be read by a union of constraints or sizes in types: what is found is of the
// kind of what was asked with.

/** What there is to know of a constraint's kind. */
export const constraintKind = <C extends Pick<Constraint, 'kind'>>(
  c: C,
): ConstraintKind<C & Constraint> =>
  CONSTRAINT_KINDS[c.kind] as unknown as ConstraintKind<C & Constraint>

/** What there is to know of a size's kind. */
export const sizeKind = <S extends Pick<Size, 'kind'>>(size: S): SizeKind<S & Size> =>
  SIZE_KINDS[size.kind] as unknown as SizeKind<S & Size>

const isSize = (item: { readonly kind: string }): item is Size =>
  Object.hasOwn(SIZE_KINDS, item.kind)

type Fields = Readonly<Record<string, string | readonly string[]>>

const fieldsOf = (item: Pick<Item, 'kind'>): Fields =>
  isSize(item) ? sizeKind(item).fields : constraintKind(item as Constraint).fields

/** The ids of points and curves a constraint or size stands on, the axis and origin left out. */
export function referencesOf(item: Item): string[] {
  const values = item as unknown as Readonly<Record<string, unknown>>
  return Object.entries(fieldsOf(item))
    .flatMap(([field, holds]): string[] => {
      if (typeof holds !== 'string' || !NAMING.has(holds)) return []
      return [values[field] as string | string[] | string[][]].flat(2)
    })
    .filter((id) => !isGiven(id) && id !== ALONG_AXIS && id !== ALONG_RADIUS)
}

/** What fields hold that names something drawn. */
const NAMING: ReadonlySet<string> = new Set(['id', 'way', 'ids', 'idLists'])

/** The same constraint or size, or one that has no id yet, standing on other points and curves. */
export function renamed<T extends Pick<Item, 'kind'>>(item: T, rename: (id: string) => string): T {
  const fields = fieldsOf(item)
  const entries = Object.entries(item).map(([key, value]: [string, unknown]) => {
    const holds = fields[key]
    if (holds === 'id' || holds === 'way') return [key, rename(value as string)]
    if (holds === 'ids') return [key, (value as string[]).map(rename)]
    if (holds === 'idLists') return [key, (value as string[][]).map((ids) => ids.map(rename))]
    return [key, value]
  })
  return Object.fromEntries(entries) as T
}

/** A constraint or size in words, as in “line 3 axial” or “⌀ of point 4”. */
export function describeItem(sketch: Sketch, item: Item): string {
  const name = (id: string): string => entityName(sketch, id)
  const saying = { sketch, name, words: planeWords(sketch.plane) }
  if (!isSize(item)) return constraintKind(item).words(item, saying)
  return `${sizeKind(item).words(item, saying)}, ${item.name} = ${signOf(item)}${item.formula}`
}

/** A kind of size in a word or two, as it is called in a plane. */
export const sizeWord = (kind: Size['kind'], plane: SketchPlane): string =>
  SIZE_KINDS[kind].noun(planeWords(plane))

/** What a size measures where the points stand now, in mm or radians; never negative. */
export const measureSize = (size: Size, entities: Entities, locate: Locate): number =>
  sizeKind(size).measure(size, entities, locate)

/** Whether a size's value is a length in mm or an angle in radians. */
export const measureOf = (size: Pick<Size, 'kind'>): 'length' | 'angle' => sizeKind(size).measures

/** The sign before a size's figure (ISO 129-1). */
export const signOf = (size: Pick<Size, 'kind'>): string => sizeKind(size).sign

/** The constraint or size of an id. */
export function findItem(sketch: Sketch, id: string): Item | undefined {
  return sketch.constraints.find((c) => c.id === id) ?? sketch.sizes.find((s) => s.id === id)
}
