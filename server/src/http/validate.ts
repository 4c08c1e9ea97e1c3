import { LARGEST_PART_FILE } from '@lathica/core/formats'
import type { InferType, Schema } from 'yup'

/** The largest body accepted, in bytes. */
export const LARGEST_BODY = LARGEST_PART_FILE

/** The body, checked against a shape. Throws a validation error that says what is wrong. */
export function checkBody<S extends Schema>(schema: S, body: unknown): InferType<S> {
  return schema.validateSync(body, { strict: true, abortEarly: false }) as InferType<S>
}
