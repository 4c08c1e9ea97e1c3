import { array, mixed, number, object, string, type InferType } from 'yup'
import { EXPORTERS } from '../formats'
import { LOOKS, type Material } from '../part'
import { titleBlockShape } from '../part/blockSchema'

const name = string().strict().trim().required().max(80)
const document = mixed<object>().required()

/** A project's name, given or changed. */
export const projectBody = object({ name }).strict().required().noUnknown()

/** A new part. */
export const newPartBody = object({ document }).strict().required().noUnknown()

/** A part as it is to be stored after the revision that it was read as. */
export const savePartBody = object({
  revision: number().strict().required().integer().min(1),
  document,
})
  .strict()
  .required()
  .noUnknown()

/** Files of parts that are to be written; the tolerance is of triangles, in mm. */
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

/** A drawing that is released: its part, its sheets as SVG, and all of them as PDF in base64. */
export const releaseBody = object({
  mark: string()
    .strict()
    .required()
    .matches(/^[A-Z]{1,3}$/),
  words: string().strict().defined().max(2000),
  document,
  sheets: array(string().strict().required()).strict().required().min(1).max(20),
  pdf: string()
    .strict()
    .required()
    .matches(/^[A-Za-z0-9+/]+=*$/),
})
  .strict()
  .required()
  .noUnknown()

/** A title block of one’s own; the name it is kept by stands in the address. */
export const titleBlockBody = titleBlockShape

/** A material of one's own. */
export const materialBody = object({
  name,
  density: number().strict().required(),
  colour: string()
    .strict()
    .required()
    .matches(/^#[0-9a-f]{6}$/),
  look: mixed<Material['look']>().required().oneOf(LOOKS),
}).noUnknown()

export type ProjectBody = InferType<typeof projectBody>
export type NewPartBody = InferType<typeof newPartBody>
export type SavePartBody = InferType<typeof savePartBody>
export type ExportBody = InferType<typeof exportBody>
export type ReleaseBody = InferType<typeof releaseBody>
export type MaterialBody = InferType<typeof materialBody>
