import { EXPORTERS, LARGEST_PART_FILE } from '@lathica/core/formats'
import { array, mixed, number, object, string, type InferType, type Schema } from 'yup'

/** The largest body accepted, in bytes. */
export const LARGEST_BODY = LARGEST_PART_FILE

const name = string().strict().trim().required().max(80)
const document = mixed().required()

export const projectBody = object({ name }).strict().required().noUnknown()
export const newPartBody = object({ document }).strict().required().noUnknown()
export const savePartBody = object({
  revision: number().strict().required().integer().min(1),
  document,
})
  .strict()
  .required()
  .noUnknown()

export const exportBody = object({
  parts: array(string().strict().required()).strict().required().min(1).max(200),
  format: string()
    .strict()
    .required()
    .oneOf(EXPORTERS.map((e) => e.id)),
  tolerance: number().strict().min(1e-3).max(10).optional(),
  name: string().strict().trim().max(80).optional(),
})
  .strict()
  .required()
  .noUnknown()

/** The body, checked against a shape. Throws a validation error that says what is wrong. */
export function checkBody<S extends Schema>(schema: S, body: unknown): InferType<S> {
  return schema.validateSync(body, { strict: true, abortEarly: false }) as InferType<S>
}
