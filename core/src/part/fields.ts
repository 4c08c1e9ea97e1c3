import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup'
import { LONGEST_FORMULA } from '../formula'
import { LARGEST_LENGTH } from '../tolerances'

/** What the fields of a part file hold, as schemas: the words that its shape is told in. */

/** The most of anything a file may hold: far above any part, far below what would stall a page. */
const MOST_ITEMS = 20_000

export const id = string().strict().required().max(64)
/** Names of edges made from edges made from edges grow long. */
export const key = string().strict().defined().max(4000)
export const text = string().strict().defined().max(120)
export const formula = string().strict().defined().max(LONGEST_FORMULA)
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
export const optional = (schema: Schema): ReturnType<typeof lazy> =>
  lazy((value: unknown) => (value === undefined ? anything : schema))
const anything = mixed()
