import {
  ArraySchema,
  ObjectSchema,
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  type Schema,
} from 'yup'
import { LONGEST_FORMULA } from '../formula'
import { LARGEST_LENGTH } from '../tolerances'

/** What the fields of a part file hold, as schemas: the words that its shape is told in. */

/** A field's name as words: `headDiameter` as `head diameter`. */
export const fieldWords = (field: string): string =>
  field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)

/** The most of anything a file may hold: far above any part, far below what would stall a page. */
const MOST_ITEMS = 20_000

export const id = string().strict().required().max(64)
/** Names of edges made from edges made from edges grow long. */
export const key = string().strict().defined().max(4000)
export const text = string().strict().defined().max(120)
/** A formula of a length. */
export const formula = string().strict().defined().max(LONGEST_FORMULA)
/** A formula of an angle. */
export const angleFormula = formula.meta({ measure: 'angle' })
/** A formula of a number without a unit. */
export const numberFormula = formula.meta({ measure: 'number' })
export const flag = boolean().strict().required()
/** How long a stretch of a free curve is beside others. */
export const share = number().strict().required().min(1e-9).max(1e9)
export const coordinate = number().strict().required().min(-LARGEST_LENGTH).max(LARGEST_LENGTH)
export const count = number().strict().required().integer().min(0).max(1e9)

export const exactly = <T extends string>(...words: readonly T[]): Schema =>
  mixed<T>().required().oneOf(words)

export type FieldSchema = Schema | ReturnType<typeof lazy>

export type Fields = Readonly<Record<string, FieldSchema>>

/** An object with just these fields; others are refused so that nothing is dropped unseen. */
export const record = (fields: Fields): Schema =>
  object(fields as Record<string, Schema>)
    .strict()
    .required()
    .noUnknown()

export const list = (item: FieldSchema): Schema =>
  array(item as Schema)
    .strict()
    .required()
    .max(MOST_ITEMS)

/** One shape per kind; a kind that is not listed is refused with the names of those that are. */
export function byKind(kinds: Readonly<Record<string, Fields>>): ReturnType<typeof lazy> {
  // Each is made once: making a schema takes longer than what it checks.
  const made = new Map<string, Schema>()
  return lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | null)?.kind
    const key = typeof kind === 'string' && Object.hasOwn(kinds, kind) ? kind : ''
    const schema = made.get(key) ?? record({ ...kinds[key], kind: exactly(...Object.keys(kinds)) })
    made.set(key, schema)
    return schema
  })
}

/** Present or left out. */
export const optional = (schema: Schema): ReturnType<typeof lazy> => {
  const made = lazy((value: unknown) => (value === undefined ? anything : schema))
  insides.set(made, schema)
  return made as ReturnType<typeof lazy>
}
/** What is held by fields that may be left out. */
const insides = new WeakMap<object, Schema>()
const anything = mixed()

/** A formula in a document: the way to it through fields and lists, and what it is a formula of. */
export interface FormulaSite {
  readonly path: readonly (string | number)[]
  readonly formula: string
  readonly measure: 'length' | 'angle' | 'number'
}

/** Every formula that fields hold, in their order. */
export function formulasIn(fields: Fields, value: object): readonly FormulaSite[] {
  return Object.entries(fields).flatMap(([name, schema]) =>
    formulasUnder(schema, (value as Record<string, unknown>)[name], [name]),
  )
}

function formulasUnder(
  given: FieldSchema,
  value: unknown,
  path: readonly (string | number)[],
): readonly FormulaSite[] {
  const schema = insides.get(given) ?? given
  const measure = MEASURES.get(schema)
  if (measure !== undefined) {
    return typeof value === 'string' ? [{ path, formula: value, measure }] : []
  }
  if (schema instanceof ArraySchema && Array.isArray(value)) {
    const inner = schema.innerType as FieldSchema | undefined
    return inner ? value.flatMap((item, i) => formulasUnder(inner, item, [...path, i])) : []
  }
  if (schema instanceof ObjectSchema && typeof value === 'object' && value !== null) {
    return Object.entries(schema.fields as Fields).flatMap(([name, field]) =>
      formulasUnder(field, (value as Record<string, unknown>)[name], [...path, name]),
    )
  }
  return []
}

const MEASURES: ReadonlyMap<object, FormulaSite['measure']> = new Map<
  object,
  FormulaSite['measure']
>([
  [formula, 'length'],
  [angleFormula, 'angle'],
  [numberFormula, 'number'],
])
